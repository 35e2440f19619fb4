import { Module } from '@nestjs/common';
import { EnteringModule } from '../entering/entering.module.js';
import { ExchangeModule } from '../exchange/exchange.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { FoldersService } from './folders.service.js';
import { IntakesController } from './intakes.controller.js';
import { IntakesService } from './intakes.service.js';
import { IntakesStore } from './intakes.store.js';

@Module({
  imports: [EnteringModule, ExchangeModule, JobsModule, LedgerModule, StructureModule],
  controllers: [IntakesController],
  providers: [FoldersService, IntakesService, IntakesStore],
  exports: [FoldersService, IntakesService, IntakesStore],
})
export class IntakesModule {}
