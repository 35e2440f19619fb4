// Checks every body and query against its DTO at the edge.
import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { ProblemError } from './problem.js';

/** So many faults are told; nobody mends more at once. */
const mostFaults = 20;

function faultsOf(errors: readonly ValidationError[], path = ''): Record<string, string> {
  const faults: Record<string, string> = Object.create(null);
  for (const { property, constraints, children } of errors) {
    const name = path + property;
    const words = constraints && Object.values(constraints)[0];
    if (words) faults[name] = words;
    if (children) Object.assign(faults, faultsOf(children, `${name}.`));
    if (Object.keys(faults).length >= mostFaults) break;
  }
  return faults;
}

export const validation = (): ValidationPipe =>
  new ValidationPipe({
    transform: true,
    whitelist: true,
    forbidNonWhitelisted: true,
    stopAtFirstError: true,
    validationError: { target: false, value: false },
    exceptionFactory: (errors) => {
      const faults = faultsOf(errors);
      return new ProblemError('not-valid', Object.values(faults)[0] ?? 'The request is not complete.', { faults });
    },
  });
