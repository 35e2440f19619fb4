// What went wrong with a request, in words that can be shown.
import type { Problem, ProblemCode } from '@dellum/contract';

export interface RequestProblem extends Omit<Problem, 'code'> {
  /** `unreachable`: no answer from the server at all. */
  readonly code: ProblemCode | 'unreachable';
}

export const unreachable: RequestProblem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'Dellum does not answer. What you typed is kept and stored when it is back.',
  code: 'unreachable',
};

/** True when trying again later may help, without the person doing anything. */
export const passes = (problem: RequestProblem): boolean =>
  problem.code === 'unreachable' || problem.code === 'database-away' || problem.code === 'busy' || problem.code === 'disk-full';

export function isProblem(error: unknown): error is RequestProblem {
  return typeof error === 'object' && error !== null && 'code' in error && 'detail' in error;
}

/** The sentence to show for anything that was thrown by a request. */
export const problemWords = (error: unknown): string => (isProblem(error) ? error.detail : 'Something went wrong. Try again.');

/** What is wrong with one input, or else what went wrong as a whole. */
export const faultWords = (error: unknown, input: string): string => (isProblem(error) && error.faults?.[input]) || problemWords(error);

/** The sentence for the error of a query; undefined while there is none. */
export const errorWords = (error: unknown): string | undefined => (error === undefined ? undefined : problemWords(error));
