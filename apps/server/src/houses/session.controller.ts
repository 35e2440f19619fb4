// HTTP for signing in and out.
import { Body, Controller, Delete, Get, HttpCode, Post, Put, Req, Res } from '@nestjs/common';
import { ChangePasswordDto, SignInDto, type Me, type SessionView } from '@dellum/contract';
import type { Request, Response } from 'express';
import { Database } from '../database/database.js';
import { HousesService } from './houses.service.js';
import { Asking, everyRole, For, Open, type Caller, type CallerRequest, Takes, WithoutFactor } from '../access/access.js';
import { PeopleService } from '../people/people.service.js';
import { SessionsService } from '../people/sessions.service.js';

@Controller('session')
export class SessionController {
  constructor(
    private readonly people: PeopleService,
    private readonly houses: HousesService,
    private readonly sessions: SessionsService,
    private readonly database: Database,
  ) {}

  @Get()
  @For(...everyRole)
  @WithoutFactor()
  me(@Asking() caller: Caller): Promise<Me> {
    return this.houses.me(caller);
  }

  @Post()
  @Open()
  @HttpCode(204)
  @Takes('small')
  async signIn(@Body() dto: SignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const houseId = await this.houses.houseOfSignIn(dto.house);
    const from = {
      address: request.ip ?? '',
      cookies: request.headers.cookie,
      secure: request.secure,
      by: `${request.headers['user-agent'] ?? 'a program'}, ${request.ip ?? ''}`,
    };
    response.setHeader('Set-Cookie', await this.people.signIn(houseId, dto, from));
  }

  /** Changes one's own password. */
  @Put('password')
  @For(...everyRole)
  @HttpCode(204)
  changePassword(@Asking() caller: Caller, @Req() request: CallerRequest & Request, @Body() dto: ChangePasswordDto): Promise<void> {
    return this.people.changePassword(caller, request.token ?? '', dto, request.ip ?? '');
  }

  /** Where one is signed in. */
  @Get('all')
  @For(...everyRole)
  all(@Asking() caller: Caller, @Req() request: CallerRequest): Promise<SessionView[]> {
    return this.sessions.of(this.database.kysely, caller, request.token);
  }

  /** Signs one out everywhere but here. */
  @Delete('others')
  @For(...everyRole)
  @HttpCode(204)
  async endOthers(@Asking() caller: Caller, @Req() request: CallerRequest): Promise<void> {
    if (request.token) await this.sessions.endOthers(this.database.kysely, caller, request.token);
  }

  @Delete()
  @For(...everyRole)
  @WithoutFactor()
  @HttpCode(204)
  async signOut(@Asking() caller: Caller, @Req() request: CallerRequest, @Res({ passthrough: true }) response: Response): Promise<void> {
    if (request.token) await this.sessions.end(this.database.kysely, caller.houseId, request.token);
    response.setHeader('Set-Cookie', await this.sessions.expiredCookie());
  }
}
