// What is wrong with the sources of a house: for the Ranges page and for Upkeep, examined once a version.
import { Injectable } from '@nestjs/common';
import { hasParents, type Examined } from '@dellum/core';
import { OncePerVersion } from '../compiled/oncePerVersion.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { Database } from '../database/database.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { ThreadsService } from '../threads/threads.service.js';

@Injectable()
export class FindingsService {
  private readonly examined = new OncePerVersion<Examined>();

  constructor(
    private readonly database: Database,
    private readonly sourceStates: SourceStatesService,
    private readonly threads: ThreadsService,
  ) {}

  of(build: HouseBuild): Promise<Examined> {
    return this.examined.of(build, async () => {
      const sourceState = await this.sourceStates.read(this.database.kysely, build, {
        ranges: build.ranges.map(({ id }) => id),
        catalogs: [...build.catalogs.values()].filter(({ definition }) => hasParents(definition)).map(({ id }) => id),
      });
      return this.threads.examine({ sourceState, apart: build.toldApart.map(({ values }) => values) });
    });
  }
}
