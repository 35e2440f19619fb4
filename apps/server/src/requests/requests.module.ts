import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { RequestsController } from './requests.controller.js';
import { RequestsService } from './requests.service.js';

@Module({
  imports: [ChangesModule, CompiledModule, EnteringModule, EntriesModule, LedgerModule, SourcesModule, StructureModule],
  controllers: [RequestsController],
  providers: [RequestsService],
})
export class RequestsModule {}
