import { Module } from '@nestjs/common';
import { CatalogsModule } from '../catalogs/catalogs.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ThreadsModule } from '../threads/threads.module.js';
import { FindingsService } from './findings.service.js';
import { GrowingListsService } from './growingLists.service.js';
import { RangesController } from './ranges.controller.js';
import { RangesService } from './ranges.service.js';

@Module({
  imports: [CatalogsModule, CompiledModule, CountsModule, EntriesModule, LedgerModule, SourcesModule, StructureModule, ThreadsModule],
  controllers: [RangesController],
  providers: [FindingsService, GrowingListsService, RangesService],
  exports: [FindingsService, GrowingListsService, RangesService],
})
export class RangesModule {}
