// Upkeep: everything in the house that wants mending, found by the core.
import { Injectable } from '@nestjs/common';
import {
  canBeOutside,
  grouped,
  itemsAtLevel,
  readSourceState,
  wantsToBeList,
  withoutApart,
  type Spelling,
  type TellsApart,
} from '@dellum/core';
import type { AlikeBetween, CatalogAlikes, Unused, Upkeep } from '@dellum/contract';
import { FindingsService } from '../ranges/findings.service.js';
import { ThreadsService } from '../threads/threads.service.js';
import { StructureService, apartIn, boundFields } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { KeptFindingsService } from '../compiled/keptFindings.service.js';
import { CountsStore } from '../counts/counts.store.js';
import { entriesIn, OutsideService } from '../outside/outside.service.js';
import { Database } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { IntakesStore } from '../intakes/intakes.store.js';
import { LinkedStore } from '../linked/linked.store.js';
import { WebhooksStore } from '../programs/webhooks.store.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';

const mostUnused = 200;
const mostGroups = 200;
const mostOrphans = 200;

/** What each catalog offers, with the number of entries that hold each value. */
interface OfferedValue extends Spelling {
  readonly label: string;
}
type Offered = ReadonlyMap<string, readonly OfferedValue[]>;

/** As it is kept; the number is raised when it looks otherwise. */
const alikesKept = 'look-alikes 1';
type Alikes = Pick<Upkeep, 'alikes' | 'between'>;

