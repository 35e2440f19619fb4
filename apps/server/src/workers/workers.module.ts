import { Module } from '@nestjs/common';
import { AdoptingModule } from '../adopting/adopting.module.js';
import { CarriesModule } from '../carries/carries.module.js';
import { CatalogsModule } from '../catalogs/catalogs.module.js';
import { ChangesModule } from '../changes/changes.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { ExchangeModule } from '../exchange/exchange.module.js';
import { IntakesModule } from '../intakes/intakes.module.js';
import { JobsModule } from '../jobs/jobs.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { LinkedModule } from '../linked/linked.module.js';
import { PeopleModule } from '../people/people.module.js';
import { ProgramsModule } from '../programs/programs.module.js';
import { WorkersService } from './workers.service.js';

@Module({
  imports: [
    AdoptingModule,
    CarriesModule,
    CatalogsModule,
    ChangesModule,
    CompiledModule,
    CountsModule,
    EnteringModule,
    ExchangeModule,
    IntakesModule,
    JobsModule,
    LedgerModule,
    LinkedModule,
    PeopleModule,
    ProgramsModule,
  ],
  providers: [WorkersService],
})
export class WorkersModule {}
