// The server is its modules, one a concept. Their imports run one way; the linter holds the order.
import { Module, type DynamicModule } from '@nestjs/common';
import { ApiModule } from './api/api.module.js';
import { BindingsModule } from './bindings/bindings.module.js';
import type { Database } from './database/database.js';
import type { Standby } from './database/standby.js';
import { FiguresModule } from './figures/figures.module.js';
import { FormsModule } from './forms/forms.module.js';
import { GivenModule } from './given.module.js';
import { HousesModule } from './houses/houses.module.js';
import type { ReachableConfig } from './linked/reachable.js';
import { LedgerReadModule } from './ledgerRead/ledgerRead.module.js';
import { LiveModule } from './live/live.module.js';
import { MetricsModule } from './metrics/metrics.module.js';
import { ProgramsModule } from './programs/programs.module.js';
import { RecordsModule } from './records/records.module.js';
import { RequestsModule } from './requests/requests.module.js';
import { UpkeepModule } from './upkeep/upkeep.module.js';
import { WorkersModule } from './workers/workers.module.js';

/** Those that no other needs; they bring the rest. */
const outermost = [
  ApiModule,
  BindingsModule,
  FiguresModule,
  FormsModule,
  HousesModule,
  LedgerReadModule,
  LiveModule,
  MetricsModule,
  ProgramsModule,
  RecordsModule,
  RequestsModule,
  UpkeepModule,
  WorkersModule,
];

@Module({})
export class AppModule {
  /** `reachable`: what linked sources may reach. `templates`: a folder of house archives without entries. */
  static with(database: Database, standby: Standby, reachable: ReachableConfig, templates: string | undefined): DynamicModule {
    return { module: AppModule, imports: [GivenModule.of(database, standby, reachable, templates), ...outermost] };
  }
}
