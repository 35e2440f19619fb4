// HTTP for acts on blocks, for finding texts and for the sum of a block.
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { BlockDto, EntryActDto, FindDto, type BlockSum, type EntryActView, type Found } from '@dellum/contract';
import { Asking, everyRole, For, type Caller, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { EntryActsService } from './entryActs.service.js';
import { FindingService } from './finding.service.js';

@Controller('registers/:registerId')
@For('administrator', 'clerk')
export class EntryActsController {
  constructor(
    private readonly acts: EntryActsService,
    private readonly finding: FindingService,
  ) {}

  @Post('entry-acts')
  @HttpCode(202)
  @Takes('blocks')
  begin(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: EntryActDto): Promise<EntryActView> {
    return this.acts.begin(caller, registerId, dto);
  }

  /** How far an act of one's own is, and what came of it. */
  @Get('entry-acts/:id')
  view(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<EntryActView> {
    return this.acts.view(caller, id);
  }

  @Post('found')
  @HttpCode(200)
  @For(...everyRole)
  find(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: FindDto): Promise<Found> {
    return this.finding.find(caller, registerId, dto);
  }

  /** The sum of a block, also of rows that nobody has looked at. */
  @Post('summed')
  @HttpCode(200)
  @For(...everyRole)
  sum(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: BlockDto): Promise<BlockSum> {
    return this.finding.sum(caller, registerId, dto);
  }
}
