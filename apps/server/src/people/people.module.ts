import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ChangesModule } from '../changes/changes.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { RoleGuard } from './guard.js';
import { KnownBrowsersService } from './knownBrowsers.service.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PeopleStore } from './people.store.js';
import { SessionsService } from './sessions.service.js';
import { TriesStore } from './tries.store.js';

@Module({
  imports: [ChangesModule, LedgerModule],
  controllers: [PeopleController],
  providers: [KnownBrowsersService, PeopleService, PeopleStore, SessionsService, TriesStore, { provide: APP_GUARD, useClass: RoleGuard }],
  exports: [PeopleService, SessionsService, TriesStore],
})
export class PeopleModule {}
