import { Module } from '@nestjs/common';
import { CarriesModule } from '../carries/carries.module.js';
import { CatalogsModule } from '../catalogs/catalogs.module.js';
import { CompiledModule } from '../compiled/compiled.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { IntakesModule } from '../intakes/intakes.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { LinkedModule } from '../linked/linked.module.js';
import { OutsideModule } from '../outside/outside.module.js';
import { ProgramsModule } from '../programs/programs.module.js';
import { RangesModule } from '../ranges/ranges.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ThreadsModule } from '../threads/threads.module.js';
import { ColumnsController } from './columns.controller.js';
import { FromRowsController } from './fromRows.controller.js';
import { FromRowsService } from './fromRows.service.js';
import { GatherService } from './gather.service.js';
import { GatherStore } from './gather.store.js';
import { ToldApartService } from './toldApart.service.js';
import { UpkeepController } from './upkeep.controller.js';
import { UpkeepService } from './upkeep.service.js';

@Module({
  imports: [
    CarriesModule,
    CatalogsModule,
    CompiledModule,
    CountsModule,
    EnteringModule,
    EntriesModule,
    IntakesModule,
    LedgerModule,
    LinkedModule,
    OutsideModule,
    ProgramsModule,
    RangesModule,
    SheetsModule,
    StructureModule,
    ThreadsModule,
  ],
  controllers: [ColumnsController, FromRowsController, UpkeepController],
  providers: [FromRowsService, GatherService, GatherStore, ToldApartService, UpkeepService],
})
export class UpkeepModule {}
