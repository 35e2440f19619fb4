// HTTP for figures. Counting is a stream of lines, so that its progress is seen and it stops when nobody listens any more.
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Res } from '@nestjs/common';
import { FigureDto, FigureEntriesDto, KeepFigureDto, type FigureEntries, type FigureLineView, type FigureView } from '@dellum/contract';
import type { Response } from 'express';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { IdPipe, problemOf } from '../problems/index.js';
import { FiguresService } from './figures.service.js';

@Controller('figures')
@For(...everyRole)
export class FiguresController {
  constructor(private readonly figures: FiguresService) {}

  @Get()
  kept(@Asking() caller: Caller): Promise<FigureView[]> {
    return this.figures.kept(caller);
  }

  @Post()
  @For('administrator', 'steward', 'clerk')
  keep(@Asking() caller: Caller, @Body() dto: KeepFigureDto): Promise<{ id: string }> {
    return this.figures.keep(caller, undefined, dto);
  }

  @Put(':id')
  @For('administrator', 'steward', 'clerk')
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: KeepFigureDto): Promise<{ id: string }> {
    return this.figures.keep(caller, id, dto);
  }

  @Delete(':id')
  @For('administrator', 'steward', 'clerk')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.figures.remove(caller, id);
  }

  /** Counts, a line of JSON for each step: how far it is, at last the groups, or the problem that stopped it. */
  @Post('counted')
  @HttpCode(200)
  async counted(@Asking() caller: Caller, @Body() dto: FigureDto, @Res() response: Response): Promise<void> {
    const count = await this.figures.prepared(caller, dto);
    const begun = performance.now();
    let stopped = false;
    response.on('close', () => {
      stopped = true;
    });
    response.type('application/x-ndjson');
    const say = (line: FigureLineView) => response.write(`${JSON.stringify(line)}\n`);
    try {
      const counted = await count({ progress: (done, total) => say({ done, total }), stopped: () => stopped });
      if (counted) say({ ...counted, took: Math.round(performance.now() - begun) });
    } catch (error) {
      say({ problem: problemOf(error).toProblem() });
    }
    response.end();
  }

  /** How the entries of a group are found among the records. */
  @Post('entries')
  @HttpCode(200)
  entries(@Asking() caller: Caller, @Body() dto: FigureEntriesDto): Promise<FigureEntries> {
    return this.figures.entriesOf(caller, dto);
  }
}
