// HTTP for house archives; administrators only.
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ArchiveOutDto, BringArchiveDto, TemplateDto, type ArchiveBrought, type ArchiveLook, type Template } from '@dellum/contract';
import type { Request, Response } from 'express';
import { Asking, For, Takes, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { ArchivesService } from './archives.service.js';
import { asFile } from './attachment.js';
import { sentFile } from './sentFile.js';

/** So long a reader may take nothing; milliseconds. */
const longestPause = 60_000;

@Controller('archives')
@For('administrator')
export class ArchivesController {
  constructor(private readonly archives: ArchivesService) {}

  /** The house as it is now, as a file. */
  @Get('house')
  async out(@Asking() caller: Caller, @Query() dto: ArchiveOutDto, @Res() response: Response): Promise<void> {
    // A reader who goes away, or stops reading, ends it: it keeps a connection to the database.
    response.setTimeout(longestPause, () => response.destroy());
    await this.archives.goOut(caller, dto, async (name, pieces) => {
      asFile(response, name, 'application/zip');
      await pipeline(Readable.from(pieces), response).catch(() => response.destroy());
    });
  }

  /** The archive itself is the body (application/octet-stream). */
  @Post()
  @HttpCode(200)
  @Takes('file')
  look(@Asking() caller: Caller, @Req() request: Request): Promise<ArchiveLook> {
    return this.archives.look(caller, sentFile(request));
  }

  @Get('templates')
  templates(): Promise<readonly Template[]> {
    return this.archives.templates();
  }

  @Post('templates')
  @HttpCode(200)
  lookAtTemplate(@Asking() caller: Caller, @Body() { template }: TemplateDto): Promise<ArchiveLook> {
    return this.archives.lookAtTemplate(caller, template);
  }

  @Get(':look')
  view(@Asking() caller: Caller, @Param('look', IdPipe) look: string): Promise<ArchiveLook> {
    return this.archives.view(caller, look);
  }

  @Delete(':look')
  @HttpCode(204)
  forget(@Asking() caller: Caller, @Param('look', IdPipe) look: string): Promise<void> {
    return this.archives.forget(caller, look);
  }

  @Post('brought')
  @HttpCode(200)
  bring(@Asking() caller: Caller, @Body() dto: BringArchiveDto): Promise<ArchiveBrought> {
    return this.archives.bring(caller, dto);
  }
}
