// What every request must be before it comes near a controller: from our own pages, and JSON where it writes.
import type { Express, NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { problemOf, ProblemError } from '../problems/index.js';

const writes = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

function sameOrigin(request: Request): boolean {
  const { origin, host } = request.headers;
  if (origin === undefined) return request.headers['sec-fetch-site'] === undefined || request.headers['sec-fetch-site'] === 'same-origin';
  return URL.canParse(origin) && new URL(origin).host === host;
}

/** Refuses writes from other origins, and bodies that are not JSON. */
function checkWrite(request: Request, _response: Response, next: NextFunction): void {
  if (!writes.has(request.method) || !request.path.startsWith('/api/')) return next();
  if (!sameOrigin(request)) return next(new ProblemError('other-origin', 'This request came from another site. Use the pages of Dellum.'));
  if (request.method !== 'DELETE' && !request.is('application/json'))
    return next(new ProblemError('json-only', 'Send the request as application/json in UTF-8.'));
  next();
}

/** Errors before Nest takes over are problems, too. */
function answerProblem(error: unknown, _request: Request, response: Response, next: NextFunction): void {
  if (response.headersSent) return next(error);
  const problem = problemOf(error);
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem.toProblem()));
}

export function guardEdge(app: Express): void {
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: true,
        // Emotion writes its styles into style elements; plain HTTP on loopback must not be upgraded.
        directives: { 'style-src': ["'self'", "'unsafe-inline'"], 'font-src': ["'self'"], 'upgrade-insecure-requests': null },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(checkWrite);
  app.use(answerProblem);
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
}
