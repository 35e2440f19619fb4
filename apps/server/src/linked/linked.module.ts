import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { LinkedController } from './linked.controller.js';
import { LinkedService } from './linked.service.js';
import { LinkedStore } from './linked.store.js';

@Module({
  imports: [ChangesModule, CompiledModule, JobsModule, LedgerModule, SourcesModule, StructureModule],
  controllers: [LinkedController],
  providers: [LinkedService, LinkedStore],
  exports: [LinkedService, LinkedStore],
})
export class LinkedModule {}
