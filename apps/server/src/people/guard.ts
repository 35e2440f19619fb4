// Who is asking, and whether this role may: every endpoint says so, and one that does not is closed.
import { createParamDecorator, Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { roles, type Role } from '@dellum/contract';
import type { Request } from 'express';
import { ProblemError } from '../problems/index.js';
import { SessionsService } from './sessions.service.js';

/** The person of a session. */
export interface Caller {
  readonly id: string;
  readonly houseId: string;
  readonly name: string;
  readonly role: Role;
}
export interface CallerRequest extends Request {
  caller?: Caller;
  token?: string;
}

const openKey = 'dellum:open';
const rolesKey = 'dellum:roles';
/** Open to anybody. */
export const Open = () => SetMetadata(openKey, true);
/** Open to these roles. */
export const For = (...roles: readonly Role[]) => SetMetadata(rolesKey, roles);
export const everyRole: readonly Role[] = roles;

/** The person who asks. */
export const Asking = createParamDecorator((_: unknown, context: ExecutionContext): Caller => {
  const { caller } = context.switchToHttp().getRequest<CallerRequest>();
  if (!caller) throw new ProblemError('not-signed-in', 'Sign in first.');
  return caller;
});

@Injectable()
export class RoleGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionsService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const targets = [context.getHandler(), context.getClass()];
    if (this.reflector.getAllAndOverride<boolean | undefined>(openKey, targets)) return true;
    const request = context.switchToHttp().getRequest<CallerRequest>();
    const found = await this.sessions.callerOf(request.headers.cookie);
    if (!found) throw new ProblemError('not-signed-in', 'You are not signed in any more. Sign in again; what you typed is kept.');
    const roles = this.reflector.getAllAndOverride<readonly Role[] | undefined>(rolesKey, targets) ?? [];
    if (!roles.includes(found.caller.role)) {
      throw new ProblemError('not-allowed', `A ${found.caller.role} may not do this. Ask an administrator of the house.`);
    }
    request.caller = found.caller;
    request.token = found.token;
    return true;
  }
}
