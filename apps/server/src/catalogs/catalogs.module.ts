import { Module } from '@nestjs/common';
import { CarriesModule } from '../carries/carries.module.js';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { CatalogsController } from './catalogs.controller.js';
import { CatalogsService } from './catalogs.service.js';
import { HistoryService } from './history.service.js';
import { ItemsService } from './items.service.js';
import { LineageService } from './lineage.service.js';

@Module({
  imports: [CarriesModule, ChangesModule, CompiledModule, CountsModule, LedgerModule, OutsideModule, SourcesModule, StructureModule],
  controllers: [CatalogsController],
  providers: [CatalogsService, HistoryService, ItemsService, LineageService],
  exports: [CatalogsService, ItemsService],
})
export class CatalogsModule {}
