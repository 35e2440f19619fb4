// HTTP for the Bindings page: all fields of the house, and one rule for many of them; administrators only.
import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { SetRulesDto, type FieldCount, type RuleImpact } from '@dellum/contract';
import { Asking, For, type Caller } from '../people/guard.js';
import { ManyBindingsService } from './manyBindings.service.js';

@Controller('bindings')
@For('administrator')
export class ManyBindingsController {
  constructor(private readonly bindings: ManyBindingsService) {}

  @Get()
  all(@Asking() caller: Caller): Promise<FieldCount[]> {
    return this.bindings.all(caller);
  }

  /** What the rule would do in each field; nothing is stored. */
  @Post('trial')
  @HttpCode(200)
  trial(@Asking() caller: Caller, @Body() dto: SetRulesDto): Promise<RuleImpact[]> {
    return this.bindings.trial(caller, dto);
  }

  @Put()
  set(@Asking() caller: Caller, @Body() dto: SetRulesDto): Promise<{ set: number }> {
    return this.bindings.set(caller, dto);
  }
}
