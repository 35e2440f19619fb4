// The built web application: its parts, compressed when they were built, and its page under every address that is none of theirs.
import type { RequestHandler } from 'express';
import sirv from 'sirv';

/** Seconds: a part bears its content in its name. */
const forEver = 31_536_000;

export function pages(folder: string): RequestHandler {
  const files = sirv(folder, {
    ...{ single: true, brotli: true, gzip: true, etag: true },
    setHeaders: (response, path) => {
      // The page itself is asked for each time, so that a new build is seen at once.
      response.setHeader('Cache-Control', path.startsWith('/assets/') ? `public, max-age=${forEver}, immutable` : 'no-cache');
    },
  });
  return (request, response, next) => {
    const isPage = (request.method === 'GET' || request.method === 'HEAD') && !/^\/api(?:\/|$)/u.test(request.path);
    if (isPage) files(request, response, next);
    else next();
  };
}
