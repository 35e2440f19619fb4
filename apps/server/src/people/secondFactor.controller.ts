// HTTP for one's own second factor. Open to whoever must set one up before anything else.
import { Body, Controller, Get, HttpCode, Post, Req } from '@nestjs/common';
import { FactorCodeDto, OwnPasswordDto, type FactorView, type NewFactor, type RecoveryCodes } from '@dellum/contract';
import type { Request } from 'express';
import { Asking, everyRole, For, type Caller, type CallerRequest, Takes, WithoutFactor } from '../access/access.js';
import { SecondFactorService } from './secondFactor.service.js';

@Controller('session/factor')
@For(...everyRole)
@WithoutFactor()
export class SecondFactorController {
  constructor(private readonly factor: SecondFactorService) {}

  @Get()
  of(@Asking() caller: Caller): Promise<FactorView> {
    return this.factor.of(caller);
  }

  @Post('begin')
  @HttpCode(200)
  @Takes('small')
  begin(@Asking() caller: Caller, @Body() dto: OwnPasswordDto, @Req() request: Request): Promise<NewFactor> {
    return this.factor.begin(caller, dto.password, request.ip ?? '');
  }

  @Post()
  @HttpCode(200)
  @Takes('small')
  confirm(@Asking() caller: Caller, @Body() dto: FactorCodeDto, @Req() request: CallerRequest): Promise<RecoveryCodes> {
    return this.factor.confirm(caller, request.token ?? '', dto.code);
  }

  @Post('codes')
  @HttpCode(200)
  @Takes('small')
  renew(@Asking() caller: Caller, @Body() dto: OwnPasswordDto, @Req() request: Request): Promise<RecoveryCodes> {
    return this.factor.renewCodes(caller, dto.password, request.ip ?? '');
  }

  @Post('given-up')
  @HttpCode(204)
  @Takes('small')
  giveUp(@Asking() caller: Caller, @Body() dto: OwnPasswordDto, @Req() request: Request): Promise<void> {
    return this.factor.giveUp(caller, dto.password, request.ip ?? '');
  }
}
