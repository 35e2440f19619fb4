// Composed and compiled catalogs, kept in memory by version: what the judge looks things up in.
import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import {
  compileCatalog,
  itemChanges,
  packItems,
  readSourceState,
  recompileCatalog,
  type Catalog,
  type CompanionField,
  type Item,
  type ItemChanges,
  type PackedItems,
} from '@dellum/core';
import type { HouseBuild } from '../structure/structure.store.js';
import { afterCommit, type Reader, type Trx } from '../database/database.js';
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

/** What one version of a catalog has changed of the one that was compiled here before it. */
interface Step {
  readonly from: number;
  readonly changes: ItemChanges;
}
/** So many steps are kept, each with so many changes: whoever holds an older version fetches the whole. */
const mostSteps = 50;
const mostChanges = 200;

interface Known {
  readonly version: number;
  readonly composed: Composed;
  /** The steps that led here, the last one last. */
  readonly steps: readonly Step[];
}

/** What a catalog is composed of in one of its versions. */
interface Composition {
  readonly items: readonly Item[];
  readonly companions: readonly CompanionField[];
}

/** What has changed from a version that is known; undefined where it is too much, or of another kind. */
function changesFrom(
  before: Known,
  version: number,
  items: readonly Item[],
  companions: readonly CompanionField[],
): ItemChanges | undefined {
  if (before.version >= version || !isDeepStrictEqual(before.composed.companions, companions)) return undefined;
  return itemChanges(before.composed.items, items, mostChanges);
}

@Injectable()
export class CompiledCatalogsService {
  private readonly known = new Map<string, Known>();
  /** What was composed by the act that made a version; nobody has asked for it yet. */
  private readonly coming = new Map<string, Composition & { readonly version: number }>();

  constructor(private readonly sourceStates: SourceStatesService) {}

  /** The catalog of this build; read from the database only when its version is new here. */
  async get(db: Reader, build: HouseBuild, catalogId: string): Promise<Composed> {
    const view = build.catalogs.get(catalogId)!;
    const key = `${build.houseId}/${catalogId}`;
    const known = this.known.get(key);
    if (known?.version === view.version && known.composed.catalog.title === view.title) return known.composed;
    const { items, companions } = await this.composition(db, build, catalogId);
    const changes = known && changesFrom(known, view.version, items, companions);
    const catalog = changes
      ? recompileCatalog(known.composed.catalog, view.title, items, companions, changes)
      : compileCatalog(catalogId, view.title, items, companions);
    const composed = { items, companions, catalog };
    const steps = changes ? [...known.steps, { from: known.version, changes }].slice(-mostSteps) : [];
    this.known.set(key, { version: view.version, composed, steps });
    return composed;
  }

  /** Takes what an act has composed of a catalog, once it is committed: whoever asks for that version need not read and compose it again. */
  takeOver(trx: Trx, houseId: string, catalogId: string, version: number, composition: Composition): void {
    afterCommit(trx, () => this.coming.set(`${houseId}/${catalogId}`, { ...composition, version }));
  }

  private async composition(db: Reader, build: HouseBuild, catalogId: string): Promise<Composition> {
    const key = `${build.houseId}/${catalogId}`;
    const coming = this.coming.get(key);
    // What is older than this version is of no use any more.
    if (coming && coming.version <= build.catalogs.get(catalogId)!.version) this.coming.delete(key);
    if (coming?.version === build.catalogs.get(catalogId)!.version) return coming;
    const reader = readSourceState(await this.sourceStates.read(db, build, { catalogs: [catalogId] }));
    return { items: reader.items(catalogId), companions: reader.companions(catalogId) };
  }

  /** What has changed of a compiled catalog since a version; undefined where that is not known here. */
  stepsSince({ houseId, catalogs }: HouseBuild, catalogId: string, version: number): readonly ItemChanges[] | undefined {
    const known = this.known.get(`${houseId}/${catalogId}`);
    if (known?.version !== catalogs.get(catalogId)?.version) return undefined;
    if (known?.version === version) return [];
    const at = known?.steps.findIndex(({ from }) => from === version) ?? -1;
    return at < 0 ? undefined : known!.steps.slice(at).map(({ changes }) => changes);
  }

  /** The catalogs of some ids, by id, as the judge wants them. */
  async some(db: Reader, build: HouseBuild, catalogIds: Iterable<string>): Promise<Map<string, Catalog>> {
    const catalogs = new Map<string, Catalog>();
    for (const id of new Set(catalogIds)) catalogs.set(id, (await this.get(db, build, id)).catalog);
    return catalogs;
  }
}
