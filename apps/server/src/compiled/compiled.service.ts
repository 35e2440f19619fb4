// Composed and compiled catalogs, kept in memory by version: what the judge looks things up in.
import { Injectable } from '@nestjs/common';
import { compileCatalog, packItems, readSourceState, type Catalog, type CompanionField, type Item, type PackedItems } from '@dellum/core';
import type { HouseBuild } from '../structure/structure.store.js';
import type { Reader } from '../database/database.js';
import { SourceStatesService } from './sourceStates.service.js';

/** A catalog with all its levels, and compiled at its deepest one. */
export interface Composed {
  readonly items: readonly Item[];
  readonly companions: readonly CompanionField[];
  readonly catalog: Catalog;
}

const packed = new WeakMap<Composed, PackedItems>();

/** The items in columns, with where they come from or, for others than administrators, without. Packed once a version. */
export function packedOf(composed: Composed, origins: boolean): PackedItems {
  const known = packed.get(composed) ?? packItems(composed.items, composed.companions);
  packed.set(composed, known);
  if (origins) return known;
  const others = Object.fromEntries(Object.entries(known.others).map(([place, { from: _from, ...members }]) => [place, members]));
  return { ...known, homes: [], home: known.home.map(() => -1), ordinal: known.ordinal.map(() => -1), others };
}

@Injectable()
export class CompiledCatalogsService {
  private readonly known = new Map<string, { version: number; composed: Composed }>();

  constructor(private readonly sourceStates: SourceStatesService) {}

  /** The catalog of this build; read from the database only when its version is new here. */
  async get(db: Reader, build: HouseBuild, catalogId: string): Promise<Composed> {
    const view = build.catalogs.get(catalogId)!;
    const key = `${build.houseId}/${catalogId}`;
    const known = this.known.get(key);
    if (known?.version === view.version && known.composed.catalog.title === view.title) return known.composed;
    const reader = readSourceState(await this.sourceStates.read(db, build, { catalogs: [catalogId] }));
    const items = reader.items(catalogId);
    const companions = reader.companions(catalogId);
    const composed = { items, companions, catalog: compileCatalog(catalogId, view.title, items, companions) };
    this.known.set(key, { version: view.version, composed });
    return composed;
  }

  /** The catalogs of some ids, by id, as the judge wants them. */
  async some(db: Reader, build: HouseBuild, catalogIds: Iterable<string>): Promise<Map<string, Catalog>> {
    const catalogs = new Map<string, Catalog>();
    for (const id of new Set(catalogIds)) catalogs.set(id, (await this.get(db, build, id)).catalog);
    return catalogs;
  }
}