@Injectable()
export class UpkeepService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly sourceStates: SourceStatesService,
    private readonly compiled: CompiledCatalogsService,
    private readonly counts: CountsStore,
    private readonly found: OutsideService,
    private readonly linked: LinkedStore,
    private readonly webhooks: WebhooksStore,
    private readonly intakes: IntakesStore,
    private readonly findings: FindingsService,
    private readonly threads: ThreadsService,
    private readonly kept: KeptFindingsService,
  ) {}

  async all(caller: Caller): Promise<Upkeep> {
    const build = await this.builds.now(caller.houseId);
    const offered = await this.offered(build);
    const [examined, looked] = await Promise.all([
      this.findings.soon(build),
      this.kept.soon(build, alikesKept, () => this.findAlikes(build, offered)),
    ]);
    const { ranges, parents, orphans } = examined.found;
    const { alikes, between } = looked.found;
    return {
      lookingAgain: !examined.isCurrent || !looked.isCurrent,
      // Look-alikes are told catalog by catalog, where entries hold them.
      findings: ranges.flatMap(({ findings }) => findings.filter(({ kind }) => kind !== 'look-alike')),
      parents,
      orphans: orphans.slice(0, mostOrphans),
      failing: await this.failing(build.houseId),
      untold: await this.untold(build.houseId),
      intakes: await this.waiting(build.houseId),
      faulty: [...build.catalogs.values()].filter(({ faulty }) => faulty).map(({ id, title }) => ({ catalogId: id, title })),
      alikes,
      between,
      unused: unusedOf(build, offered),
      empty: await this.empty(build, offered),
      outside: await this.outside(build),
      columns: await this.columns(build),
    };
  }

  private async findAlikes(build: HouseBuild, offered: Offered): Promise<Alikes> {
    const apart = apartIn(build);
    const alikes: CatalogAlikes[] = [];
    for (const [catalogId, values] of offered) {
      const alike = await this.threads.lookAlikes(values.map(({ value, entries }) => ({ value, entries })));
      const groups = withoutApart(alike, apart).slice(0, mostGroups);
      if (groups.length > 0) alikes.push({ catalogId, groups });
    }
    return { alikes, between: await this.alikesBetween(offered, apart) };
  }

  private async offered(build: HouseBuild): Promise<Offered> {
    const db = this.database.kysely;
    const fields = new Map([...build.catalogs.keys()].map((id) => [id, boundFields(build, id).map((field) => field.id)]));
    const counts = await this.counts.ofFields(db, build.houseId, [...fields.values()].flat());
    const offered = new Map<string, OfferedValue[]>();
    for (const [id, own] of fields) {
      const { items } = await this.compiled.get(db, build, id);
      const held = (value: string) => own.reduce((sum, field) => sum + (counts.get(field)?.get(value) ?? 0), 0);
      offered.set(
        id,
        itemsAtLevel(items)
          .filter(({ state }) => state === 'offered')
          .map(({ value, label }) => ({ value, label, entries: held(value) })),
      );
    }
    return offered;
  }

  /** Values that are spelled otherwise in another catalog; one that stands equally in both is no finding. */
  private async alikesBetween(offered: Offered, apart: TellsApart): Promise<AlikeBetween[]> {
    // What is offered by one catalog alone is not looked for in another.
    if ([...offered.values()].filter((values) => values.length > 0).length < 2) return [];
    const standing = [...offered].flatMap(([catalogId, values]) => values.map(({ value }) => ({ catalogId, value })));
    const homes = grouped(standing, ({ value }) => value);
    const groups = await this.threads.lookAlikes([...homes].map(([value, own]) => ({ value, entries: own.length })));
    return withoutApart(groups, apart)
      .map((group) => ({ values: group.flatMap(({ value }) => homes.get(value)!) }))
      .filter(({ values }) => new Set(values.map(({ catalogId }) => catalogId)).size > 1)
      .slice(0, mostGroups);
  }

  /** Linked sources whose last reading failed: the last good values stand in for it. */
  private async failing(houseId: string): Promise<Upkeep['failing']> {
    const all = await this.linked.all(this.database.kysely, houseId);
    return all.flatMap(({ id, name, failure }) => (failure === null ? [] : [{ sourceId: id, name, failure }]));
  }

  /** Webhooks of which no message is taken. */
  private async untold(houseId: string): Promise<Upkeep['untold']> {
    const all = await this.webhooks.all(this.database.kysely, houseId);
    return all.flatMap(({ id, name, failing, off }) => (failing ? [{ webhookId: id, name, said: failing.said, off: off !== null }] : []));
  }

  /** Intakes of which files wait to be looked at, or that take none. */
  private async waiting(houseId: string): Promise<Upkeep['intakes']> {
    const all = await this.intakes.all(this.database.kysely, houseId);
    return all
      .filter(({ waits, failure }) => waits > 0 || failure !== null)
      .map(({ id, name, waits, failure }) => ({ intakeId: id, name, waits, failure }));
  }

  /** Catalogs that offer nothing, with what empties them. */
  private async empty(build: HouseBuild, offered: Offered): Promise<Upkeep['empty']> {
    const emptied = [...build.catalogs.values()].filter(({ id }) => offered.get(id)?.length === 0);
    if (emptied.length === 0) return [];
    const sourceState = await this.sourceStates.read(this.database.kysely, build, { catalogs: emptied.map(({ id }) => id) });
    return emptied.map(({ id, title, definition }) => {
      if (definition.parts.length === 0) return { catalogId: id, words: `${title} has no parts yet.` };
      const unfiltered = readSourceState({
        ...sourceState,
        definitions: new Map([...sourceState.definitions, [id, { ...definition, filter: null }]]),
      }).items(id);
      return {
        catalogId: id,
        words:
          unfiltered.length > 0
            ? `The filter of ${title} leaves nothing: none of ${unfiltered.length} values passes it.`
            : `${title} offers nothing: its sources are empty.`,
      };
    });
  }

  /** Columns of free text in which few values stand for many entries. */
  private async columns(build: HouseBuild): Promise<Upkeep['columns']> {
    const fields = [...build.fields.values()].filter(
      ({ rule, kind, registerId }) => rule === null && kind === 'text' && !build.registers.get(registerId)!.source,
    );
    const spread = await this.counts.spread(
      this.database.kysely,
      build.houseId,
      fields.map(({ id }) => id),
    );
    return spread.filter(({ distinct, entries }) => wantsToBeList(distinct, entries));
  }

  /** Entries outside, by field, where there are any. */
  private async outside(build: HouseBuild): Promise<Upkeep['outside']> {
    const db = this.database.kysely;
    const fields = [...build.fields.values()].filter((field) => canBeOutside(field) && !build.registers.get(field.registerId)!.source);
    const found = await this.found.of(db, build, fields);
    return fields.map(({ id }) => ({ fieldId: id, entries: entriesIn(found.get(id)!) })).filter(({ entries }) => entries > 0);
  }
}

/** Values of bound catalogs that no entry holds, as they are shown. */
function unusedOf(build: HouseBuild, offered: Offered): Unused[] {
  return [...offered].flatMap(([catalogId, values]) => {
    if (boundFields(build, catalogId).length === 0) return [];
    const unused = values.filter(({ entries }) => entries === 0).map(({ label }) => label);
    return unused.length === 0 ? [] : [{ catalogId, values: unused.slice(0, mostUnused) }];
  });
}
