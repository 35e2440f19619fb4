// HTTP for the rules of fields; administrators only.
import { Body, Controller, Delete, HttpCode, Param, Post, Put } from '@nestjs/common';
import { RuleDto, type RuleTrial } from '@dellum/contract';
import { Asking, For, type Caller } from '../people/guard.js';
import { IdPipe } from '../problems/index.js';
import { BindingsService } from './bindings.service.js';

@Controller('fields/:id/rule')
@For('administrator')
export class BindingsController {
  constructor(private readonly bindings: BindingsService) {}

  @Put()
  @HttpCode(204)
  set(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: RuleDto): Promise<void> {
    return this.bindings.set(caller, id, dto);
  }

  @Delete()
  @HttpCode(204)
  clear(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.bindings.set(caller, id, null);
  }

  @Post('trial')
  @HttpCode(200)
  trial(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: RuleDto): Promise<RuleTrial> {
    return this.bindings.trial(caller, id, dto);
  }
}
