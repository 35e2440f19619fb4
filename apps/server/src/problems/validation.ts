// Checks every body and query against its DTO at the edge.
import { ValidationPipe, type ArgumentMetadata, type PipeTransform, type ValidationError } from '@nestjs/common';
import type { ByKind } from '@dellum/contract';
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

/** Reads a body that is one of several shapes, told apart by its `kind`. Throws `not-valid` for a kind that is not among them. */
export class ByKindPipe<Dto extends object> implements PipeTransform<unknown, Promise<Dto>> {
  private readonly checked = validation();

  constructor(private readonly kinds: ByKind<Dto>) {}

  transform(body: unknown, metadata: ArgumentMetadata): Promise<Dto> {
    const kind = typeof body === 'object' && body !== null && 'kind' in body && typeof body.kind === 'string' ? body.kind : '';
    const reason = `Its kind must be one of ${Object.keys(this.kinds).join(', ')}.`;
    if (!Object.hasOwn(this.kinds, kind)) throw new ProblemError('not-valid', reason, { faults: { kind: reason } });
    return this.checked.transform(body, { ...metadata, metatype: this.kinds[kind]! }) as Promise<Dto>;
  }
}
