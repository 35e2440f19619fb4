import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { IntakesModule } from '../intakes/intakes.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { AccessTokensController } from './accessTokens.controller.js';
import { AccessTokensService } from './accessTokens.service.js';
import { AccessTokensStore } from './accessTokens.store.js';
import { ProgramFilesService } from './files.service.js';
import { ProgramsController } from './programs.controller.js';
import { RowsService } from './rows.service.js';
import { ValuesService } from './values.service.js';
import { WebhooksController } from './webhooks.controller.js';
import { WebhooksService } from './webhooks.service.js';
import { WebhooksStore } from './webhooks.store.js';

@Module({
  imports: [ChangesModule, CompiledModule, EnteringModule, EntriesModule, IntakesModule, JobsModule, LedgerModule, StructureModule],
  controllers: [AccessTokensController, ProgramsController, WebhooksController],
  providers: [AccessTokensService, AccessTokensStore, ProgramFilesService, RowsService, ValuesService, WebhooksService, WebhooksStore],
  exports: [AccessTokensStore, WebhooksService, WebhooksStore],
})
export class ProgramsModule {}
