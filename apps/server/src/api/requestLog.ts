// Requests as JSON lines on standard error, without anything by which somebody could come in.
import { pino } from 'pino';
import { pinoHttp } from 'pino-http';

/** The token of a form's link stands in the address itself. */
const withoutToken = (url: string): string => url.replace(/\/open\/[^/?#]+/gu, '/open/…');

export const requestLog = () =>
  pinoHttp({
    logger: pino(pino.destination(2)),
    redact: ['req.headers.cookie', 'req.headers.authorization', 'req.headers.referer', 'res.headers["set-cookie"]'],
    serializers: { req: (request: { url: string }) => ({ ...request, url: withoutToken(request.url) }) },
  });
