import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { BlockJudgingService } from './blockJudging.service.js';
import { ClosingService } from './closing.service.js';
import { BlockWritingService } from './blockWriting.service.js';
import { BringingService } from './bringing.service.js';
import { CellWriterService } from './cellWriter.service.js';
import { EntriesController } from './entries.controller.js';
import { EntriesService } from './entries.service.js';
import { EntryActsController } from './entryActs.controller.js';
import { EntryActsService } from './entryActs.service.js';
import { EntryActsStore } from './entryActs.store.js';
import { EntryPagesService } from './entryPages.service.js';
import { EntryWriterService } from './entryWriter.service.js';
import { FindingService } from './finding.service.js';
import { FindingStore } from './finding.store.js';
import { HeldController } from './held.controller.js';
import { NewValuesService } from './newValues.service.js';
import { RepeatsService } from './repeats.service.js';
import { RequestsStore } from './requests.store.js';
import { ReturnedRowsStore } from './returnedRows.store.js';
import { TakingBackService } from './takingBack.service.js';

@Module({
  imports: [
    ArrangementsModule,
    ChangesModule,
    CompiledModule,
    CountsModule,
    EntriesModule,
    JobsModule,
    LedgerModule,
    OutsideModule,
    SourcesModule,
    StructureModule,
  ],
  controllers: [EntriesController, EntryActsController, HeldController],
  providers: [
    BlockJudgingService,
    BlockWritingService,
    BringingService,
    CellWriterService,
    ClosingService,
    EntriesService,
    EntryActsService,
    EntryActsStore,
    EntryPagesService,
    EntryWriterService,
    FindingService,
    FindingStore,
    NewValuesService,
    RepeatsService,
    RequestsStore,
    ReturnedRowsStore,
    TakingBackService,
  ],
  exports: [
    BlockJudgingService,
    ClosingService,
    EntryActsService,
    EntryActsStore,
    EntryWriterService,
    NewValuesService,
    RepeatsService,
    RequestsStore,
    ReturnedRowsStore,
  ],
})
export class EnteringModule {}
