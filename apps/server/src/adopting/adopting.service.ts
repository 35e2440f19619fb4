// Reads the files of a proposal, and lays what is proposed into the house, as jobs; both can be killed at any moment and leave nothing
// half.
import { randomUUID } from 'node:crypto';
import { Injectable, Logger } from '@nestjs/common';
import {
  brought,
  laidParts,
  partsHere,
  proposedHouse,
  isRowOf,
  rowReader,
  tableId,
  type AdoptedTable,
  type LaidTable,
  type Locale,
} from '@dellum/core';
import { mostAdoptedRows } from '@dellum/contract';
import { ChangesStore } from '../changes/changes.store.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { inBatches, LayingStore } from '../exchange/laying.store.js';
import { PartsStore } from '../exchange/parts.store.js';
import { bytesInParts, openFile } from '../exchange/reading/index.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { StructureService } from '../structure/structure.service.js';
import { AdoptionsStore, type Adoption } from './adoptions.store.js';
import { AdoptionThreadsService, ThreadsStopped } from './adoptionThreads.service.js';
import { HouseListsService } from './houseLists.service.js';
import { tellEvery } from './threadParts.js';

/** So many entries are stored with one statement. */
const atOnce = 2000;

/** A catalog of the house, from which columns were to choose, is gone since. */
class HouseChanged extends Error {}

