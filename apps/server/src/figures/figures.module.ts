import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { ChangesModule } from '../changes/changes.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { FiguresController } from './figures.controller.js';
import { FiguresService } from './figures.service.js';
import { FiguresStore } from './figures.store.js';

@Module({
  imports: [ArrangementsModule, ChangesModule, CountsModule, JobsModule, LedgerModule, StructureModule],
  controllers: [FiguresController],
  providers: [FiguresService, FiguresStore],
})
export class FiguresModule {}
