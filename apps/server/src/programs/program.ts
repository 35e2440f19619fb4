// The program that asks: known by its token, never by a session.
import { createParamDecorator, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { ProblemError } from '../problems/index.js';
import { AccessTokensService } from './accessTokens.service.js';

export interface Program {
  readonly tokenId: string;
  readonly houseId: string;
  readonly name: string;
  readonly writes: boolean;
  readonly catalogs: ReadonlySet<string>;
  readonly registers: ReadonlySet<string>;
}
type ProgramRequest = Request & { program?: Program };

/** Lets a request in by its access token (RFC 6750, section 2.1). */
@Injectable()
export class ProgramGuard implements CanActivate {
  constructor(private readonly tokens: AccessTokensService) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<ProgramRequest>();
    const [scheme, token] = request.headers.authorization?.split(' ') ?? [];
    request.program = await this.tokens.programOf(scheme?.toLowerCase() === 'bearer' ? token : undefined);
    return true;
  }
}

/** The program that asks. */
export const AskingProgram = createParamDecorator((_: unknown, context: ExecutionContext): Program => {
  const { program } = context.switchToHttp().getRequest<ProgramRequest>();
  if (!program) throw new ProblemError('no-token', 'Send an access token.');
  return program;
});
