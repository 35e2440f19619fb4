// HTTP for access tokens; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { AccessTokenDto, type AccessTokenView, type MadeToken } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { AccessTokensService } from './accessTokens.service.js';

@Controller('access-tokens')
@For('administrator')
export class AccessTokensController {
  constructor(private readonly tokens: AccessTokensService) {}

  @Get()
  list(@Asking() caller: Caller): Promise<AccessTokenView[]> {
    return this.tokens.list(caller);
  }

  /** The token is in this answer and nowhere else. */
  @Post()
  make(@Asking() caller: Caller, @Body() dto: AccessTokenDto): Promise<MadeToken> {
    return this.tokens.make(caller, dto);
  }

  /** Ends it at once. */
  @Delete(':id')
  @HttpCode(204)
  end(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.tokens.end(caller, id);
  }
}
