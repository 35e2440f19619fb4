// Linked sources: set up, tried, refreshed on demand and on a schedule. What a refresh changes is a change like any other.
import { randomUUID } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { relative } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import { proposalOf, readsDirectly } from '@dellum/core';
import type {
  DatabaseTables,
  LinkedSettings,
  LinkedTrial,
  LinkedView,
  MakeLinkedDto,
  Outcome,
  Reachable as ReachableView,
} from '@dellum/contract';
import { StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { mustNotCycleThrough } from '../compiled/readDefinition.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, type Trx } from '../database/database.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { adapterOf, SourceFault, tablesOf, type CatalogValues, type Reading, type ReadingContext } from './adapters/index.js';
import { LinkedStore, type LinkedSource } from './linked.store.js';
import { Reachable, type Granted } from './reachable.js';

const firstShown = 8;
const mostListed = 500;

@Injectable()
export class LinkedService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly compiled: CompiledCatalogsService,
    private readonly sources: SourcesService,
    private readonly store: LinkedStore,
    private readonly reachable: Reachable,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly jobs: JobsService,
  ) {}

  all(caller: Caller): Promise<LinkedView[]> {
    return this.store.all(this.database.kysely, caller.houseId);
  }

  /** What was given to the house. */
  private async granted(houseId: string): Promise<Granted> {
    return this.reachable.of(await this.store.houseKey(this.database.kysely, houseId));
  }

  /** What a source can be set up with: files and folders under the root, databases, services. */
  async reach(caller: Caller): Promise<ReachableView> {
    const { root, databases, services } = await this.granted(caller.houseId);
    const found = root === undefined ? [] : await readdir(root, { withFileTypes: true, recursive: true }).catch(() => []);
    const pathOf = (entry: (typeof found)[number]) => relative(root!, `${entry.parentPath}/${entry.name}`);
    const listed = (isFolder: boolean) =>
      found
        .filter((entry) => entry.isDirectory() === isFolder && !entry.name.startsWith('.'))
        .map(pathOf)
        .sort()
        .slice(0, mostListed);
    return {
      root: root ?? null,
      files: listed(false),
      folders: listed(true),
      connections: [...databases.keys()],
      services: [...services.keys()],
    };
  }

  async tables(caller: Caller, connection: string): Promise<DatabaseTables> {
    const granted = await this.granted(caller.houseId);
    return told(() => tablesOf(granted, connection));
  }

  /** What a source would give; nothing is stored. */
  async try(caller: Caller, settings: LinkedSettings): Promise<LinkedTrial> {
    const build = await this.builds.now(caller.houseId);
    const context = await this.context(build, null);
    const adapter = adapterOf(settings);
    const { columns, rows } = (await told(async () => adapter.look?.(settings, context))) ?? { columns: [], rows: [] };
    // A table or a list whose column of the value is not chosen yet is looked at first.
    if (adapter.look && !('value' in settings && settings.value) && columns.length > 0) return { values: 0, first: [], columns, rows };
    const reading = await told(() => adapter.read(settings, context));
    const read = reading === 'unchanged' ? [] : reading.rows;
    return {
      values: read.length,
      first: read.slice(0, firstShown).map(({ value, label }) => ({ value, ...(label && { label }) })),
      columns,
      rows,
    };
  }

  make(caller: Caller, dto: MakeLinkedDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const id = randomUUID();
      const name = freeAmongLinked(build, dto.name, undefined);
      mustNotCycleThrough(build, id, catalogIds(build, dto.settings));
      await this.store.add(trx, caller.houseId, { ...dto, name, id, madeBy: caller.id });
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'linked.made', detail: { id, name, settings: dto.settings } },
      ]);
      await this.readSoon(trx, caller.houseId, id);
      return { id };
    });
  }

  alter(caller: Caller, id: string, dto: MakeLinkedDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      linkedOf(build, id);
      const name = freeAmongLinked(build, dto.name, id);
      mustNotCycleThrough(build, id, catalogIds(build, dto.settings));
      await this.store.change(trx, caller.houseId, id, { ...dto, name });
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'linked.changed', detail: { id, name, settings: dto.settings } },
      ]);
      await this.readSoon(trx, caller.houseId, id);
      return { id };
    });
  }

  /** What was just set up is read at once, whatever its schedule. */
  private readSoon(trx: Trx, houseId: string, sourceId: string): Promise<void> {
    return this.jobs.send(trx, 'refresh', [{ houseId, sourceId }]);
  }

  async remove(caller: Caller, id: string): Promise<void> {
    await this.builds.change(caller.houseId, async (trx, build) => {
      const { name } = linkedOf(build, id);
      const users = [...build.catalogs.values()]
        .filter(({ definition }) => readsDirectly(definition, 'linked', id))
        .map(({ title }) => `catalog ${title}`);
      if (users.length > 0) throw new ProblemError('in-use', `“${name}” feeds ${users.join(', ')}. Take it out there first.`, { users });
      await this.store.remove(trx, caller.houseId, id);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'linked.deleted', detail: { id, name } }]);
    });
  }

  /**
   * Reads the source and proposes what it gives now. A source that cannot be read keeps its last good values; why it failed
   * is noted and thrown.
   */
  async refresh(caller: Caller, id: string): Promise<Outcome> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    linkedOf(build, id);
    const source = (await this.store.find(db, caller.houseId, id))!;
    const noteFailure = (failure: string | null, mark: string | null) =>
      this.store.went(db, caller.houseId, id, { began: source.now, failure, mark });
    try {
      const reading = await adapterOf(source.settings).read(source.settings, await this.context(build, source.mark));
      return await this.take(caller, source, reading);
    } catch (error) {
      // The mark of what was read is kept only if it is taken: what was not would never be read again.
      if (error instanceof ProblemError) await noteFailure(null, source.mark);
      if (!(error instanceof SourceFault)) throw error;
      await noteFailure(error.message, null);
      throw new ProblemError('source-unreadable', `${error.message} The last good values stay.`);
    } finally {
      await this.tell(caller.houseId);
    }
  }

  /**
   * Takes what was read, unless what was read later has been taken already: two readings of one source may end in any order.
   * What an earlier one brought and still waits for answers is out of date.
   */
  private async take(caller: Caller, { id, name, now, mark }: LinkedSource, reading: Reading): Promise<Outcome> {
    let note: string | undefined;
    const outcome = await this.sources.propose(caller, async (trx) => {
      const went = { began: now, failure: null, mark: reading === 'unchanged' ? mark : (reading.mark ?? null) };
      const isNewest = await this.store.went(trx, caller.houseId, id, went);
      if (!isNewest) note = `${name} was read again meanwhile.`;
      else if (reading === 'unchanged' || isDeepStrictEqual(reading.rows, (await this.store.find(trx, caller.houseId, id))?.rows))
        note = `${name} gives what it gave before.`;
      if (isNewest && reading !== 'unchanged') await this.store.dropWaiting(trx, caller.houseId, id);
      return reading === 'unchanged' || note !== undefined
        ? { steps: [] }
        : proposalOf({ what: 'linked read', sourceId: id, rows: reading.rows });
    });
    return note === undefined ? outcome : { ...outcome, notes: [note] };
  }

  private tell(houseId: string): Promise<void> {
    return this.database.transaction((trx) => this.changes.append(trx, houseId, [{ audience: 'administrators', body: { kind: 'slips' } }]));
  }

  /** A refresh that nobody waits for, in the name of whoever set the source up. What fails is noted at the source. */
  async refreshQuietly(houseId: string, sourceId: string): Promise<void> {
    const source = await this.store.find(this.database.kysely, houseId, sourceId);
    if (!source) return;
    const administrator = await this.database.kysely
      .selectFrom('people')
      .select(['id', 'name', 'role'])
      .where('house_id', '=', houseId)
      .where('role', '=', 'administrator')
      .orderBy((eb) => eb('id', '=', source.madeBy ?? '00000000-0000-0000-0000-000000000000'), 'desc')
      .limit(1)
      .executeTakeFirst();
    if (!administrator) return;
    await this.refresh({ ...administrator, houseId }, sourceId).catch((error: unknown) => {
      if (!(error instanceof ProblemError)) throw error;
    });
  }

  private async context(build: HouseBuild, mark: string | null): Promise<ReadingContext> {
    return {
      reachable: await this.granted(build.houseId),
      mark,
      catalogs: async (keys) => {
        const values: Record<string, CatalogValues[string]> = {};
        for (const key of keys) {
          const catalog = [...build.catalogs.values()].find((known) => known.key === key);
          if (!catalog) throw new SourceFault(`There is no catalog with the key “${key}”.`);
          const { items } = await this.compiled.get(this.database.kysely, build, catalog.id);
          values[key.replaceAll('-', '_')] = items
            .filter(({ state }) => state === 'offered')
            .map(({ value, label, note = '', path, companions }) => ({ ...companions, value, label, note, parent: path.at(-1) ?? '' }));
        }
        return values;
      },
    };
  }
}

/** What an adapter cannot read is a problem that says why. */
async function told<T>(read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof SourceFault) throw new ProblemError('source-unreadable', error.message);
    throw error;
  }
}

/** The catalogs that a source is computed over. */
function catalogIds(build: HouseBuild, settings: LinkedSettings): string[] {
  const keys = 'catalogs' in settings ? (settings.catalogs ?? []) : [];
  return [...build.catalogs.values()].filter(({ key }) => keys.includes(key)).map(({ id }) => id);
}

function linkedOf(build: HouseBuild, id: string) {
  const source = build.linked.find((known) => known.id === id);
  if (!source) throw notFound('This linked source');
  return source;
}

const freeAmongLinked = (build: HouseBuild, name: string, except: string | undefined): string =>
  freeName(
    name,
    'name',
    build.linked.filter(({ id }) => id !== except).map((source) => source.name),
  );
