// HTTP for catalogs and the lineage strip.
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { ChangeCatalogDto, MakeCatalogDto, type CatalogItems, type CatalogUse, type FieldCount, type Lineage } from '@dellum/contract';
import { Asking, everyRole, For, type Caller } from '../people/guard.js';
import { IdPipe } from '../problems/index.js';
import { CatalogsService } from './catalogs.service.js';
import { LineageService } from './lineage.service.js';

@Controller()
@For('administrator')
export class CatalogsController {
  constructor(
    private readonly catalogs: CatalogsService,
    private readonly lineage: LineageService,
  ) {}

  @Post('catalogs')
  make(@Asking() caller: Caller, @Body() dto: MakeCatalogDto): Promise<{ id: string }> {
    return this.catalogs.make(caller, dto);
  }

  @Patch('catalogs/:id')
  @HttpCode(204)
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeCatalogDto): Promise<void> {
    return this.catalogs.alter(caller, id, dto);
  }

  @Delete('catalogs/:id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.catalogs.remove(caller, id);
  }

  @Get('catalogs/:id/items')
  @For(...everyRole)
  items(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CatalogItems> {
    return this.catalogs.items(caller, id);
  }

  @Get('catalogs/:id/use')
  use(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<CatalogUse> {
    return this.catalogs.use(caller, id);
  }

  @Get('catalogs/:id/lineage')
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
