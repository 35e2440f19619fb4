// Who is asking, and which roles may: said at every endpoint; one that does not say is closed.
import { createParamDecorator, SetMetadata, type ExecutionContext } from '@nestjs/common';
import { roles, type Role } from '@dellum/contract';
import type { Request } from 'express';
import { ProblemError } from '../problems/index.js';

/** The person of a session. */
export interface Caller {
  readonly id: string;
  readonly houseId: string;
  readonly name: string;
  readonly role: Role;
  /** The role needs a second factor, and the person has none yet. */
  readonly needsFactor?: boolean;
}
export interface CallerRequest extends Request {
  caller?: Caller;
  token?: string;
}

export const openKey = 'dellum:open';
export const rolesKey = 'dellum:roles';
export const withoutFactorKey = 'dellum:without factor';
export const bodyKey = 'dellum:body';
/**
 * How much a request may bring: what one signs in with, the answers of a form, most requests, blocks of cells; a file is read by whoever
 * takes it.
 */
export type BodySize = 'small' | 'form' | 'usual' | 'blocks' | 'file';
/** Takes bodies up to this size. */
export const Takes = (size: BodySize) => SetMetadata(bodyKey, size);
/** Open to anybody. */
export const Open = () => SetMetadata(openKey, true);
/** Open to these roles also while they must set up a second factor. */
export const WithoutFactor = () => SetMetadata(withoutFactorKey, true);
/** Open to these roles. */
export const For = (...roles: readonly Role[]) => SetMetadata(rolesKey, roles);
export const everyRole: readonly Role[] = roles;

/** The person who asks. */
export const Asking = createParamDecorator((_: unknown, context: ExecutionContext): Caller => {
  const { caller } = context.switchToHttp().getRequest<CallerRequest>();
  if (!caller) throw new ProblemError('not-signed-in', 'Sign in first.');
  return caller;
});
