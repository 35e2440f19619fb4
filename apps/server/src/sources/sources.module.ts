import { Module } from '@nestjs/common';
import { CarriesModule } from '../carries/carries.module.js';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ActsStore } from './acts.store.js';
import { ApplyingService } from './applying.service.js';
import { PlanningService } from './planning.service.js';
import { SourcesController } from './sources.controller.js';
import { SourcesService } from './sources.service.js';
import { SourcesStore } from './sources.store.js';

@Module({
  imports: [
    CarriesModule,
    ChangesModule,
    CompiledModule,
    CountsModule,
    EntriesModule,
    JobsModule,
    LedgerModule,
    OutsideModule,
    StructureModule,
  ],
  controllers: [SourcesController],
  providers: [ActsStore, ApplyingService, PlanningService, SourcesService, SourcesStore],
  exports: [PlanningService, SourcesService, SourcesStore],
})
export class SourcesModule {}
