// What is wrong with the sources of a house: for the Ranges page and for Upkeep, examined once a version.
import { Injectable } from '@nestjs/common';
import { hasParents, type Examined } from '@dellum/core';
import { KeptFindingsService, type Found } from '../compiled/keptFindings.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { Database } from '../database/database.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { ThreadsService } from '../threads/threads.service.js';

/** The number is raised when what is kept looks otherwise: what an older program kept is then found anew. */
const what = 'sources 1';

@Injectable()
export class FindingsService {
  constructor(
    private readonly database: Database,
    private readonly sourceStates: SourceStatesService,
    private readonly threads: ThreadsService,
    private readonly kept: KeptFindingsService,
  ) {}

  of(build: HouseBuild): Promise<Examined> {
    return this.kept.current(build, what, () => this.examine(build));
  }

  /** What was found last, where it takes long to find it anew. */
  soon(build: HouseBuild): Promise<Found<Examined>> {
    return this.kept.soon(build, what, () => this.examine(build));
  }

  private async examine(build: HouseBuild): Promise<Examined> {
    const sourceState = await this.sourceStates.read(this.database.kysely, build, {
      ranges: build.ranges.map(({ id }) => id),
      catalogs: [...build.catalogs.values()].filter(({ definition }) => hasParents(definition)).map(({ id }) => id),
    });
    return this.threads.examine({ sourceState, apart: build.toldApart.map(({ values }) => values) });
  }
}
