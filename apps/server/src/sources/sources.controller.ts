// HTTP for changes of the sources and their slips; administrators, and stewards for their own slips.
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ActsDto, AnswerSlipDto, TakeBackDto, type CanAgain, type Outcome, type Slip } from '@dellum/contract';
import { Asking, For, type Caller, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { SourcesService } from './sources.service.js';

@Controller()
@For('administrator')
export class SourcesController {
  constructor(private readonly sources: SourcesService) {}

  @Post('registers/:registerId/acts')
  @HttpCode(200)
  @Takes('blocks')
  act(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: ActsDto): Promise<Outcome> {
    return this.sources.act(caller, registerId, dto);
  }

  @Post('sheets/:id/undo')
  @HttpCode(200)
  undo(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Outcome> {
    return this.sources.again(caller, id, 'undone');
  }

  @Post('sheets/:id/redo')
  @HttpCode(200)
  redo(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Outcome> {
    return this.sources.again(caller, id, 'done');
  }

  @Get('sheets/:id/again')
  again(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CanAgain> {
    return this.sources.canAgain(caller, id);
  }

  @Post('acts/taken-back')
  @HttpCode(200)
  takeBack(@Asking() caller: Caller, @Body() dto: TakeBackDto): Promise<Outcome> {
    return this.sources.takeBack(caller, dto.act);
  }

  @Get('slips')
  @For('administrator', 'steward')
  slips(@Asking() caller: Caller): Promise<Slip[]> {
    return this.sources.slips(caller);
  }

  @Post('slips/:id/answers')
  @For('administrator', 'steward')
  @HttpCode(200)
  @Takes('blocks')
  answer(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: AnswerSlipDto): Promise<Outcome> {
    return this.sources.answer(caller, id, dto);
  }

  @Delete('slips/:id')
  @For('administrator', 'steward')
  @HttpCode(204)
  leave(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.sources.leave(caller, id);
  }
}
