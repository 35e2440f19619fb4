// A file that is the body of a request.
import type { Request } from 'express';
import { ProblemError } from '../problems/index.js';

/** The bytes of the file, as they come; throws `json-only` for anything that is not sent as one. */
export function sentFile(request: Request): AsyncIterable<Buffer> {
  if (!request.is('application/octet-stream')) throw new ProblemError('json-only', 'Send the file itself, as application/octet-stream.');
  return request as AsyncIterable<Buffer>;
}
