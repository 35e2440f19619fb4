// Houses out of files: taken in, looked at and mended by whoever designs, applied as one act, taken back as one.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { catalogIdOf, partReads, type HouseList, type Mends } from '@dellum/core';
import {
  mostAdoptedBytes,
  mostAdoptedFiles,
  type AdoptFileDto,
  type AdoptionState,
  type AdoptionSummary,
  type AdoptionView,
  type AppliedAdoption,
  type LaidAdoption,
  type MendColumnDto,
  type MendListDto,
  type MendSpellingsDto,
  type MendTableDto,
} from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { ChangesStore } from '../changes/changes.store.js';
import { Database, type Reader, type Trx } from '../database/database.js';
import { keptInParts } from '../exchange/fileParts.js';
import { Utf8Check } from '../exchange/reading/index.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { AdoptionsStore, type Adoption } from './adoptions.store.js';
import { AdoptionThreadsService } from './adoptionThreads.service.js';
import { HouseListsService } from './houseLists.service.js';

/** What is changed of a proposal by hand takes so many characters at most. */
const mostSaid = 2_000_000;

@Injectable()
export class AdoptionsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: AdoptionsStore,
    private readonly threads: AdoptionThreadsService,
    private readonly lists: HouseListsService,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly jobs: JobsService,
  ) {}

  /** Takes a file into a proposal; a job reads it with the others. Nothing of one that is too large, or breaks off, is kept. */
  async bring(caller: Caller, { name, proposal }: AdoptFileDto, bytes: AsyncIterable<Buffer>): Promise<AdoptionView> {
    const { houseId } = caller;
    const id = proposal ?? randomUUID();
    const ord = await this.database.transaction(async (trx) => {
      if (proposal === undefined) await this.store.add(trx, caller, id);
      else {
        await this.claimed(trx, caller, id, ['reading', 'unreadable', 'ready']);
        const files = (await this.store.files(trx, houseId, [id])).get(id) ?? [];
        if (files.length >= mostAdoptedFiles)
          throw new ProblemError('too-large', `One proposal takes ${mostAdoptedFiles} files. Apply it, and begin another with the rest.`);
      }
      return this.store.addFile(trx, houseId, id, name);
    });
    try {
      const { size, isUtf8 } = await this.keep(houseId, id, ord, bytes);
      await this.change(caller, id, ['reading', 'unreadable', 'ready'], async (trx) => {
        await this.store.cameWhole(trx, houseId, id, ord, size, isUtf8);
        await this.readAnew(trx, houseId, id);
      });
    } catch (error) {
      if (proposal === undefined) await this.store.remove(this.database.kysely, houseId, id);
      else await this.store.removeFile(this.database.kysely, houseId, id, ord);
      throw error;
    }
    return this.view(caller, id);
  }

  private async keep(houseId: string, id: string, ord: number, bytes: AsyncIterable<Buffer>): Promise<{ size: number; isUtf8: boolean }> {
    this.threads.willRead();
    const utf8 = new Utf8Check();
    const store = (part: number, own: Buffer) => this.store.addPart(this.database.kysely, houseId, id, ord, part, own);
    const size = await keptInParts(bytes, mostAdoptedBytes, store, (piece) => utf8.add(piece));
    if (size === 0) throw new ProblemError('not-valid', 'The file is empty. Choose another file.');
    return { size, isUtf8: utf8.end() };
  }

  private async readAnew(trx: Trx, houseId: string, id: string): Promise<void> {
    await this.store.readAnew(trx, houseId, id);
    await this.jobs.send(trx, 'adopt', [{ houseId, adoptionId: id }]);
  }

  async list({ houseId }: Caller): Promise<AdoptionSummary[]> {
    const db = this.database.kysely;
    const all = await this.store.list(db, houseId);
    const files = await this.store.files(
      db,
      houseId,
      all.map(({ id }) => id),
    );
    return all.map(({ id, at, by, state }) => ({ id, at: at.toISOString(), by, state, files: plain(files.get(id)) }));
  }

  async view({ houseId }: Pick<Caller, 'houseId'>, id: string): Promise<AdoptionView> {
    const db = this.database.kysely;
    const adoption = await this.store.one(db, houseId, id);
    if (!adoption) throw notFound('This proposal');
    const { state, found, mends, applied } = adoption;
    const files = (await this.store.files(db, houseId, [id])).get(id);
    // Whoever waits until it is applied looks again and again: what is proposed is not computed for that.
    const isShown = found !== null && state === 'ready';
    const isUnderWay = state === 'reading' || state === 'applying';
    return {
      ...{ id, at: adoption.at.toISOString(), by: adoption.by, state, files: plain(files), why: adoption.why, said: adoption.said },
      ...(isUnderWay && adoption.done !== null && { progress: { done: adoption.done, total: adoption.total } }),
      ...(isShown && { proposal: await this.threads.propose({ found, mends, house: await this.houseLists(db, houseId) }) }),
      ...(state === 'applied' && applied && { applied: await this.appliedView(houseId, applied) }),
    };
  }

  private async houseLists(db: Reader, houseId: string): Promise<HouseList[]> {
    return this.lists.of(db, await this.builds.now(houseId));
  }

  private async appliedView(houseId: string, applied: LaidAdoption): Promise<AppliedAdoption> {
    const build = await this.builds.now(houseId);
    const { name } = await this.database.kysely
      .selectFrom('people')
      .select('name')
      .where('house_id', '=', houseId)
      .where('id', '=', applied.by)
      .executeTakeFirstOrThrow();
    return {
      by: name,
      at: applied.at,
      sheets: build.sheets.filter(({ id }) => applied.sheets.includes(id)).map(({ id, title, kind }) => ({ id, title, kind })),
      catalogs: applied.catalogs.flatMap((id) => {
        const catalog = build.catalogs.get(id);
        return catalog ? [{ id, title: catalog.title }] : [];
      }),
      entries: applied.entries,
      rows: applied.rows,
      since: await this.store.changedSince(this.database.kysely, houseId, applied.sheets, applied.entries + applied.rows),
    };
  }

  async mendTable(caller: Caller, id: string, { heading, ...dto }: MendTableDto): Promise<AdoptionView> {
    return this.mended(caller, id, async (trx, { mends, headings }) => {
      if (heading !== undefined) {
        const others = headings.filter(({ table }) => table !== dto.table);
        await this.store.change(trx, caller.houseId, id, { headings: [...others, { table: dto.table, heading }] });
        await this.readAnew(trx, caller.houseId, id);
      }
      return { ...mends, tables: withOne(mends.tables, dto, ({ table }) => table === dto.table) };
    });
  }

  async mendColumn(caller: Caller, id: string, dto: MendColumnDto): Promise<AdoptionView> {
    return this.mended(caller, id, (_trx, { mends }) =>
      Promise.resolve({ ...mends, columns: withOne(mends.columns, dto, ({ table, at }) => table === dto.table && at === dto.at) }),
    );
  }

  async mendList(caller: Caller, id: string, { into, ...dto }: MendListDto): Promise<AdoptionView> {
    return this.mended(caller, id, (_trx, { mends }) => {
      const isOwn = ({ list }: { readonly list: string }) => list === dto.list;
      const all = withOne(mends.lists, { ...dto, ...(typeof into === 'string' && { into }) }, isOwn);
      // Parted again: it goes into none.
      const lists = into === null ? all.map((one) => (isOwn(one) ? withoutInto(one) : one)) : all;
      return Promise.resolve({ ...mends, lists });
    });
  }

  async mendSpellings(caller: Caller, id: string, { list, from, to }: MendSpellingsDto): Promise<AdoptionView> {
    return this.mended(caller, id, (_trx, { mends }) => {
      const said = new Set(from);
      const others = mends.spellings.filter((one) => one.list !== list || !said.has(one.from));
      return Promise.resolve({ ...mends, spellings: [...others, ...[...said].map((text) => ({ list, from: text, to }))] });
    });
  }

  private async mended(caller: Caller, id: string, mend: (trx: Trx, adoption: Adoption) => Promise<Mends>): Promise<AdoptionView> {
    await this.change(caller, id, ['ready'], async (trx, adoption) => {
      const mends = await mend(trx, adoption);
      if (JSON.stringify(mends).length > mostSaid)
        throw new ProblemError(
          'too-large',
          'So much was changed by hand that it cannot be kept. Mend the files themselves, or bring them in parts.',
        );
      await this.store.change(trx, caller.houseId, id, { mends });
    });
    return this.view(caller, id);
  }

  /** Lays all that is proposed into the house; a job does it. */
  async apply(caller: Caller, id: string): Promise<AdoptionView> {
    const house = await this.houseLists(this.database.kysely, caller.houseId);
    await this.change(caller, id, ['ready'], async (trx, { found, mends }) => {
      const { lists } = await this.threads.propose({ found: found ?? [], mends, house });
      const applied: LaidAdoption = {
        by: caller.id,
        at: new Date().toISOString(),
        sheets: [],
        ranges: [],
        catalogs: [],
        entries: 0,
        rows: 0,
        chosen: lists.flatMap(({ catalog, wanted }) => (catalog !== null && wanted ? [catalog] : [])),
      };
      await this.store.change(trx, caller.houseId, id, { state: 'applying', why: null, applied });
      await this.store.begins(trx, caller.houseId, id);
      await this.jobs.send(trx, 'adopt', [{ houseId: caller.houseId, adoptionId: id }]);
    });
    return this.view(caller, id);
  }

  /** Takes all of it out of the house again; the proposal stands as it was applied. */
  async takeBack(caller: Caller, id: string): Promise<AdoptionView> {
    const { houseId } = caller;
    await this.builds.change(houseId, async (trx, build) => {
      const { applied } = await this.claimed(trx, caller, id, ['applied']);
      const users = usersOf(build, applied!);
      if (users.length > 0)
        throw new ProblemError('in-use', `What came out of the files is used by ${users.slice(0, 5).join(', ')}. Clear it there first.`, {
          users,
        });
      const titles = build.sheets.filter((sheet) => applied!.sheets.includes(sheet.id)).map(({ title }) => title);
      await this.store.takeBack(trx, houseId, applied!);
      await this.store.change(trx, houseId, id, { state: 'ready', applied: null });
      await this.ledger.write(trx, houseId, [{ personId: caller.id, act: 'files.taken-back', detail: { titles } }]);
      await this.tell(trx, houseId);
    });
    return this.view(caller, id);
  }

  async remove(caller: Caller, id: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      await this.claimed(trx, caller, id, ['reading', 'unreadable', 'ready', 'applied']);
      await this.store.remove(trx, caller.houseId, id);
      await this.tell(trx, caller.houseId);
    });
  }

  private async change(
    caller: Caller,
    id: string,
    states: readonly AdoptionState[],
    act: (trx: Trx, adoption: Adoption) => Promise<void>,
  ): Promise<void> {
    await this.database.transaction(async (trx) => {
      await act(trx, await this.claimed(trx, caller, id, states));
      await this.tell(trx, caller.houseId);
    });
  }

  private async claimed(trx: Trx, { houseId }: Caller, id: string, states: readonly AdoptionState[]): Promise<Adoption> {
    const adoption = await this.store.claim(trx, houseId, id);
    if (!adoption) throw notFound('This proposal');
    if (!states.includes(adoption.state)) throw new ProblemError('file-settled', busyWords[adoption.state]);
    return adoption;
  }

  private tell(trx: Trx, houseId: string): Promise<void> {
    return this.changes.append(trx, houseId, [{ audience: 'administrators', body: { kind: 'adoptions' } }]);
  }
}

