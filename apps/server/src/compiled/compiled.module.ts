import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.js';
import { CatalogsStore } from './catalogs.store.js';
import { CompiledCatalogsService } from './compiled.service.js';
import { HistoryStore } from './history.store.js';
import { SourceStatesService } from './sourceStates.service.js';

@Module({
  imports: [EntriesModule],
  providers: [CatalogsStore, CompiledCatalogsService, HistoryStore, SourceStatesService],
  exports: [CatalogsStore, CompiledCatalogsService, HistoryStore, SourceStatesService],
})
export class CompiledModule {}
