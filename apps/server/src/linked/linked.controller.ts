// HTTP for linked sources; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  MakeLinkedDto,
  TryLinkedDto,
  type DatabaseTables,
  type LinkedTrial,
  type LinkedView,
  type Outcome,
  type Reachable,
} from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { LinkedService } from './linked.service.js';

@Controller('linked')
@For('administrator')
export class LinkedController {
  constructor(private readonly linked: LinkedService) {}

  @Get()
  all(@Asking() caller: Caller): Promise<LinkedView[]> {
    return this.linked.all(caller);
  }

  @Get('reachable')
  reachable(@Asking() caller: Caller): Promise<Reachable> {
    return this.linked.reach(caller);
  }

  @Get('tables')
  tables(@Asking() caller: Caller, @Query('connection') connection?: string): Promise<DatabaseTables> {
    return this.linked.tables(caller, connection ?? '');
  }

  @Post('trial')
  @HttpCode(200)
  try(@Asking() caller: Caller, @Body() dto: TryLinkedDto): Promise<LinkedTrial> {
    return this.linked.try(caller, dto.settings);
  }

  @Post()
  make(@Asking() caller: Caller, @Body() dto: MakeLinkedDto): Promise<{ id: string }> {
    return this.linked.make(caller, dto);
  }

  @Put(':id')
  alter(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MakeLinkedDto): Promise<{ id: string }> {
    return this.linked.alter(caller, id, dto);
  }

  @Post(':id/refresh')
  @HttpCode(200)
  refresh(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Outcome> {
    return this.linked.refresh(caller, id);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.linked.remove(caller, id);
  }
}
