// HTTP for the Bindings page: all fields of the house, and one rule for many of them; administrators only.
import { Body, Controller, Get, HttpCode, Post, Put, Query } from '@nestjs/common';
import { SetRulesDto, TakeBackRulesDto, type FieldCount, type RuleChange, type RuleImpact, type RulesTakenBack } from '@dellum/contract';
import { Asking, For, type Caller, Takes } from '../access/access.js';
import { ManyBindingsService } from './manyBindings.service.js';
import { RuleHistoryService } from './ruleHistory.service.js';

@Controller('bindings')
@For('administrator')
export class ManyBindingsController {
  constructor(
    private readonly bindings: ManyBindingsService,
    private readonly history: RuleHistoryService,
  ) {}

  @Get()
  all(@Asking() caller: Caller): Promise<FieldCount[]> {
    return this.bindings.all(caller);
  }

  /** What the rule would do in each field; nothing is stored. */
  @Post('trial')
  @HttpCode(200)
  @Takes('blocks')
  trial(@Asking() caller: Caller, @Body() dto: SetRulesDto): Promise<RuleImpact[]> {
    return this.bindings.trial(caller, dto);
  }

  /** What was set and cleared, the newest first; `field` for one field only. */
  @Get('history')
  changes(@Asking() caller: Caller, @Query('field') field?: string): Promise<RuleChange[]> {
    return this.history.changes(caller, field);
  }

  @Post('taken-back')
  @HttpCode(200)
  takeBack(@Asking() caller: Caller, @Body() dto: TakeBackRulesDto): Promise<RulesTakenBack> {
    return this.history.takeBack(caller, dto.change);
  }

  @Put()
  @Takes('blocks')
  set(@Asking() caller: Caller, @Body() dto: SetRulesDto): Promise<{ set: number }> {
    return this.bindings.set(caller, dto);
  }
}
