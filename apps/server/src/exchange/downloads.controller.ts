// HTTP for downloads.
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Res } from '@nestjs/common';
import { DownloadDto, type DownloadView } from '@dellum/contract';
import type { Response } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { asFile } from './attachment.js';
import { DownloadsService, fileKinds } from './downloads.service.js';

@Controller()
@For(...everyRole)
export class DownloadsController {
  constructor(private readonly downloads: DownloadsService) {}

  @Post('registers/:registerId/downloads')
  @HttpCode(202)
  begin(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string, @Body() dto: DownloadDto): Promise<DownloadView> {
    return this.downloads.begin(caller, registerId, dto);
  }

  @Get('downloads')
  list(@Asking() caller: Caller): Promise<DownloadView[]> {
    return this.downloads.list(caller);
  }

  @Get('downloads/:id')
  view(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<DownloadView> {
    return this.downloads.view(caller, id);
  }

  @Get('downloads/:id/file')
  async file(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number, @Res() response: Response): Promise<void> {
    const { view, parts } = await this.downloads.file(caller, id);
    asFile(response, view.name, fileKinds[view.format].type);
    response.setHeader('Content-Length', view.bytes);
    // A reader who goes away ends it.
    await pipeline(Readable.from(parts), response).catch(() => response.destroy());
  }

  /** Stops it, or forgets its file. */
  @Delete('downloads/:id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.downloads.remove(caller, id);
  }
}
