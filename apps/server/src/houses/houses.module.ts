import { Module } from '@nestjs/common';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PeopleModule } from '../people/people.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { HouseController } from './house.controller.js';
import { HousesController } from './houses.controller.js';
import { HousesService } from './houses.service.js';
import { SessionController } from './session.controller.js';

@Module({
  imports: [LedgerModule, PeopleModule, StructureModule],
  controllers: [HouseController, HousesController, SessionController],
  providers: [HousesService],
})
export class HousesModule {}
