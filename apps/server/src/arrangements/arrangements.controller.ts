// HTTP for arrangements: everybody has their own.
import { Body, Controller, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import { ArrangementDto, ValuesQueryDto, type ArrangementView, type HeldValues } from '@dellum/contract';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { ArrangementsService } from './arrangements.service.js';

@Controller('registers/:registerId')
@For(...everyRole)
export class ArrangementsController {
  constructor(private readonly arrangements: ArrangementsService) {}

  @Get('arrangement')
  of(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string): Promise<ArrangementView> {
    return this.arrangements.of(caller, registerId);
  }

  @Put('arrangement')
  keep(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: ArrangementDto): Promise<ArrangementView> {
    return this.arrangements.keep(caller, registerId, dto);
  }

  /** Brings the entries into order by what they hold now. */
  @Post('arrangement/anew')
  @HttpCode(200)
  anew(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string): Promise<ArrangementView> {
    return this.arrangements.anew(caller, registerId);
  }

  /** The values that entries hold in a field. */
  @Get('values')
  values(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Query() query: ValuesQueryDto): Promise<HeldValues> {
    return this.arrangements.values(caller, registerId, query);
  }
}
