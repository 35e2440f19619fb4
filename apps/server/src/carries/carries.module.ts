import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { CarriesService } from './carries.service.js';
import { CarriesStore } from './carries.store.js';

@Module({
  imports: [ChangesModule, CountsModule, JobsModule, LedgerModule, StructureModule],
  providers: [CarriesService, CarriesStore],
  exports: [CarriesService, CarriesStore],
})
export class CarriesModule {}
