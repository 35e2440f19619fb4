// Upkeep: everything in the house that wants mending, found by the core.
import { Injectable } from '@nestjs/common';
import { canBeOutside, examine, itemsAtLevel, lookAlikes, readWorld, stands, type SourceWorld, type Spelling } from '@dellum/core';
import type { AlikeBetween, CatalogAlikes, Unused, Upkeep } from '@dellum/contract';
import { BuildService, boundFields } from '../build/build.service.js';
import type { HouseBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { Counts } from '../counts/counts.js';
import { Database } from '../database/database.js';
import type { Caller } from '../people/guard.js';
import { Worlds } from '../sources/worlds.js';

const mostUnused = 200;
const mostGroups = 200;

/** What each catalog offers, with the number of entries that hold each value. */
type Offered = ReadonlyMap<string, readonly Spelling[]>;

@Injectable()
export class UpkeepService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly worlds: Worlds,
    private readonly compiled: CompiledCatalogs,
    private readonly counts: Counts,
  ) {}

  async all(caller: Caller): Promise<Upkeep> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const world = await this.worlds.read(db, build, { ranges: build.ranges.map(({ id }) => id), catalogs: build.catalogs.keys() });
    const offered = await this.offered(build);
    return {
      findings: build.ranges.flatMap(({ id }) => examine(id, world, { effects: true })),
      alikes: alikesWithin(offered),
      between: alikesBetween(offered),
      unused: unusedOf(build, offered),
      empty: emptyOf(build, world),
      outside: await this.outside(build),
    };
  }

  private async offered(build: HouseBuild): Promise<Offered> {
    const db = this.database.kysely;
    const fields = new Map([...build.catalogs.keys()].map((id) => [id, boundFields(build, id).map((field) => field.id)]));
    const counts = await this.counts.ofFields(db, build.houseId, [...fields.values()].flat());
    const offered = new Map<string, Spelling[]>();
    for (const [id, own] of fields) {
      const { items } = await this.compiled.get(db, build, id);
      const held = (value: string) => own.reduce((sum, field) => sum + (counts.get(field)?.get(value) ?? 0), 0);
      offered.set(id, itemsAtLevel(items).filter(({ state }) => state === 'offered').map(({ value }) => ({ value, entries: held(value) })));
    }
    return offered;
  }

  /** Entries outside, by field, where there are any. */
  private async outside(build: HouseBuild): Promise<Upkeep['outside']> {
    const db = this.database.kysely;
    const fields = [...build.fields.values()].filter((field) => canBeOutside(field) && !build.registers.get(field.registerId)!.source);
    const counts = await this.counts.ofFields(db, build.houseId, fields.map(({ id }) => id));
    const catalogs = await this.compiled.some(db, build, fields.flatMap(({ rule }) => rule?.catalogId ?? []));
    const outsideIn = (field: (typeof fields)[number]) => [...(counts.get(field.id) ?? [])].reduce((sum, [value, entries]) => (stands(field, value, { locale: build.locale, catalogs }).right ? sum : sum + entries), 0);
    return fields.map((field) => ({ fieldId: field.id, entries: outsideIn(field) })).filter(({ entries }) => entries > 0);
  }
}

function alikesWithin(offered: Offered): CatalogAlikes[] {
  return [...offered].map(([catalogId, values]) => ({ catalogId, groups: lookAlikes(values).slice(0, mostGroups) })).filter(({ groups }) => groups.length > 0);
}

/** Values that are spelled otherwise in another catalog; one that stands equally in both is no finding. */
function alikesBetween(offered: Offered): AlikeBetween[] {
  const homes = new Map<string, string[]>();
  for (const [catalogId, values] of offered) for (const { value } of values) homes.set(value, [...(homes.get(value) ?? []), catalogId]);
  const groups = lookAlikes([...homes.keys()].map((value) => ({ value, entries: homes.get(value)!.length })));
  return groups
    .map((group) => ({ values: group.flatMap(({ value }) => homes.get(value)!.map((catalogId) => ({ catalogId, value }))) }))
    .filter(({ values }) => new Set(values.map(({ catalogId }) => catalogId)).size > 1)
    .slice(0, mostGroups);
}

/** Values of bound catalogs that no entry holds. */
function unusedOf(build: HouseBuild, offered: Offered): Unused[] {
  return [...offered].flatMap(([catalogId, values]) => {
    if (boundFields(build, catalogId).length === 0) return [];
    const unused = values.filter(({ entries }) => entries === 0).map(({ value }) => value);
    return unused.length === 0 ? [] : [{ catalogId, values: unused.slice(0, mostUnused) }];
  });
}

/** Catalogs that offer nothing, with what empties them. */
function emptyOf(build: HouseBuild, world: SourceWorld): Upkeep['empty'] {
  const reader = readWorld(world);
  return [...build.catalogs.values()].flatMap(({ id, title, definition }) => {
    if (reader.items(id).some(({ state }) => state === 'offered')) return [];
    const unfiltered = readWorld({ ...world, definitions: new Map([...world.definitions, [id, { ...definition, filter: null }]]) });
    const words = definition.parts.length === 0 ? `${title} has no parts yet.` : unfiltered.items(id).length > 0 ? `The filter of ${title} leaves nothing: none of ${unfiltered.items(id).length} values passes it.` : `${title} offers nothing: its sources are empty.`;
    return [{ catalogId: id, words }];
  });
}
