import { Module } from '@nestjs/common';
import { ArrangementsModule } from '../arrangements/arrangements.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { RecordsController } from './records.controller.js';
import { RecordsService } from './records.service.js';
import { RecordsStore } from './records.store.js';
import { SeekingService } from './seeking.service.js';

@Module({
  imports: [ArrangementsModule, CompiledModule, CountsModule, EnteringModule, EntriesModule, StructureModule],
  controllers: [RecordsController],
  providers: [RecordsService, RecordsStore, SeekingService],
  exports: [SeekingService],
})
export class RecordsModule {}
