// HTTP for changes of the sources and their slips; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ActDto, AnswerSlipDto, type Outcome, type Slip } from '@dellum/contract';
import { Asking, For, type Caller } from '../people/guard.js';
import { IdPipe } from '../problems/index.js';
import { SourcesService } from './sources.service.js';

@Controller()
@For('administrator')
export class SourcesController {
  constructor(private readonly sources: SourcesService) {}

  @Post('registers/:registerId/acts')
  @HttpCode(200)
  act(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: ActDto): Promise<Outcome> {
    return this.sources.act(caller, registerId, dto);
  }

  @Get('slips')
  slips(@Asking() caller: Caller): Promise<Slip[]> {
    return this.sources.slips(caller);
  }

  @Post('slips/:id/answers')
  @HttpCode(200)
  answer(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: AnswerSlipDto): Promise<Outcome> {
    return this.sources.answer(caller, id, dto);
  }

  @Delete('slips/:id')
  @HttpCode(204)
  leave(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.sources.leave(caller, id);
  }
}
