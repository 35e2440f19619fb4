import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { CatalogsStore } from './catalogs.store.js';
import { CompiledCatalogsService } from './compiled.service.js';
import { HistoryStore } from './history.store.js';
import { KeptFindingsService } from './keptFindings.service.js';
import { KeptFindingsStore } from './keptFindings.store.js';
import { SourceStatesService } from './sourceStates.service.js';

@Module({
  imports: [ChangesModule, EntriesModule],
  providers: [CatalogsStore, CompiledCatalogsService, HistoryStore, KeptFindingsService, KeptFindingsStore, SourceStatesService],
  exports: [CatalogsStore, CompiledCatalogsService, HistoryStore, KeptFindingsService, SourceStatesService],
})
export class CompiledModule {}
