// Catalogs: made, composed, retitled and deleted; shown with the use of their values.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { freeKeyAmong, levelsOf, mostUsed, partReads, proposalOf, readSourceState, type CatalogDefinition } from '@dellum/core';
import {
  definitionMark,
  keeps,
  mayDesign,
  type CatalogItems,
  type CatalogUse,
  type ChangedCatalog,
  type ChangeCatalogDto,
  type DefineCatalogDto,
  type DefinitionDto,
  type DefinitionTrial,
  type MakeCatalogDto,
  type Outcome,
  type PackedCatalog,
} from '@dellum/contract';
import { StructureService, boundFields } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database, lockBuild, type Reader, type Trx } from '../database/database.js';
import { houseKey } from '../houses/houses.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import { CompiledCatalogsService, packedOf } from '../compiled/compiled.service.js';
import { mustNotCycle, readDefinition } from '../compiled/readDefinition.js';

const firstShown = 12;

@Injectable()
export class CatalogsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly compiled: CompiledCatalogsService,
    private readonly sourceStates: SourceStatesService,
    private readonly store: CatalogsStore,
    private readonly sources: SourcesService,
    private readonly counts: CountsStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  /** All items, for the judge and the picker; where they come from is the administrator's to see. */
  async items(caller: Caller, id: string): Promise<CatalogItems> {
    const build = await this.builds.now(caller.houseId);
    const view = catalogOf(build, id);
    const { items, companions } = await this.compiled.get(this.database.kysely, build, id);
    const shown = mayDesign(caller.role) ? items : items.map((item) => ({ ...item, from: [] }));
    return { id, title: view.title, version: view.version, items: shown, companions };
  }

  /** The same in columns; of a version that one holds only what has changed, but for administrators, whose rows may have moved. */
  async packed(caller: Caller, id: string, since?: number): Promise<PackedCatalog | ChangedCatalog> {
    const build = await this.builds.now(caller.houseId);
    const view = catalogOf(build, id);
    const composed = await this.compiled.get(this.database.kysely, build, id);
    const steps = since === undefined || mayDesign(caller.role) ? undefined : this.compiled.stepsSince(build, id, since);
    if (steps) return { id, title: view.title, version: view.version, since: since!, steps };
    return {
      id,
      title: view.title,
      version: view.version,
      packed: packedOf(composed, mayDesign(caller.role)),
      companions: composed.companions,
    };
  }

  async use(caller: Caller, id: string): Promise<CatalogUse> {
    const build = await this.builds.now(caller.houseId);
    keptCatalogOf(build, id, caller);
    return { entries: Object.fromEntries(await this.usesOf(this.database.kysely, build, id)) };
  }

  /** How many entries hold each value, all bound fields together. */
  private async usesOf(db: Reader, build: HouseBuild, id: string): Promise<Map<string, number>> {
    const counts = await this.counts.ofFields(
      db,
      build.houseId,
      boundFields(build, id).map((field) => field.id),
    );
    const uses = new Map<string, number>();
    for (const values of counts.values()) for (const [value, count] of values) uses.set(value, (uses.get(value) ?? 0) + count);
    return uses;
  }

  /** The definition with what is used most as of now, where that orders it. */
  private async counted(db: Reader, build: HouseBuild, id: string, definition: CatalogDefinition): Promise<CatalogDefinition> {
    if (definition.order.by !== 'used') return definition;
    return { ...definition, order: { by: 'used', first: mostUsed(await this.usesOf(db, build, id)) } };
  }

  /** Counts anew what is used most in the catalogs of a house that are ordered by it. */
  async recountUse(houseId: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      await lockBuild(trx, houseId);
      const build = await this.builds.at(trx, houseId);
      const ordered = [...build.catalogs.values()].filter(({ definition }) => definition.order.by === 'used');
      const recounted = await Promise.all(
        ordered.map(async ({ id, definition }) => ({ id, before: definition, definition: await this.counted(trx, build, id, definition) })),
      );
      const moved = recounted.filter(({ before, definition }) => JSON.stringify(before.order) !== JSON.stringify(definition.order));
      const told = await Promise.all(
        moved.map(async ({ id, definition }) => {
          await this.store.define(trx, houseId, id, definition);
          const version = await this.store.raiseVersion(trx, houseId, id);
          return { audience: 'everyone', body: { kind: 'catalog', catalogId: id, version } } as const;
        }),
      );
      if (told.length === 0) return;
      await this.builds.raise(trx, houseId);
      await this.changes.append(trx, houseId, told);
    });
  }

  /** Says who keeps the values of a catalog, beside the administrators. */
  async entrust(caller: Caller, id: string, people: readonly string[]): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const { title } = catalogOf(build, id);
      if ((await this.store.entrust(trx, caller.houseId, id, people)) < new Set(people).size) throw notFound('One of these stewards');
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.entrusted', detail: { id, title, people } }]);
    });
  }

  make(caller: Caller, dto: MakeCatalogDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      return {
        id: await this.makeWithin(trx, caller, build, {
          title: dto.title,
          note: dto.note,
          definition: readDefinition(dto.definition, build),
        }),
      };
    });
  }

  /** The same in a transaction that holds the build lock already. */
  async makeWithin(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    wanted: { title: string; note: string; definition: CatalogDefinition },
  ): Promise<string> {
    const title = freeTitle(build, wanted.title, undefined);
    const { note, definition } = wanted;
    const keys = new Set([...build.catalogs.values()].map(({ key }) => key));
    const id = randomUUID();
    await this.store.add(trx, caller.houseId, { id, key: freeKeyAmong(houseKey(title), keys), title, note, definition });
    await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.made', detail: { id, title, definition } }]);
    return id;
  }

  /** Composes the catalog otherwise; values that would go and that entries hold are asked about. */
  define(caller: Caller, id: string, dto: DefineCatalogDto): Promise<Outcome> {
    return this.sources.propose(caller, async (trx, build) => {
      const known = catalogOf(build, id);
      if (dto.seen !== undefined && dto.seen !== definitionMark(known.definition))
        throw new ProblemError(
          'catalog-changed',
          `Somebody else has composed ${known.title} anew since you began. Look at how it is composed now, then change it.`,
        );
      const definition = await this.counted(trx, build, id, readDefinition(dto, build));
      mustNotCycle(build, id, definition);
      return proposalOf({ what: 'catalog changed', catalogId: id, definition });
    });
  }

  /** What a definition would offer; nothing is stored. */
  async trial(caller: Caller, dto: DefinitionDto, id?: string): Promise<DefinitionTrial> {
    const build = await this.builds.now(caller.houseId);
    const catalogId = id ?? randomUUID();
    const definition = await this.counted(this.database.kysely, build, catalogId, readDefinition(dto, build));
    if (id) mustNotCycle(build, id, definition);
    const standing = build.catalogs.get(catalogId) ?? { id: catalogId, key: '', title: '', note: '', version: 0, stewards: [] };
    const proposed: HouseBuild = { ...build, catalogs: new Map([...build.catalogs, [catalogId, { ...standing, definition }]]) };
    const reader = readSourceState(await this.sourceStates.read(this.database.kysely, proposed, { catalogs: [catalogId] }));
    const offered = reader.items(catalogId).filter(({ state }) => state === 'offered');
    return {
      offered: offered.length,
      levels: levelsOf(offered),
      first: offered.slice(0, firstShown).map(({ label }) => label),
      companions: reader.companions(catalogId),
    };
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
      const catalogs = [...build.catalogs.values()]
        .filter(({ definition }) => definition.parts.some((part) => partReads(part).catalogs?.includes(id)))
        .map((catalog) => `catalog ${catalog.title}`);
      const users = [...fields, ...catalogs];
      if (users.length > 0)
        throw new ProblemError('in-use', `“${title}” is used by ${users.join(', ')}. Clear the rule or take the part out there first.`, {
          users,
        });
      await this.store.remove(trx, caller.houseId, id);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'catalog.deleted', detail: { id, title } }]);
    });
  }
}

/** The same for whoever keeps its values; for others it is closed. */
export function keptCatalogOf(build: HouseBuild, id: string, caller: Caller) {
  const catalog = catalogOf(build, id);
  if (!keeps(caller, catalog))
    throw new ProblemError('not-allowed', `${catalog.title} is not in your care. Ask an administrator to entrust it to you.`);
  return catalog;
}

export function catalogOf(build: HouseBuild, id: string) {
  const catalog = build.catalogs.get(id);
  if (!catalog) throw notFound('This catalog');
  return catalog;
}

/** Who reads a register by a query, in words; such a register or field cannot be deleted. */
export function queriesOver(build: HouseBuild, registerId: string, key?: string): string[] {
  return [...build.catalogs.values()].flatMap(({ title, definition }) => {
    const read = definition.parts.flatMap((part) => partReads(part).fields ?? []).filter((fields) => fields.registerId === registerId);
    return read.some(({ value, others }) => key === undefined || value === key || others.includes(key)) ? [`catalog ${title}`] : [];
  });
}

const freeTitle = (build: HouseBuild, title: string, except: string | undefined): string =>
  freeName(
    title,
    'title',
    [...build.catalogs.values()].filter(({ id }) => id !== except).map((catalog) => catalog.title),
  );
