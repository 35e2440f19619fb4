// HTTP for the rules of fields; administrators only.
import { Body, Controller, Delete, HttpCode, Param, Post, Put } from '@nestjs/common';
import { NewListDto, ruleDtos, WhyDto, type RuleDto, type RuleTrial, type Why } from '@dellum/contract';
import { Asking, everyRole, For, type Caller, Takes } from '../access/access.js';
import { ByKindPipe, IdPipe } from '../problems/index.js';
import { BindingsService } from './bindings.service.js';
import { WhyService } from './why.service.js';

@Controller('fields/:id/rule')
@For('administrator')
export class BindingsController {
  constructor(
    private readonly bindings: BindingsService,
    private readonly traces: WhyService,
  ) {}

  @Put()
  @HttpCode(204)
  @Takes('blocks')
  set(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body(new ByKindPipe<RuleDto>(ruleDtos)) dto: RuleDto): Promise<void> {
    return this.bindings.set(caller, id, dto);
  }

  /** Makes a list, a growing range and a catalog of some values, and lets the field take them. */
  @Post('list')
  @Takes('blocks')
  newList(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: NewListDto): Promise<{ catalogId: string }> {
    return this.bindings.newList(caller, id, dto);
  }

  @Delete()
  @HttpCode(204)
  clear(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.bindings.set(caller, id, null);
  }

  /** Why a value is offered in the field, or not; where it comes from is the administrator's to see. */
  @Post('why')
  @HttpCode(200)
  @For(...everyRole)
  why(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: WhyDto): Promise<Why> {
    return this.traces.of(caller, id, dto);
  }

  @Post('trial')
  @HttpCode(200)
  @Takes('blocks')
  trial(
    @Asking() caller: Caller,
    @Param('id', IdPipe) id: string,
    @Body(new ByKindPipe<RuleDto>(ruleDtos)) dto: RuleDto,
  ): Promise<RuleTrial> {
    return this.bindings.trial(caller, id, dto);
  }
}
