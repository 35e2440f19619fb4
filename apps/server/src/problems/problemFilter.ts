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
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem.toProblem()));
  }
}
