// HTTP for other programs, by their access tokens.
import { Body, Controller, Get, Headers, HttpCode, Param, ParseIntPipe, Post, Query, Req, Res, UseGuards } from '@nestjs/common';
import {
  ChangesQueryDto,
  CheckRowsDto,
  StoreRowsDto,
  ProgramValuesDto,
  SentFileDto,
  type JudgedRows,
  type ProgramCatalog,
  type ProgramChanges,
  type ProgramFile,
  type ProgramIntake,
  type ProgramRegister,
  type ValueFormatName,
} from '@dellum/contract';
import type { JsonSchema } from '@dellum/core';
import type { Request, Response } from 'express';
import { Open, Takes } from '../access/access.js';
import { IdPipe, ProblemError } from '../problems/index.js';
import { AskingProgram, ProgramGuard, type Program } from './program.js';
import { sentFile } from '../exchange/sentFile.js';
import { ProgramFilesService } from './files.service.js';
import { RowsService } from './rows.service.js';
import { valueFormats } from '../exchange/valueFormats.js';
import { ValuesService } from './values.service.js';

/** No session opens these; a token does. */
@Controller('programs')
@Open()
@UseGuards(ProgramGuard)
export class ProgramsController {
  constructor(
    private readonly values: ValuesService,
    private readonly rows: RowsService,
    private readonly files: ProgramFilesService,
  ) {}

  @Get('catalogs')
  catalogs(@AskingProgram() program: Program): Promise<ProgramCatalog[]> {
    return this.values.catalogsFor(program);
  }

  /** In the format that is asked for by Accept; 304 where it is the one that the program has. */
  @Get('catalogs/:key/values')
  async valuesOf(
    @AskingProgram() program: Program,
    @Param('key') key: string,
    @Query() query: ProgramValuesDto,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const format = formatOf(request);
    const { etag, body } = await this.values.valuesOf(program, key, query, format);
    response.setHeader('ETag', etag);
    response.setHeader('Vary', 'Accept, Authorization');
    response.setHeader('Cache-Control', 'private, no-cache');
    if (isHeld(etag, request.headers['if-none-match'])) response.status(304).end();
    else
      response
        .status(200)
        .type(`${valueFormats[format].type}; charset=utf-8`)
        .end(await body());
  }

  @Get('registers')
  registers(@AskingProgram() program: Program): Promise<ProgramRegister[]> {
    return this.values.registersFor(program);
  }

  /** JSON Schema (draft 2020-12) of one entry. */
  @Get('registers/:key/schema')
  async schema(@AskingProgram() program: Program, @Param('key', IdPipe) key: string, @Res() response: Response): Promise<void> {
    const schema: JsonSchema = await this.values.schema(program, key);
    response.type('application/schema+json').end(JSON.stringify(schema));
  }

  /** Judges rows and stores nothing. */
  @Post('registers/:key/check')
  @HttpCode(200)
  @Takes('blocks')
  check(@AskingProgram() program: Program, @Param('key', IdPipe) key: string, @Body() dto: CheckRowsDto): Promise<JudgedRows> {
    return this.rows.check(program, key, dto);
  }

  /** Stores the rows that are taken, once for each Idempotency-Key. */
  @Post('registers/:key/entries')
  @HttpCode(200)
  @Takes('blocks')
  store(
    @AskingProgram() program: Program,
    @Param('key', IdPipe) key: string,
    @Headers('idempotency-key') once: string | undefined,
    @Body() dto: StoreRowsDto,
  ): Promise<JudgedRows> {
    return this.rows.store(program, key, once, dto);
  }

  /** The intakes to which the program may send files. */
  @Get('intakes')
  intakes(@AskingProgram() program: Program): Promise<ProgramIntake[]> {
    return this.files.intakesFor(program);
  }

  /** The file itself is the body (application/octet-stream). */
  @Post('intakes/:id/files')
  @HttpCode(202)
  @Takes('file')
  sendFile(
    @AskingProgram() program: Program,
    @Param('id', IdPipe) id: string,
    @Query() { name }: SentFileDto,
    @Req() request: Request,
  ): Promise<ProgramFile> {
    return this.files.send(program, id, name, sentFile(request));
  }

  /** What has become of a file that was sent. */
  @Get('intakes/:id/files/:file')
  file(
    @AskingProgram() program: Program,
    @Param('id', IdPipe) id: string,
    @Param('file', ParseIntPipe) file: number,
  ): Promise<ProgramFile> {
    return this.files.file(program, id, file);
  }

  /** What has changed since a number. */
  @Get('changes')
  changes(@AskingProgram() program: Program, @Query() query: ChangesQueryDto, @Req() request: Request): Promise<ProgramChanges> {
    const gone = new AbortController();
    request.on('close', () => gone.abort());
    return this.values.changesFor(program, query, gone.signal);
  }
}

/** Whether If-None-Match names the entity tag (RFC 9110, section 13.1.2). */
const isHeld = (etag: string, held: string | undefined): boolean =>
  (held ?? '').split(',').some((one) => one.trim() === '*' || one.trim().replace(/^W\//u, '') === etag);

function formatOf(request: Request): ValueFormatName {
  const formats = Object.keys(valueFormats) as ValueFormatName[];
  const accepted = request.accepts(formats.map((format) => valueFormats[format].type));
  const format = formats.find((one) => valueFormats[one].type === accepted);
  if (!format)
    throw new ProblemError(
      'not-acceptable',
      `Values are written as ${formats.map((one) => valueFormats[one].type).join(', ')}. Ask for one of them by “Accept”.`,
    );
  return format;
}
