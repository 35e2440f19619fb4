import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { CatalogsModule } from '../catalogs/catalogs.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PeopleModule } from '../people/people.module.js';
import { RecordsModule } from '../records/records.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ArrivalsService } from './arrivals.service.js';
import { ArchivesController } from './archives.controller.js';
import { ArchivesService } from './archives.service.js';
import { CatalogFilesController } from './catalogFiles.controller.js';
import { CatalogFilesService } from './catalogFiles.service.js';
import { ComparingService } from './comparing.service.js';
import { ConceptsService } from './concepts.service.js';
import { DownloadsController } from './downloads.controller.js';
import { DownloadsService } from './downloads.service.js';
import { DownloadsStore } from './downloads.store.js';
import { HouseFromArchiveService } from './houseFromArchive.service.js';
import { LayingStore } from './laying.store.js';
import { LookedArchivesStore } from './lookedArchives.store.js';
import { PartsStore } from './parts.store.js';
import { ReturnedFilesController } from './returnedFiles.controller.js';
import { ReturnedFilesService } from './returnedFiles.service.js';
import { ReturnedJudgingService } from './returnedJudging.service.js';
import { ReturnedStoringService } from './returnedStoring.service.js';
import { ReturnedStore } from './returned.store.js';
import { SchemasService } from './schemas.service.js';
import { SentStore } from './sent.store.js';

@Module({
  imports: [
    ArrangementsModule,
    CatalogsModule,
    CompiledModule,
    EnteringModule,
    EntriesModule,
    JobsModule,
    LedgerModule,
    PeopleModule,
    RecordsModule,
    StructureModule,
  ],
  controllers: [ArchivesController, CatalogFilesController, DownloadsController, ReturnedFilesController],
  providers: [
    ArchivesService,
    ArrivalsService,
    CatalogFilesService,
    ComparingService,
    ConceptsService,
    DownloadsService,
    DownloadsStore,
    HouseFromArchiveService,
    LayingStore,
    LookedArchivesStore,
    PartsStore,
    ReturnedFilesService,
    ReturnedJudgingService,
    ReturnedStore,
    ReturnedStoringService,
    SchemasService,
    SentStore,
  ],
  exports: [
    ArchivesService,
    ArrivalsService,
    ComparingService,
    DownloadsService,
    DownloadsStore,
    LayingStore,
    LookedArchivesStore,
    PartsStore,
    ReturnedStore,
    SentStore,
  ],
})
export class ExchangeModule {}
