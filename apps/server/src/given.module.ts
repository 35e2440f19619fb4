// What a server is given from outside: its database, what linked sources may reach, and templates. Every module may ask for them.
import { Module, type DynamicModule } from '@nestjs/common';
import { Database } from './database/database.js';
import { Questions } from './database/questions.js';
import { Standby } from './database/standby.js';
import { Templates } from './exchange/templates.js';
import { Reachable, type ReachableConfig } from './linked/reachable.js';

@Module({})
export class GivenModule {
  static of(database: Database, standby: Standby, reachable: ReachableConfig, templates: string | undefined): DynamicModule {
    return {
      module: GivenModule,
      global: true,
      providers: [
        { provide: Database, useValue: database },
        { provide: Standby, useValue: standby },
        Questions,
        { provide: Reachable, useValue: new Reachable(reachable) },
        { provide: Templates, useValue: new Templates(templates) },
      ],
      exports: [Database, Standby, Questions, Reachable, Templates],
    };
  }
}
