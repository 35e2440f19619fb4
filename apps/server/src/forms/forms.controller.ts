// HTTP for forms: administrators lay them out and publish them, whoever enters data fills them.
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { FillFormDto, LayFormDto, MakeFormDto, MakeLinkDto, type Filled, type FillView, type FormView } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { FillingService } from './filling.service.js';
import { FormsService } from './forms.service.js';

@Controller('forms')
@For('administrator')
export class FormsController {
  constructor(
    private readonly forms: FormsService,
    private readonly filling: FillingService,
  ) {}

  @Post()
  make(@Asking() caller: Caller, @Body() dto: MakeFormDto): Promise<{ id: string }> {
    return this.forms.make(caller, dto);
  }

  @Get(':id')
  view(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<FormView> {
    return this.forms.view(caller, id);
  }

  @Put(':id')
  lay(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: LayFormDto): Promise<{ edition: number }> {
    return this.forms.lay(caller, id, dto);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.forms.remove(caller, id);
  }

  @Post(':id/versions')
  publish(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<{ version: number }> {
    return this.forms.publish(caller, id);
  }

  /** Takes the form away from those who fill it. */
  @Delete(':id/versions')
  @HttpCode(204)
  close(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.forms.close(caller, id);
  }

  @Post(':id/links')
  makeLink(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: MakeLinkDto): Promise<{ id: string; token: string }> {
    return this.forms.makeLink(caller, id, dto);
  }

  @Delete(':id/links/:linkId')
  @HttpCode(204)
  closeLink(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Param('linkId', IdPipe) linkId: string): Promise<void> {
    return this.forms.closeLink(caller, id, linkId);
  }

  /** All that is needed to fill the form, but for its lists. */
  @Get(':id/filling')
  @For('administrator', 'clerk')
  open(
    @Asking() caller: Caller,
    @Param('id', IdPipe) id: string,
    @Query('version', new ParseIntPipe({ optional: true })) version?: number,
  ): Promise<FillView> {
    return this.filling.view({ houseId: caller.houseId, caller }, id, version);
  }

  /** Stores the answers as an entry, once for each submission. */
  @Post(':id/entries')
  @For('administrator', 'clerk')
  @HttpCode(200)
  fill(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: FillFormDto): Promise<Filled> {
    return this.filling.fill({ houseId: caller.houseId, caller }, id, dto);
  }
}
