import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { RecordsModule } from '../records/records.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { CatalogFilesController } from './catalogFiles.controller.js';
import { CatalogFilesService } from './catalogFiles.service.js';
import { ComparingService } from './comparing.service.js';
import { DownloadsController } from './downloads.controller.js';
import { DownloadsService } from './downloads.service.js';
import { DownloadsStore } from './downloads.store.js';
import { ReturnedFilesController } from './returnedFiles.controller.js';
import { ReturnedFilesService } from './returnedFiles.service.js';
import { ReturnedJudgingService } from './returnedJudging.service.js';
import { ReturnedStore } from './returned.store.js';
import { SentStore } from './sent.store.js';

@Module({
  imports: [ArrangementsModule, CompiledModule, EnteringModule, EntriesModule, JobsModule, LedgerModule, RecordsModule, StructureModule],
  controllers: [CatalogFilesController, DownloadsController, ReturnedFilesController],
  providers: [
    CatalogFilesService,
    ComparingService,
    DownloadsService,
    DownloadsStore,
    ReturnedFilesService,
    ReturnedJudgingService,
    ReturnedStore,
    SentStore,
  ],
  exports: [ComparingService, DownloadsService, DownloadsStore, ReturnedStore, SentStore],
})
export class ExchangeModule {}
