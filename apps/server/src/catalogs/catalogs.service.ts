// Catalogs: made, composed, retitled and deleted; shown with the use of their values.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { clean, levelsOf, matchKey, proposalOf, readWorld, readsDirectly } from '@dellum/core';
import { mayDesign, type CatalogItems, type CatalogUse, type ChangeCatalogDto, type DefinitionDto, type DefinitionTrial, type MakeCatalogDto, type Outcome, type PackedCatalog } from '@dellum/contract';
import { BuildService, boundFields } from '../build/build.service.js';
import type { HouseBuild } from '../build/build.store.js';
import { Counts } from '../counts/counts.js';
import { Database } from '../database/database.js';
import { houseKey } from '../houses/houses.service.js';
import { Ledger } from '../ledger/ledger.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { Worlds } from '../sources/worlds.js';
import { CatalogsStore } from './catalogs.store.js';
import { CompiledCatalogs, packedOf } from './compiled.service.js';
import { mustNotCycle, readDefinition } from './readDefinition.js';

const firstShown = 12;

@Injectable()
export class CatalogsService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly compiled: CompiledCatalogs,
    private readonly worlds: Worlds,
    private readonly store: CatalogsStore,
    private readonly sources: SourcesService,
    private readonly counts: Counts,
    private readonly ledger: Ledger,
  ) {}

  /** All items, for the judge and the picker; where they come from is the administrator's to see. */
  async items(caller: Caller, id: string): Promise<CatalogItems> {
    const build = await this.builds.now(caller.houseId);
    const view = catalogOf(build, id);
    const { items, companions } = await this.compiled.get(this.database.kysely, build, id);
    const shown = mayDesign(caller.role) ? items : items.map((item) => ({ ...item, from: [] }));
    return { id, title: view.title, version: view.version, items: shown, companions };
  }

  /** The same in columns. */
  async packed(caller: Caller, id: string): Promise<PackedCatalog> {
    const build = await this.builds.now(caller.houseId);
    const view = catalogOf(build, id);
    const composed = await this.compiled.get(this.database.kysely, build, id);
    return { id, title: view.title, version: view.version, packed: packedOf(composed, mayDesign(caller.role)), companions: composed.companions };
  }

  async use(caller: Caller, id: string): Promise<CatalogUse> {
    const build = await this.builds.now(caller.houseId);
    catalogOf(build, id);
    const counts = await this.counts.ofFields(this.database.kysely, caller.houseId, boundFields(build, id).map((field) => field.id));
    const entries: Record<string, number> = {};
    for (const values of counts.values()) for (const [value, count] of values) entries[value] = (entries[value] ?? 0) + count;
    return { entries };
  }

  make(caller: Caller, dto: MakeCatalogDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const title = freeTitle(build, dto.title, undefined);
      const definition = readDefinition(dto.definition, build);
      const keys = new Set([...build.catalogs.values()].map(({ key }) => key));
      const id = randomUUID();
      await this.store.add(trx, caller.houseId, { id, key: freeKey(houseKey(title), keys), title, note: dto.note, definition });
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.made', detail: { id, title, definition } }]);
      return { id };
    });
  }

  /** Composes the catalog otherwise; values that would go and that entries hold are asked about. */
  define(caller: Caller, id: string, dto: DefinitionDto): Promise<Outcome> {
    return this.sources.propose(caller, (_trx, build) => {
      catalogOf(build, id);
      const definition = readDefinition(dto, build);
      mustNotCycle(build, id, definition);
      return proposalOf({ what: 'catalog changed', catalogId: id, definition });
    });
  }

  /** What a definition would offer; nothing is stored. */
  async trial(caller: Caller, dto: DefinitionDto, id?: string): Promise<DefinitionTrial> {
    const build = await this.builds.now(caller.houseId);
    const definition = readDefinition(dto, build);
    const catalogId = id ?? randomUUID();
    if (id) mustNotCycle(build, id, definition);
    const standing = build.catalogs.get(catalogId) ?? { id: catalogId, key: '', title: '', note: '', version: 0 };
    const proposed: HouseBuild = { ...build, catalogs: new Map([...build.catalogs, [catalogId, { ...standing, definition }]]) };
    const reader = readWorld(await this.worlds.read(this.database.kysely, proposed, { catalogs: [catalogId] }));
    const offered = reader.items(catalogId).filter(({ state }) => state === 'offered');
    return { offered: offered.length, levels: levelsOf(offered), first: offered.slice(0, firstShown).map(({ label }) => label), companions: reader.companions(catalogId) };
  }

  async alter(caller: Caller, id: string, dto: ChangeCatalogDto): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      catalogOf(build, id);
      const title = dto.title === undefined ? undefined : freeTitle(build, dto.title, id);
      await this.store.change(trx, caller.houseId, id, { ...(title && { title }), ...(dto.note !== undefined && { note: dto.note }) });
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.changed', detail: { id, ...dto } }]);
    });
  }

  async remove(caller: Caller, id: string): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const { title } = catalogOf(build, id);
      const fields = boundFields(build, id).map((field) => `field ${field.heading} of ${build.registers.get(field.registerId)!.title}`);
      const catalogs = [...build.catalogs.values()].filter(({ definition }) => definition.parts.some((part) => part.kind === 'catalog' && part.catalogId === id)).map((catalog) => `catalog ${catalog.title}`);
      const users = [...fields, ...catalogs];
      if (users.length > 0) throw new ProblemError('in-use', `“${title}” is used by ${users.join(', ')}. Clear the rule or take the part out there first.`, { users });
      await this.store.remove(trx, caller.houseId, id);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.deleted', detail: { id, title } }]);
    });
  }
}

export function catalogOf(build: HouseBuild, id: string) {
  const catalog = build.catalogs.get(id);
  if (!catalog) throw notFound('This catalog');
  return catalog;
}

/** Who reads a register by a query, in words; such a register or field cannot be deleted. */
export function queriesOver(build: HouseBuild, registerId: string, key?: string): string[] {
  return [...build.catalogs.values()].flatMap(({ title, definition }) => {
    if (!readsDirectly(definition, 'registers', registerId)) return [];
    const uses = definition.parts.some((part) => part.kind === 'query' && part.registerId === registerId && (key === undefined || part.value === key || part.label === key || part.companions.includes(key) || part.filter?.conditions.some(({ field }) => field === key)));
    return uses ? [`catalog ${title}`] : [];
  });
}

function freeTitle(build: HouseBuild, title: string, except: string | undefined): string {
  const key = matchKey(title);
  if (key === '') throw new ProblemError('name-unfit', 'Give the catalog a title.', { faults: { title: 'Give the catalog a title.' } });
  const other = [...build.catalogs.values()].find((catalog) => catalog.id !== except && matchKey(catalog.title) === key);
  if (!other) return clean(title);
  const words = `There is a catalog “${other.title}” already. Choose another title.`;
  throw new ProblemError('name-taken', words, { faults: { title: words } });
}

function freeKey(wanted: string, taken: ReadonlySet<string>): string {
  for (let number = 1; ; number++) {
    const key = number === 1 ? wanted : `${wanted}-${number}`;
    if (!taken.has(key)) return key;
  }
}
