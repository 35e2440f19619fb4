import { Module } from '@nestjs/common';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { RangesModule } from '../ranges/ranges.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { BindingsController } from './bindings.controller.js';
import { BindingsService } from './bindings.service.js';
import { ManyBindingsController } from './manyBindings.controller.js';
import { ManyBindingsService } from './manyBindings.service.js';
import { RuleHistoryService } from './ruleHistory.service.js';
import { RuleHistoryStore } from './ruleHistory.store.js';
import { WhyService } from './why.service.js';

@Module({
  imports: [CompiledModule, EnteringModule, EntriesModule, LedgerModule, OutsideModule, RangesModule, StructureModule],
  controllers: [BindingsController, ManyBindingsController],
  providers: [BindingsService, ManyBindingsService, RuleHistoryService, RuleHistoryStore, WhyService],
})
export class BindingsModule {}
