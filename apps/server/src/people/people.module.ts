import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ChangesModule } from '../changes/changes.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { GroupsController } from './groups.controller.js';
import { GroupsService } from './groups.service.js';
import { GroupsStore } from './groups.store.js';
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
  imports: [ChangesModule, LedgerModule, StructureModule],
  controllers: [GroupsController, PeopleController, SecondFactorController],
  providers: [
    GroupsService,
    GroupsStore,
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
