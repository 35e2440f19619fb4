// Lets a request in when its session may do what it asks for.
import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Role } from '@dellum/contract';
import { openKey, rolesKey, withoutFactorKey, type CallerRequest } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { SessionsService } from './sessions.service.js';

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
    if (found.caller.needsFactor && !this.reflector.getAllAndOverride<boolean | undefined>(withoutFactorKey, targets))
      throw new ProblemError('factor-needed', 'The house asks you for a second factor. Set it up first.');
    request.caller = found.caller;
    request.token = found.token;
    return true;
  }
}
