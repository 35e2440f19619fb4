// Compiled catalogs, kept in memory by version: what the judge looks things up in.
import { Injectable } from '@nestjs/common';
import { compileCatalog, itemsOf, takeRange, type Catalog, type Entry, type Item, type SourceRange } from '@dellum/core';
import type { HouseBuild } from '../build/build.store.js';
import type { Reader } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { CatalogsStore } from './catalogs.store.js';

/** A register as a proposal would leave it. */
export interface SupposedRegister {
  readonly registerId: string;
  readonly entries: readonly Entry[];
  readonly ranges: readonly SourceRange[];
}

@Injectable()
export class CompiledCatalogs {
  private readonly known = new Map<string, { version: number; catalog: Catalog }>();

  constructor(
    private readonly entries: EntriesStore,
    private readonly store: CatalogsStore,
  ) {}

  /** The catalog of this build, compiled; read from the database only when its version is new here. */
  async get(db: Reader, build: HouseBuild, catalogId: string): Promise<Catalog> {
    const view = build.catalogs.get(catalogId)!;
    const key = `${build.houseId}/${catalogId}`;
    const known = this.known.get(key);
    if (known?.version === view.version && known.catalog.title === view.title) return known.catalog;
    const catalog = compileCatalog(catalogId, view.title, await this.items(db, build, catalogId));
    this.known.set(key, { version: view.version, catalog });
    return catalog;
  }

  /** The catalogs of some ids, by id, as the judge wants them. */
  async some(db: Reader, build: HouseBuild, catalogIds: Iterable<string>): Promise<Map<string, Catalog>> {
    const catalogs = new Map<string, Catalog>();
    for (const id of new Set(catalogIds)) catalogs.set(id, await this.get(db, build, id));
    return catalogs;
  }

  /** The items as they would be if a register held other entries or other ranges lay over it. */
  async itemsIf(db: Reader, build: HouseBuild, catalogId: string, supposed: SupposedRegister): Promise<Item[]> {
    return this.items(db, build, catalogId, supposed);
  }

  private async items(db: Reader, build: HouseBuild, catalogId: string, supposed?: SupposedRegister): Promise<Item[]> {
    const others = build.ranges.filter(({ registerId }) => registerId !== supposed?.registerId);
    const ranges = supposed ? [...others, ...supposed.ranges.map((range) => ({ ...range, registerId: supposed.registerId }))] : build.ranges;
    const feeding = build.catalogs.get(catalogId)!.rangeIds.map((id) => ranges.find((range) => range.id === id)!);
    const entries = new Map<string, readonly Entry[]>(supposed ? [[supposed.registerId, supposed.entries]] : []);
    for (const registerId of new Set(feeding.map((range) => range.registerId))) {
      if (!entries.has(registerId)) entries.set(registerId, await this.entries.all(db, { houseId: build.houseId, registerId }));
    }
    const parts = feeding.map((range) => {
      const neighbours = ranges.filter(({ registerId }) => registerId === range.registerId);
      return { rangeId: range.id, taking: takeRange(range, entries.get(range.registerId)!, neighbours) };
    });
    return itemsOf(parts, await this.store.kept(db, build.houseId, catalogId));
  }
}
