import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ChangesModule } from '../changes/changes.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { RoleGuard } from './guard.js';
import { KnownBrowsersService } from './knownBrowsers.service.js';
import { OwnPasswordService } from './ownPassword.service.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PeopleStore } from './people.store.js';
import { SecondFactorController } from './secondFactor.controller.js';
import { SecondFactorService } from './secondFactor.service.js';
import { SecondFactorStore } from './secondFactor.store.js';
import { SessionsService } from './sessions.service.js';
import { TriesStore } from './tries.store.js';

@Module({
  imports: [ChangesModule, LedgerModule],
  controllers: [PeopleController, SecondFactorController],
  providers: [
    KnownBrowsersService,
    OwnPasswordService,
    PeopleService,
    PeopleStore,
    SecondFactorService,
    SecondFactorStore,
    SessionsService,
    TriesStore,
    { provide: APP_GUARD, useClass: RoleGuard },
  ],
  exports: [PeopleService, SessionsService, TriesStore],
})
export class PeopleModule {}
