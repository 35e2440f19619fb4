import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { RecordsModule } from '../records/records.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { CatalogFilesController } from './catalogFiles.controller.js';
import { CatalogFilesService } from './catalogFiles.service.js';
import { DownloadsController } from './downloads.controller.js';
import { DownloadsService } from './downloads.service.js';
import { DownloadsStore } from './downloads.store.js';

@Module({
  imports: [ArrangementsModule, CompiledModule, EntriesModule, JobsModule, LedgerModule, RecordsModule, StructureModule],
  controllers: [CatalogFilesController, DownloadsController],
  providers: [CatalogFilesService, DownloadsService, DownloadsStore],
  exports: [DownloadsService, DownloadsStore],
})
export class ExchangeModule {}
