// HTTP for catalogs as files.
import { Controller, Get, Param, Query, Res } from '@nestjs/common';
import { CatalogFileDto } from '@dellum/contract';
import type { Response } from 'express';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { asFile } from './attachment.js';
import { CatalogFilesService } from './catalogFiles.service.js';
import { valueFormats } from './valueFormats.js';

@Controller('catalogs/:id/file')
export class CatalogFilesController {
  constructor(private readonly files: CatalogFilesService) {}

  @Get()
  @For('administrator', 'steward')
  async file(
    @Asking() caller: Caller,
    @Param('id', IdPipe) id: string,
    @Query() dto: CatalogFileDto,
    @Res() response: Response,
  ): Promise<void> {
    const { title, text } = await this.files.write(caller, id, dto);
    const { type, ending } = valueFormats[dto.format];
    asFile(response, `${title}.${ending}`, `${type}; charset=utf-8`);
    response.end(text);
  }
}
