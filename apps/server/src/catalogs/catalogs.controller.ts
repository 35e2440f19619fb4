// HTTP for catalogs, their items, their history, and the lineage strip.
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put, Query } from '@nestjs/common';
import {
  AddItemDto,
  ChangeCatalogDto,
  CureParentDto,
  DefineCatalogDto,
  DefinitionDto,
  ItemActDto,
  KeepItemDto,
  MakeCatalogDto,
  PackedQueryDto,
  StewardsDto,
  type CatalogChange,
  type CatalogItems,
  type CatalogUse,
  type ChangedCatalog,
  type DefinitionTrial,
  type FieldCount,
  type Lineage,
  type Outcome,
  type PackedCatalog,
} from '@dellum/contract';
import { Asking, everyRole, For, type Caller, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { CatalogsService } from './catalogs.service.js';
import { HistoryService } from './history.service.js';
import { ItemsService } from './items.service.js';
import { LineageService } from './lineage.service.js';

@Controller()
@For('administrator')
export class CatalogsController {
  constructor(
    private readonly catalogs: CatalogsService,
    private readonly itemsOf: ItemsService,
    private readonly history: HistoryService,
    private readonly lineage: LineageService,
  ) {}

  @Post('catalogs')
  @Takes('blocks')
  make(@Asking() caller: Caller, @Body() dto: MakeCatalogDto): Promise<{ id: string }> {
    return this.catalogs.make(caller, dto);
  }

  @Post('catalogs/trial')
  @HttpCode(200)
  @Takes('blocks')
  try(@Asking() caller: Caller, @Body() dto: DefinitionDto): Promise<DefinitionTrial> {
    return this.catalogs.trial(caller, dto);
  }

  @Patch('catalogs/:id')
  @HttpCode(204)
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeCatalogDto): Promise<void> {
    return this.catalogs.alter(caller, id, dto);
  }

  @Put('catalogs/:id/definition')
  @Takes('blocks')
  define(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: DefineCatalogDto): Promise<Outcome> {
    return this.catalogs.define(caller, id, dto);
  }

  @Post('catalogs/:id/trial')
  @HttpCode(200)
  @Takes('blocks')
  tryAgain(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: DefinitionDto): Promise<DefinitionTrial> {
    return this.catalogs.trial(caller, dto, id);
  }

  @Delete('catalogs/:id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.catalogs.remove(caller, id);
  }

  /** Says who keeps the values of a catalog, beside the administrators. */
  @Put('catalogs/:id/stewards')
  @HttpCode(204)
  entrust(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: StewardsDto): Promise<void> {
    return this.catalogs.entrust(caller, id, dto.people);
  }

  @Get('catalogs/:id/items')
  @For(...everyRole)
  items(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CatalogItems> {
    return this.catalogs.items(caller, id);
  }

  @Get('catalogs/:id/items/packed')
  @For(...everyRole)
  packed(
    @Asking() caller: Caller,
    @Param('id', IdPipe) id: string,
    @Query() { since }: PackedQueryDto,
  ): Promise<PackedCatalog | ChangedCatalog> {
    return this.catalogs.packed(caller, id, since);
  }

  @Post('catalogs/:id/items')
  @For('administrator', 'steward')
  @HttpCode(200)
  add(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: AddItemDto): Promise<Outcome> {
    return this.itemsOf.add(caller, id, dto);
  }

  @Post('catalogs/:id/items/acts')
  @For('administrator', 'steward')
  @HttpCode(200)
  act(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ItemActDto): Promise<Outcome> {
    return this.itemsOf.act(caller, id, dto);
  }

  @Post('catalogs/:id/parents/cures')
  @HttpCode(200)
  cureParent(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: CureParentDto): Promise<Outcome> {
    return this.itemsOf.cureParent(caller, id, dto);
  }

  @Put('catalogs/:id/items/kept')
  @For('administrator', 'steward')
  keep(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: KeepItemDto): Promise<Outcome> {
    return this.itemsOf.keep(caller, id, dto);
  }

  @Get('catalogs/:id/history')
  @For('administrator', 'steward')
  changes(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CatalogChange[]> {
    return this.history.changes(caller, id);
  }

  @Get('catalogs/:id/as-of')
  @For('administrator', 'steward')
  asOf(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Query('day') day?: string): Promise<CatalogItems> {
    return this.history.asOf(caller, id, day ?? '');
  }

  @Get('catalogs/:id/use')
  @For('administrator', 'steward')
  use(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CatalogUse> {
    return this.catalogs.use(caller, id);
  }

  @Get('catalogs/:id/lineage')
  @For('administrator', 'steward')
  ofCatalog(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Lineage> {
    return this.lineage.ofCatalog(caller, id);
  }

  @Get('ranges/:id/lineage')
  ofRange(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Lineage> {
    return this.lineage.ofRange(caller, id);
  }

  @Get('registers/:id/counts')
  @For(...everyRole)
  ofRegister(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<FieldCount[]> {
    return this.lineage.ofRegister(caller, id);
  }
}
