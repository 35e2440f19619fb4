// HTTP for records.
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { ChangeBackDto, RecordsQueryDto, type EntryChange, type EntryPage, type EntryView, type RecordView } from '@dellum/contract';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { RecordsService } from './records.service.js';

@Controller('registers/:registerId/records')
@For(...everyRole)
export class RecordsController {
  constructor(private readonly records: RecordsService) {}

  /** Entries that are looked for. */
  @Post()
  @HttpCode(200)
  search(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: RecordsQueryDto): Promise<EntryPage> {
    return this.records.search(caller, registerId, dto);
  }

  @Get(':id')
  record(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Param('id', IdPipe) id: string): Promise<RecordView> {
    return this.records.record(caller, registerId, id);
  }

  @Get(':id/history')
  history(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Param('id', IdPipe) id: string,
  ): Promise<EntryChange[]> {
    return this.records.history(caller, registerId, id);
  }

  /** Gives a field what it held before a change. */
  @Post(':id/history/:change/back')
  @HttpCode(200)
  @For('administrator', 'clerk')
  takeBack(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Param('id', IdPipe) id: string,
    @Param('change', ParseIntPipe) change: number,
    @Body() { field }: ChangeBackDto,
  ): Promise<EntryView> {
    return this.records.takeBack(caller, registerId, id, change, field);
  }
}