/** Why something cannot be done now. */
const busyWords: { readonly [State in AdoptionState]: string } = {
  reading: 'The files are being read. Try again when they are.',
  unreadable: 'The files could not be read. Bring others.',
  ready: 'The proposal is not applied any more.',
  applying: 'The proposal is being applied. Wait until it is.',
  applied: 'The proposal is applied already. Take it back first.',
};

const plain = (files: readonly { readonly name: string; readonly bytes: number }[] = []) =>
  files.map(({ name, bytes }) => ({ name, bytes }));

/** What was said of one thing, with what is said now. */
function withOne<T extends object>(all: readonly T[], more: T, isOwn: (one: T) => boolean): T[] {
  const said = Object.fromEntries(Object.entries(more).filter(([, value]) => value !== undefined)) as T;
  return all.some(isOwn) ? all.map((one) => (isOwn(one) ? { ...one, ...said } : one)) : [...all, said];
}

function withoutInto({ into: _, ...list }: Mends['lists'][number]): Mends['lists'][number] {
  return list;
}

/** What of the rest of the house stands on what was laid. */
function usersOf(build: HouseBuild, { sheets, ranges, catalogs }: LaidAdoption): string[] {
  const registers = [...build.registers.values()].filter(({ sheetId }) => sheets.includes(sheetId)).map(({ id }) => id);
  const fields = [...build.fields.values()]
    .filter(({ registerId, rule }) => !registers.includes(registerId) && catalogs.includes(catalogIdOf(rule) ?? ''))
    .map(({ heading, registerId }) => `field ${heading} of ${build.registers.get(registerId)!.title}`);
  const others = [...build.catalogs.values()]
    .filter(({ id, definition }) => {
      const reads = definition.parts.map(partReads);
      return (
        !catalogs.includes(id) &&
        reads.some(
          (read) =>
            read.catalogs?.some((one) => catalogs.includes(one)) ||
            read.ranges?.some((one) => ranges.includes(one)) ||
            read.registers?.some((one) => registers.includes(one)),
        )
      );
    })
    .map(({ title }) => `catalog ${title}`);
  const over = build.ranges.filter(
    ({ id, stretches }) => !ranges.includes(id) && stretches.some(({ registerId }) => registers.includes(registerId)),
  );
  const forms = build.forms.filter(({ registerId }) => registers.includes(registerId));
  return [...fields, ...others, ...over.map(({ name }) => `range ${name}`), ...forms.map(({ title }) => `form ${title}`)];
}
