// Turns whatever was thrown into problem+json.
import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import { ProblemError } from './problem.js';

/** SQLSTATE classes and socket errors that mean: the database cannot be reached now. */
const away = /^(?:08|57P|53300|ECONN|EPIPE|ETIMEDOUT|ENOTFOUND)/;
const awayWords =
  /timeout exceeded when trying to connect|Connection terminated|Client has encountered a connection error|driver has already been destroyed/i;

function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = 'code' in error && typeof error.code === 'string' ? error.code : '';
  return away.test(code) || awayWords.test(error.message);
}

/**
 * What the database says of a request that asks too much of it, by SQLSTATE. What it cannot store should have been refused before: that is
 * a gap in our checks, and no reason to fail.
 */
const said: readonly (readonly [code: RegExp, problem: () => ProblemError])[] = [
  [
    /^(?:40001|40P01|55P03|57014|53400)$/u,
    () => new ProblemError('busy', 'The server is busy with what others do right now. What you typed is kept; try again in a moment.'),
  ],
  [
    /^53100$/u,
    () =>
      new ProblemError(
        'disk-full',
        'The disk of the server is full, so that nothing can be stored. What you typed is kept and stored when there is room; tell whoever runs the server.',
      ),
  ],
  [/^(?:22|23502|23514)/u, () => new ProblemError('not-valid', 'Something in the request cannot be stored. Check what was entered.')],
  [/^23503$/u, () => new ProblemError('not-found', 'Something that the request names is not there any more. Go back and choose again.')],
  [/^23505$/u, () => new ProblemError('name-taken', 'Somebody has stored the same at this moment. Look again, then choose another name.')],
];

function saidByDatabase(error: unknown): ProblemError | undefined {
  const code = error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : '';
  return code.length === 5 ? said.find(([known]) => known.test(code))?.[1]() : undefined;
}

function statusOf(error: unknown): number | undefined {
  if (error instanceof HttpException) return error.getStatus();
  if (error instanceof Error && 'status' in error && typeof error.status === 'number') return error.status;
  return undefined;
}

/** The problem that stands for any error. */
export function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  if (isAway(error))
    return new ProblemError('database-away', 'The database does not answer. What you typed is kept; try again in a moment.');
  const told = saidByDatabase(error);
  if (told) return told;
  switch (statusOf(error)) {
    case 400:
      return new ProblemError('malformed-body', 'The body of the request is not readable JSON. Check it and send it again.');
    case 404:
      return new ProblemError('not-found', 'There is nothing at this address.');
    case 413:
      return new ProblemError('too-large', 'The request is too large. Send it in smaller parts.');
    case 415:
      return new ProblemError('json-only', 'Send the request as application/json in UTF-8.');
    default:
      return new ProblemError('internal', 'Something went wrong on the server. Nothing was stored; try again.');
  }
}

@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('problems');

  catch(error: unknown, host: ArgumentsHost): void {
    const problem = problemOf(error);
    if (problem.code === 'internal') this.logger.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    else if (saidByDatabase(error)) this.logger.warn(`The database refused a request (${String(error)}); it was answered ${problem.code}.`);
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    if (problem.status === 503) response.setHeader('Retry-After', '1');
    if (problem.code === 'too-many-requests') response.setHeader('Retry-After', '60');
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem.toProblem()));
  }
}
