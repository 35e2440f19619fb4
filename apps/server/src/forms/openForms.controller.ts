// HTTP for people without an account: the token of a link is what lets them in, to one form and nothing else.
import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { FillFormDto, type Filled, type FillView, type PackedCatalog } from '@dellum/contract';
import { Open, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { OpenFillingService } from './openFilling.service.js';

@Controller('open/:token')
@Open()
export class OpenFormsController {
  constructor(private readonly filling: OpenFillingService) {}

  @Get()
  view(@Param('token') token: string): Promise<FillView> {
    return this.filling.view(token);
  }

  @Get('catalogs/:id')
  catalog(@Param('token') token: string, @Param('id', IdPipe) id: string): Promise<PackedCatalog> {
    return this.filling.catalog(token, id);
  }

  @Post('entries')
  @HttpCode(200)
  @Takes('form')
  fill(@Param('token') token: string, @Body() dto: FillFormDto): Promise<Filled> {
    return this.filling.fill(token, dto);
  }
}
