// What every request must be before it comes near a controller: from our own pages, and JSON where it writes.
import { isIP } from 'node:net';
import type { Express, NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { problemOf, ProblemError } from '../problems/index.js';
import type { EdgeConfig } from './edgeConfig.js';

const writes = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

function sameOrigin(request: Request): boolean {
  const { origin } = request.headers;
  if (origin === undefined) return request.headers['sec-fetch-site'] === undefined || request.headers['sec-fetch-site'] === 'same-origin';
  return URL.canParse(origin) && new URL(origin).host === request.host;
}

/** Where files come in, as they are. */
const filePaths: ReadonlySet<string> = new Set(['/api/v1/returned-files', '/api/v1/archives', '/api/v1/adoption-files']);
const intakePaths = /^\/api\/v1\/(?:programs\/)?intakes\/[^/]+\/files$/u;
const isFilePath = (path: string): boolean => filePaths.has(path) || intakePaths.test(path);

/** Refuses writes from other origins, and bodies that are not JSON, but for files where these come in. */
function checkWrite(request: Request, _response: Response, next: NextFunction): void {
  if (!writes.has(request.method) || !request.path.startsWith('/api/')) return next();
  if (!sameOrigin(request)) return next(new ProblemError('other-origin', 'This request came from another site. Use the pages of Dellum.'));
  const isFile = request.method === 'POST' && isFilePath(request.path) && request.is('application/octet-stream') !== false;
  if (request.method !== 'DELETE' && !isFile && !request.is('application/json'))
    return next(new ProblemError('json-only', 'Send the request as application/json in UTF-8.'));
  next();
}

/** An address written as numbers, or this machine itself: nobody else can make such a name lead here. */
const isOwn = (name: string): boolean => isIP(name.replace(/^\[|\]$/gu, '')) > 0 || name === 'localhost' || name.endsWith('.localhost');

/** Answers under its own names only: a foreign name that somebody makes lead here would make that site's pages ours. */
const checkHost =
  (hosts: readonly string[]) =>
  (request: Request, _response: Response, next: NextFunction): void => {
    const name = (request.hostname ?? '').toLowerCase();
    if (isOwn(name) || hosts.includes(name)) return next();
    next(
      new ProblemError(
        'other-host',
        `Dellum does not answer under the name “${name.slice(0, 100)}”. Whoever runs it can allow the name with DELLUM_HOSTS.`,
      ),
    );
  };

/** Errors before Nest takes over are problems, too. */
function answerProblem(error: unknown, _request: Request, response: Response, next: NextFunction): void {
  if (response.headersSent) return next(error);
  const problem = problemOf(error);
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem.toProblem()));
}

export function guardEdge(app: Express, { proxies, hosts }: EdgeConfig): void {
  app.disable('x-powered-by');
  if (proxies !== undefined) app.set('trust proxy', proxies);
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
  app.use(checkHost(hosts));
  app.use(checkWrite);
  app.use(answerProblem);
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
}
