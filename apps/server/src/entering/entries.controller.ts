// HTTP for entries.
import { Body, Controller, Get, Header, HttpCode, Param, Patch, Post, Put, Query } from '@nestjs/common';
import {
  BeginEntryDto,
  DeleteEntriesDto,
  EditCellDto,
  InsertEntriesDto,
  PackedEntriesQueryDto,
  PageQueryDto,
  RestoreEntriesDto,
  TakeBackCellsDto,
  WriteBlockDto,
  type BlockOutcome,
  type EditOutcome,
  type EntryPage,
  type TakenBack,
} from '@dellum/contract';
import { Asking, everyRole, For, type Caller, Takes } from '../access/access.js';
import { IdPipe, ProblemError } from '../problems/index.js';
import { EntriesService } from './entries.service.js';
import { EntryPagesService } from './entryPages.service.js';
import { TakingBackService } from './takingBack.service.js';

@Controller('registers/:registerId/entries')
@For('administrator', 'clerk')
export class EntriesController {
  constructor(
    private readonly entries: EntriesService,
    private readonly pages: EntryPagesService,
    private readonly takingBack: TakingBackService,
  ) {}

  @Get()
  @For(...everyRole)
  page(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Query() query: PageQueryDto): Promise<EntryPage> {
    return this.pages.page(caller, registerId, query);
  }

  /** All entries of a list or a table of a source sheet, in few bytes. Where there are more than come at once, the next ones are asked for. */
  @Get('packed')
  @For(...everyRole)
  @Header('Content-Type', 'application/json')
  packed(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Query() { from }: PackedEntriesQueryDto,
  ): Promise<string> {
    return this.pages.packed(caller, registerId, from);
  }

  /** Edits one cell; what the judge refuses is answered as the problem `value-refused` with its code and suggestions. */
  @Patch(':id')
  async edit(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Param('id', IdPipe) id: string,
    @Body() dto: EditCellDto,
  ): Promise<EditOutcome> {
    return taken(await this.entries.editCell(caller, registerId, id, dto));
  }

  /** Begins an entry with its first cell; nothing is stored when the cell is refused. Sent twice, the entry is made once. */
  @Put(':id')
  async begin(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Param('id', IdPipe) id: string,
    @Body() dto: BeginEntryDto,
  ): Promise<EditOutcome> {
    return taken(await this.entries.begin(caller, registerId, id, dto));
  }

  @Post()
  insert(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Body() dto: InsertEntriesDto,
  ): Promise<{ entries: string[] }> {
    return this.entries.insert(caller, registerId, dto);
  }

  @Post('block')
  @HttpCode(200)
  @Takes('blocks')
  block(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: WriteBlockDto): Promise<BlockOutcome> {
    return this.entries.writeBlock(caller, registerId, dto);
  }

  /** Takes back cells that the caller has written. */
  @Post('taken-back')
  @HttpCode(200)
  @Takes('blocks')
  takeBack(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: TakeBackCellsDto): Promise<TakenBack> {
    return this.takingBack.takeBack(caller, registerId, dto);
  }

  /** Brings back entries that the caller has deleted. */
  @Post('restored')
  @HttpCode(200)
  restore(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Body() dto: RestoreEntriesDto,
  ): Promise<{ entries: string[] }> {
    return this.takingBack.restore(caller, registerId, dto);
  }

  @Post('delete')
  @HttpCode(200)
  remove(
    @Asking() caller: Caller,
    @Param('registerId', IdPipe) registerId: string,
    @Body() dto: DeleteEntriesDto,
  ): Promise<{ deleted: number }> {
    return this.entries.remove(caller, registerId, dto);
  }
}

/** The outcome of an edit; what the judge refused is a problem. */
function taken(outcome: EditOutcome): EditOutcome {
  if (outcome.verdict.verdict !== 'refused') return outcome;
  const { message, code, suggestions, mayConfirm } = outcome.verdict;
  throw new ProblemError('value-refused', message, { verdict: code, suggestions, ...(mayConfirm && { mayConfirm }) });
}
