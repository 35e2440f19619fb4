import { Module } from '@nestjs/common';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { OutsideService } from './outside.service.js';
import { OutsideHoldingsService } from './outsideHoldings.service.js';

@Module({
  imports: [CompiledModule, CountsModule, EntriesModule, JobsModule],
  providers: [OutsideService, OutsideHoldingsService],
  exports: [OutsideService, OutsideHoldingsService],
})
export class OutsideModule {}
