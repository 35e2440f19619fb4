// HTTP for files that come back.
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req } from '@nestjs/common';
import {
  BringFileDto,
  DecideAllDto,
  DecideRowDto,
  FileColumnsDto,
  OtherNameDto,
  ReturnedRowsDto,
  type Outcome,
  type ReturnedFileView,
  type ReturnedRow,
  type ReturnedRows,
} from '@dellum/contract';
import type { Request } from 'express';
import { Asking, For, Takes, type Caller } from '../access/access.js';
import { sentFile } from './sentFile.js';
import { ReturnedFilesService } from './returnedFiles.service.js';

@Controller('returned-files')
@For('administrator', 'clerk')
export class ReturnedFilesController {
  constructor(private readonly files: ReturnedFilesService) {}

  /** The file itself is the body (application/octet-stream). */
  @Post()
  @HttpCode(202)
  @Takes('file')
  bring(@Asking() caller: Caller, @Query() dto: BringFileDto, @Req() request: Request): Promise<ReturnedFileView> {
    return this.files.bring(caller, dto, sentFile(request));
  }

  @Get()
  list(@Asking() caller: Caller): Promise<ReturnedFileView[]> {
    return this.files.list(caller);
  }

  @Get(':id')
  view(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<ReturnedFileView> {
    return this.files.view(caller, id);
  }

  @Get(':id/rows')
  rows(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number, @Query() { show }: ReturnedRowsDto): Promise<ReturnedRows> {
    return this.files.shown(caller, id, show);
  }

  @Put(':id/columns')
  setColumns(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number, @Body() dto: FileColumnsDto): Promise<ReturnedFileView> {
    return this.files.setColumns(caller, id, dto);
  }

  @Post(':id/compared')
  @HttpCode(202)
  compareAgain(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<ReturnedFileView> {
    return this.files.compareAgain(caller, id);
  }

  @Put(':id/rows/:ord')
  decide(
    @Asking() caller: Caller,
    @Param('id', ParseIntPipe) id: number,
    @Param('ord', ParseIntPipe) ord: number,
    @Body() dto: DecideRowDto,
  ): Promise<ReturnedRow> {
    return this.files.decide(caller, id, ord, dto);
  }

  /** Keeps what came in a cell as another name of the value that it was mended to. */
  @Post(':id/rows/:ord/other-names')
  @For('administrator')
  @HttpCode(200)
  rememberName(
    @Asking() caller: Caller,
    @Param('id', ParseIntPipe) id: number,
    @Param('ord', ParseIntPipe) ord: number,
    @Body() dto: OtherNameDto,
  ): Promise<Outcome> {
    return this.files.rememberName(caller, id, ord, dto);
  }

  @Put(':id/decided')
  decideAll(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number, @Body() dto: DecideAllDto): Promise<ReturnedFileView> {
    return this.files.decideAll(caller, id, dto);
  }

  /** Stores what it brings. */
  @Post(':id/applied')
  @HttpCode(202)
  apply(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<ReturnedFileView> {
    return this.files.apply(caller, id);
  }

  /** Stops reading it, or forgets it. */
  @Delete(':id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.files.remove(caller, id);
  }
}