@Injectable()
export class AdoptingService {
  private readonly logger = new Logger('adopting');

  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: AdoptionsStore,
    private readonly threads: AdoptionThreadsService,
    private readonly lists: HouseListsService,
    private readonly parts: PartsStore,
    private readonly laying: LayingStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
  ) {}

  async run(houseId: string, id: string): Promise<void> {
    const adoption = await this.store.one(this.database.kysely, houseId, id);
    if (adoption?.state === 'reading') await this.read(houseId, adoption);
    if (adoption?.state === 'applying') await this.apply(houseId, id);
  }

  private async read(houseId: string, { id, run, headings }: Adoption): Promise<void> {
    const { locale } = await this.builds.now(houseId);
    const outcome = await this.readAll(houseId, id, headings, locale);
    const end = (how: typeof outcome) =>
      this.database.transaction(async (trx) => {
        if (await this.store.end(trx, houseId, id, run, how)) await this.tell(trx, houseId);
      });
    // What the database does not take is not tried for ever.
    await end(outcome).catch((error: unknown) => end(this.failed(error)));
  }

  private failed(error: unknown): { readonly why: string } {
    this.logger.error(`A proposal could not be read: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    return {
      why: 'Something went wrong here while the files were read. Bring them once more; if it happens again, tell whoever runs Dellum.',
    };
  }

  private async readAll(houseId: string, id: string, headings: Adoption['headings'], locale: Locale) {
    const db = this.database.kysely;
    try {
      const files = (await this.store.files(db, houseId, [id])).get(id) ?? [];
      return await this.threads.read(
        { files, headings, locale, mostRows: mostAdoptedRows },
        (file, part) => this.store.part(db, houseId, id, files[file]!.ord, part),
        (rows) => this.note(houseId, id, rows, null),
      );
    } catch (error) {
      // Left to a server that goes on.
      if (error instanceof ThreadsStopped) throw error;
      return this.failed(error);
    }
  }

  /** How far it is; whoever waits may look in vain. */
  private note(houseId: string, id: string, done: number, total: number | null): void {
    this.store.progress(this.database.kysely, houseId, id, done, total).catch((error: unknown) => this.logger.warn(String(error)));
  }

  private tell(trx: Trx, houseId: string): Promise<void> {
    return this.changes.append(trx, houseId, [{ audience: 'administrators', body: { kind: 'adoptions' } }]);
  }

  private async apply(houseId: string, id: string): Promise<void> {
    try {
      await this.database.transaction(async (trx) => {
        await lockBuild(trx, houseId);
        // Whoever took the job up before, and lives, has done it by the time that this is known.
        const adoption = await this.store.claim(trx, houseId, id);
        if (adoption?.state !== 'applying' || !adoption.found) return;
        await this.lay(trx, houseId, adoption, adoption.found);
        await this.builds.changed(trx, houseId);
        await this.tell(trx, houseId);
      });
    } catch (error) {
      const isChanged = error instanceof HouseChanged;
      if (!isChanged)
        this.logger.error(`A proposal could not be applied: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
      await this.database.transaction(async (trx) => {
        const adoption = await this.store.claim(trx, houseId, id);
        if (adoption?.state !== 'applying') return;
        const why = isChanged
          ? 'A catalog of the house from which columns were to choose is not there any more; nothing is stored. Look at the proposal again: it is made anew.'
          : 'Something went wrong here while it was applied; nothing of it is stored. Try again; if it happens again, tell whoever runs Dellum.';
        await this.store.change(trx, houseId, id, { state: 'ready', why });
        await this.tell(trx, houseId);
      });
    }
  }

  private async lay(trx: Trx, houseId: string, { id, mends, ...adoption }: Adoption, found: readonly AdoptedTable[]): Promise<void> {
    const by = adoption.applied!.by;
    const build = await this.builds.at(trx, houseId);
    const { locale } = build;
    // As it was looked at: what has come into the house since is chosen by nobody.
    const chosen = new Set(adoption.applied!.chosen);
    const lists = (await this.lists.of(trx, build)).filter(({ catalogId }) => chosen.has(catalogId));
    if (lists.length < chosen.size) throw new HouseChanged();
    const house = laidParts(proposedHouse(found, mends, lists), found, randomUUID);
    const parts = brought(house.parts, partsHere(await this.parts.read(trx, houseId)), beside(house.parts));
    await this.laying.lay(trx, houseId, parts, { by, hash: '' });
    for (const { registerId, rows } of house.lists)
      for (const [at, batch] of inBatches(rows, atOnce).entries())
        await this.laying.entries(
          trx,
          houseId,
          registerId,
          batch.map((cells) => ({ id: randomUUID(), cells })),
          at * atOnce,
        );
    const stored = await this.layFiles(trx, houseId, id, house.tables, found, locale);
    const inLists = new Set(parts.sheets.filter(({ kind }) => kind === 'source').flatMap((sheet) => sheet.registers.map(idOf)));
    const counted = (isList: boolean) =>
      [...stored].reduce((sum, [registerId, count]) => sum + (inLists.has(registerId) === isList ? count : 0), 0);
    const entries = counted(false);
    const rows = counted(true) + house.lists.reduce((sum, list) => sum + list.rows.length, 0);
    const registers = parts.sheets.flatMap((sheet) => sheet.registers.map(idOf));
    await this.laying.countLaid(trx, houseId, registers);
    const laid = { sheets: parts.sheets, ranges: parts.ranges, catalogs: parts.catalogs };
    const ids = { sheets: laid.sheets.map(idOf), ranges: laid.ranges.map(idOf), catalogs: laid.catalogs.map(idOf) };
    await this.store.change(trx, houseId, id, {
      state: 'applied',
      why: null,
      applied: { by, at: new Date().toISOString(), ...ids, entries, rows },
    });
    const counts = { sheets: ids.sheets.length, catalogs: ids.catalogs.length, entries };
    await this.ledger.write(trx, houseId, [
      { personId: by, act: 'files.adopted', detail: { titles: laid.sheets.map(({ title }) => title), counts } },
    ]);
  }

  /**
   * The rows of the files, as they are read now: none of them is held longer than it takes to store it. By register, how many there are.
   */
  private async layFiles(
    trx: Trx,
    houseId: string,
    id: string,
    tables: readonly LaidTable[],
    found: readonly AdoptedTable[],
    locale: Locale,
  ): Promise<ReadonlyMap<string, number>> {
    const stored = new Map<string, number>();
    const total = found.reduce((sum, table) => sum + (tables.some((one) => one.table === tableId(table)) ? table.rows : 0), 0);
    const done = () => [...stored.values()].reduce((sum, count) => sum + count, 0);
    let noted = performance.now();
    for (const kept of (await this.store.files(trx, houseId, [id])).get(id) ?? []) {
      const { ord, name, bytes, isUtf8 } = kept;
      const own = found.filter(({ file }) => file === ord);
      const laid = own.flatMap((table) =>
        tables
          .filter((one) => one.table === tableId(table))
          .map((one) => ({ one, sheet: table.sheet, isOwn: isRowOf(table), cellsOf: rowReader(one, locale) })),
      );
      if (laid.length === 0) continue;
      const opened = await openFile(
        bytesInParts(bytes, isUtf8, (part) => this.store.part(trx, houseId, id, ord, part)),
        name,
      );
      let sheet = -1;
      for await (const piece of opened.pieces()) {
        if (piece.piece === 'sheet') {
          sheet += 1;
          continue;
        }
        if (piece.piece !== 'rows') continue;
        for (const { one, isOwn, cellsOf } of laid.filter((table) => table.sheet === sheet)) {
          const entries = piece.rows
            .filter(({ number }) => isOwn(number))
            .map((row) => ({ id: randomUUID(), cells: cellsOf(row) }))
            .filter(({ cells }) => Object.keys(cells).length > 0);
          for (const batch of inBatches(entries, atOnce)) {
            const at = stored.get(one.registerId) ?? 0;
            await this.laying.entries(trx, houseId, one.registerId, batch, at);
            stored.set(one.registerId, at + batch.length);
            if (performance.now() - noted < tellEvery) continue;
            noted = performance.now();
            this.note(houseId, id, done(), total);
          }
        }
      }
    }
    return stored;
  }
}

const idOf = ({ id }: { readonly id: string }): string => id;
/** All comes in under names of its own: nothing that is here is changed by it. */
const beside = ({
  ranges,
  catalogs,
}: {
  readonly ranges: readonly { readonly id: string }[];
  readonly catalogs: readonly { readonly id: string }[];
}) => new Map([...ranges, ...catalogs].map(({ id }) => [id, 'beside' as const]));
