import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { ExchangeModule } from '../exchange/exchange.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { AdoptingService } from './adopting.service.js';
import { AdoptionsController } from './adoptions.controller.js';
import { AdoptionsService } from './adoptions.service.js';
import { AdoptionsStore } from './adoptions.store.js';
import { AdoptionThreadsService } from './adoptionThreads.service.js';
import { HouseListsService } from './houseLists.service.js';

@Module({
  imports: [ChangesModule, CompiledModule, ExchangeModule, JobsModule, LedgerModule, StructureModule],
  controllers: [AdoptionsController],
  providers: [AdoptingService, AdoptionsService, AdoptionsStore, AdoptionThreadsService, HouseListsService],
  exports: [AdoptingService, AdoptionsStore],
})
export class AdoptingModule {}
