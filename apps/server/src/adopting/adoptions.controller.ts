// HTTP for houses out of files; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query, Req } from '@nestjs/common';
import {
  AdoptFileDto,
  MendColumnDto,
  MendListDto,
  MendSpellingsDto,
  MendTableDto,
  type AdoptionSummary,
  type AdoptionView,
} from '@dellum/contract';
import type { Request } from 'express';
import { Asking, For, Takes, type Caller } from '../access/access.js';
import { sentFile } from '../exchange/sentFile.js';
import { IdPipe } from '../problems/index.js';
import { AdoptionsService } from './adoptions.service.js';

@Controller()
@For('administrator')
export class AdoptionsController {
  constructor(private readonly adoptions: AdoptionsService) {}

  /** The file itself is the body (application/octet-stream). */
  @Post('adoption-files')
  @HttpCode(202)
  @Takes('file')
  bring(@Asking() caller: Caller, @Query() dto: AdoptFileDto, @Req() request: Request): Promise<AdoptionView> {
    return this.adoptions.bring(caller, dto, sentFile(request));
  }

  @Get('adoptions')
  list(@Asking() caller: Caller): Promise<AdoptionSummary[]> {
    return this.adoptions.list(caller);
  }

  @Get('adoptions/:id')
  view(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<AdoptionView> {
    return this.adoptions.view(caller, id);
  }

  @Put('adoptions/:id/tables')
  mendTable(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MendTableDto): Promise<AdoptionView> {
    return this.adoptions.mendTable(caller, id, dto);
  }

  @Put('adoptions/:id/columns')
  mendColumn(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MendColumnDto): Promise<AdoptionView> {
    return this.adoptions.mendColumn(caller, id, dto);
  }

  @Put('adoptions/:id/lists')
  mendList(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MendListDto): Promise<AdoptionView> {
    return this.adoptions.mendList(caller, id, dto);
  }

  @Put('adoptions/:id/spellings')
  mendSpellings(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MendSpellingsDto): Promise<AdoptionView> {
    return this.adoptions.mendSpellings(caller, id, dto);
  }

  @Post('adoptions/:id/applied')
  @HttpCode(202)
  apply(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<AdoptionView> {
    return this.adoptions.apply(caller, id);
  }

  @Post('adoptions/:id/taken-back')
  @HttpCode(200)
  takeBack(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<AdoptionView> {
    return this.adoptions.takeBack(caller, id);
  }

  @Delete('adoptions/:id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.adoptions.remove(caller, id);
  }
}
