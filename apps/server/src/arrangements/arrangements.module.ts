import { Module } from '@nestjs/common';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ArrangementsController } from './arrangements.controller.js';
import { ArrangementsService } from './arrangements.service.js';
import { ArrangementsStore } from './arrangements.store.js';

@Module({
  imports: [CompiledModule, CountsModule, EntriesModule, OutsideModule, StructureModule],
  controllers: [ArrangementsController],
  providers: [ArrangementsService, ArrangementsStore],
  exports: [ArrangementsService],
})
export class ArrangementsModule {}
