// HTTP for intakes; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req } from '@nestjs/common';
import { IntakeDto, SentFileDto, type IntakeFileView, type IntakeView } from '@dellum/contract';
import type { Request } from 'express';
import { Asking, For, Takes, type Caller } from '../access/access.js';
import { sentFile } from '../exchange/sentFile.js';
import { IdPipe } from '../problems/index.js';
import { IntakesService } from './intakes.service.js';

@Controller('intakes')
@For('administrator')
export class IntakesController {
  constructor(private readonly intakes: IntakesService) {}

  @Get()
  list(@Asking() caller: Caller): Promise<IntakeView[]> {
    return this.intakes.list(caller);
  }

  @Post()
  make(@Asking() caller: Caller, @Body() dto: IntakeDto): Promise<IntakeView> {
    return this.intakes.make(caller, dto);
  }

  @Put(':id')
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: IntakeDto): Promise<IntakeView> {
    return this.intakes.change(caller, id, dto);
  }

  @Post(':id/off')
  @HttpCode(200)
  turnOff(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<IntakeView> {
    return this.intakes.setOff(caller, id, true);
  }

  @Post(':id/on')
  @HttpCode(200)
  turnOn(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<IntakeView> {
    return this.intakes.setOff(caller, id, false);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.intakes.remove(caller, id);
  }

  @Get(':id/files')
  files(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<IntakeFileView[]> {
    return this.intakes.files(caller, id);
  }

  /** The file itself is the body (application/octet-stream). */
  @Post(':id/files')
  @HttpCode(202)
  @Takes('file')
  bring(
    @Asking() caller: Caller,
    @Param('id', IdPipe) id: string,
    @Query() { name }: SentFileDto,
    @Req() request: Request,
  ): Promise<IntakeFileView> {
    return this.intakes.bring(caller, id, name, sentFile(request));
  }

  /** Takes back what a file has stored. */
  @Post(':id/files/:file/taken-back')
  @HttpCode(204)
  takeBack(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Param('file', ParseIntPipe) file: number): Promise<void> {
    return this.intakes.takeBack(caller, id, file);
  }
}
