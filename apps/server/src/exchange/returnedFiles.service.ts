// Files that come back: taken in piece by piece, read by a job, looked at and mended here, and stored as one act.
import { Injectable } from '@nestjs/common';
import { catalogIdOf, pathOf } from '@dellum/core';
import {
  mayDesign,
  type BringFileDto,
  type DecideAllDto,
  type DecideRowDto,
  type FileColumnsDto,
  type OtherNameDto,
  type Outcome,
  type ReturnedCell,
  type ReturnedCounts,
  type ReturnedFileView,
  type ReturnedRow,
  type ReturnedRows,
  type ReturnedShown,
} from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { ItemsService } from '../catalogs/items.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, holdBuild, type Reader, type Trx } from '../database/database.js';
import { ReturnedRowsStore } from '../entering/returnedRows.store.js';
import { EntriesStore } from '../entries/entries.store.js';
import { JobsService } from '../jobs/jobs.service.js';
import { notFound, ProblemError } from '../problems/index.js';
import { enteredRegister, isOpen } from '../structure/sheetAccess.js';
import { fieldWithKey, StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import { ArrivalsService } from './arrivals.service.js';
import { ComparingService } from './comparing.service.js';
import { shapeOf } from './comparison.js';
import { ReturnedJudgingService } from './returnedJudging.service.js';
import { ReturnedStoringService } from './returnedStoring.service.js';
import { ReturnedStore, type ReturnedFile } from './returned.store.js';

/** So many files of one person wait to be looked at; an older one makes room. */
const mostWaiting = 20;
/** So many rows are decided with one statement. */
const decidedAtOnce = 1000;

@Injectable()
export class ReturnedFilesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: ReturnedStore,
    private readonly rows: ReturnedRowsStore,
    private readonly entries: EntriesStore,
    private readonly judging: ReturnedJudgingService,
    private readonly arrivals: ArrivalsService,
    private readonly storing: ReturnedStoringService,
    private readonly comparing: ComparingService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly items: ItemsService,
    private readonly jobs: JobsService,
  ) {}

  /** Takes a file in; a job reads it. Nothing of one that is too large, or breaks off, is kept. */
  async bring(caller: Caller, { name, registerId }: BringFileDto, bytes: AsyncIterable<Buffer>): Promise<ReturnedFileView> {
    if (registerId !== undefined) enteredRegister(await this.builds.now(caller.houseId), registerId, caller);
    const id = await this.arrivals.take(caller, { name, registerId: registerId ?? null }, bytes, async (trx) => {
      await this.store.removeBeyond(trx, caller.houseId, caller.id, mostWaiting);
      return true;
    });
    return this.view(caller, id!);
  }

  /** One's own; to an administrator, those of the house. */
  async list(caller: Caller): Promise<ReturnedFileView[]> {
    const files = await this.store.list(this.database.kysely, caller.houseId, mayDesign(caller.role) ? undefined : caller.id);
    const build = await this.builds.now(caller.houseId);
    return files.filter((file) => isThereFor(build, file, caller)).map((file) => viewOf(file, nothingCounted));
  }

  async view(caller: Caller, id: number): Promise<ReturnedFileView> {
    const db = this.database.kysely;
    const file = await this.mine(db, caller, id);
    return viewOf(file, file.state === 'ready' ? await this.rows.counts(db, caller.houseId, id) : nothingCounted);
  }

  async shown(caller: Caller, id: number, show: ReturnedShown): Promise<ReturnedRows> {
    await this.mine(this.database.kysely, caller, id);
    return this.rows.list(this.database.kysely, caller.houseId, id, show);
  }

  /** Which columns are which fields of which sheet: it is compared anew, and remembered for files of the same headings. */
  async setColumns(caller: Caller, id: number, dto: FileColumnsDto): Promise<ReturnedFileView> {
    await this.database.transaction(async (trx) => {
      const { headings, sentId, registerId } = await this.claimed(trx, caller, id, ['unclear', 'ready']);
      if (sentId !== null && registerId !== dto.registerId)
        throw notValid('The file says itself of which sheet it is. Say only which columns are which fields.');
      const register = enteredRegister(await this.builds.at(trx, caller.houseId), dto.registerId, caller);
      const columns = dto.columns.map(({ at, field }) => ({ at, field: field === null ? null : fieldWithKey(register, field).key }));
      const used = columns.flatMap(({ field }) => field ?? []);
      if (used.length === 0) throw notValid('No column is a field. Say for at least one column which field it is.');
      if (new Set(used).size < used.length) throw notValid('A field is named for two columns. Leave it with one of them.');
      const fieldAt = new Map(columns.map(({ at, field }) => [at, field]));
      const remembered = headings.map(({ at, heading }) => ({ heading, field: fieldAt.get(at) ?? null }));
      await this.store.remember(trx, caller.houseId, register.id, shapeOf(headings), remembered);
      await this.store.again(trx, caller.houseId, id, { registerId: register.id, columns });
      await this.jobs.send(trx, 'compare', [{ houseId: caller.houseId, fileId: id }]);
    });
    return this.view(caller, id);
  }

  /** Compares it anew with what stands here now. */
  async compareAgain(caller: Caller, id: number): Promise<ReturnedFileView> {
    await this.database.transaction(async (trx) => {
      await this.claimed(trx, caller, id, ['ready']);
      await this.store.again(trx, caller.houseId, id);
      await this.jobs.send(trx, 'compare', [{ houseId: caller.houseId, fileId: id }]);
    });
    return this.view(caller, id);
  }

  /** Decides one cell, mends it, or decides whether an entry is deleted. */
  async decide(caller: Caller, id: number, ord: number, dto: DecideRowDto): Promise<ReturnedRow> {
    return this.database.transaction(async (trx) => {
      const file = await this.claimed(trx, caller, id, ['ready']);
      const row = await this.rows.one(trx, caller.houseId, id, ord);
      if (!row) throw notFound('This row');
      const { field, deletes } = dto;
      if (deletes !== undefined && row.what !== 'missing') throw notValid('Only an entry whose row did not come back is deleted here.');
      if (deletes === undefined && !row.cells.some((cell) => cell.field === field)) throw notFound('This cell');
      const cells = row.cells.map((cell) => (cell.field === field ? after(cell, dto) : cell));
      const decided = { ...row, deletes: deletes ?? row.deletes, cells };
      const [judged] = deletes === undefined ? await this.judged(trx, caller, file, [decided]) : [decided];
      await this.rows.put(trx, caller.houseId, id, [judged!]);
      const mended = row.cells.find((cell) => cell.field === field);
      if (dto.alike && mended?.refused)
        await this.decideSome(
          trx,
          caller,
          file,
          (last) => this.rows.alike(trx, caller.houseId, id, mended, last, decidedAtOnce),
          (cell) => (cell.field === field && cell.text === mended.text && cell.refused ? after(cell, dto) : cell),
        );
      return judged!;
    });
  }

  /** Rows with what would become of them as they are decided now. */
  private async judged(trx: Trx, caller: Caller, file: ReturnedFile, rows: readonly ReturnedRow[]): Promise<ReturnedRow[]> {
    const { judged } = await this.judge(trx, caller, file, rows);
    return judged.map(({ verdicts: _verdicts, after: _after, ...row }) => row);
  }

  private async judge(trx: Trx, caller: Caller, { registerId }: ReturnedFile, rows: readonly ReturnedRow[]) {
    const build = await this.builds.at(trx, caller.houseId);
    const register = enteredRegister(build, registerId ?? '', caller);
    const ids = rows.map(({ entry }) => entry);
    const standing = await this.entries.some(trx, { houseId: caller.houseId, registerId: register.id }, ids);
    return { build, register, judged: await this.judging.judge(trx, caller, { build, register }, rows, standing) };
  }

  /** Keeps what came in a cell as another name of the value that it is now, so that the next file comes in by itself. */
  async rememberName(caller: Caller, id: number, ord: number, { field, name }: OtherNameDto): Promise<Outcome> {
    const meant = await this.database.transaction(async (trx) => {
      const file = await this.claimed(trx, caller, id, ['ready']);
      const row = await this.rows.one(trx, caller.houseId, file.id, ord);
      if (!row) throw notFound('This row');
      const { build, register, judged } = await this.judge(trx, caller, file, [row]);
      const { rule } = fieldWithKey(register, field);
      const [catalogId, entry] = [catalogIdOf(rule), judged[0]?.after];
      const value = entry?.[field];
      if (catalogId === undefined || !entry || !value) return undefined;
      const catalog = (await this.catalogs.some(trx, build, [catalogId])).get(catalogId)!;
      const path = pathOf(rule, catalog, entry, value);
      return path && { catalogId, item: { value, path: [...path] } };
    });
    if (!meant) throw notValid('What the cell holds now is no value of a list. Choose one first.');
    return this.items.nameToo(caller, meant.catalogId, meant.item, name);
  }

  async decideAll(caller: Caller, id: number, { what, takes }: DecideAllDto): Promise<ReturnedFileView> {
    await this.database.transaction(async (trx) => {
      const file = await this.claimed(trx, caller, id, ['ready']);
      if (what === 'missing') return this.rows.decideMissing(trx, caller.houseId, id, takes === 'came');
      await this.decideSome(
        trx,
        caller,
        file,
        (last) => this.rows.asked(trx, caller.houseId, id, last, decidedAtOnce),
        (cell) => (cell.asked ? { ...cell, takes } : cell),
      );
    });
    return this.view(caller, id);
  }

  /** Decides the cells of rows that are found piece by piece, each after the last one. */
  private async decideSome(
    trx: Trx,
    caller: Caller,
    file: ReturnedFile,
    find: (last: number) => Promise<ReturnedRow[]>,
    decided: (cell: ReturnedCell) => ReturnedCell,
  ): Promise<void> {
    let [some, last]: [ReturnedRow[], number] = [[], -1];
    do {
      some = await find(last);
      last = some.at(-1)?.ord ?? last;
      const rows = some.map((row) => ({ ...row, cells: row.cells.map(decided) }));
      await this.rows.put(trx, caller.houseId, file.id, await this.judged(trx, caller, file, rows));
    } while (some.length === decidedAtOnce);
  }

  /** Stores what is changed, as one act of whoever says so. */
  async apply(caller: Caller, id: number): Promise<ReturnedFileView> {
    await this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      await this.storing.apply(trx, caller, await this.claimed(trx, caller, id, ['ready']));
    });
    return this.view(caller, id);
  }

  async remove(caller: Caller, id: number): Promise<void> {
    const { intake } = await this.mine(this.database.kysely, caller, id);
    if (!(await this.store.remove(this.database.kysely, caller.houseId, id)))
      throw new ProblemError('file-settled', 'What the file brought is being stored. Wait until that is done.');
    // The next one may have waited for it.
    if (intake) await this.comparing.readNext(caller.houseId, intake.id);
  }

  private async claimed(trx: Trx, caller: Caller, id: number, states: Parameters<ReturnedStore['claim']>[3]): Promise<ReturnedFile> {
    await this.mine(trx, caller, id);
    const file = await this.store.claim(trx, caller.houseId, id, states);
    if (!file) throw new ProblemError('file-settled', 'This file is being read, or what it brought is stored already. Look at it again.');
    return file;
  }

  private async mine(db: Reader, caller: Caller, id: number): Promise<ReturnedFile> {
    const file = await this.store.one(db, caller.houseId, id);
    const build = await this.builds.now(caller.houseId);
    if (!file || file.state === 'coming' || !isThereFor(build, file, caller)) throw notFound('This file');
    return file;
  }
}

/** It is for whoever brought it, while the sheet is there for them, and for administrators. */
const isThereFor = (build: HouseBuild, { caller: by, registerId }: ReturnedFile, caller: Caller): boolean =>
  mayDesign(caller.role) || (by.id === caller.id && (registerId === null || isOpen(build, registerId, caller)));

/** A cell after what was decided of it. */
function after(cell: ReturnedCell, { takes, text, confirmed }: DecideRowDto): ReturnedCell {
  const { confirmed: before, ...known } = cell;
  const isMended = text !== undefined || confirmed !== undefined;
  const isMeant = confirmed ?? (text === undefined && before === true);
  return { ...known, takes: takes ?? (isMended ? 'came' : cell.takes), text: text ?? cell.text, ...(isMeant && { confirmed: true }) };
}

const notValid = (words: string) => new ProblemError('not-valid', words, { faults: {} });

const nothingCounted: ReturnedCounts = {
  cells: 0,
  rows: 0,
  asked: 0,
  askedCame: 0,
  added: 0,
  missing: 0,
  deletes: 0,
  deleted: 0,
  refused: [],
};

function viewOf(file: ReturnedFile, counts: ReturnedCounts): ReturnedFileView {
  const { id, name, caller, at, state, registerId, sentId, done, why, said, headings, columns, actId, way, program, intake } = file;
  const fieldAt = new Map(columns?.map((column) => [column.at, column.field]));
  return {
    id,
    name,
    by: caller.name,
    at: at.toISOString(),
    state,
    registerId,
    known: sentId !== null,
    done,
    why,
    said,
    columns: headings.map(({ at: place, heading }) => ({ at: place, heading, field: fieldAt.get(place) ?? null })),
    counts,
    actId,
    way,
    program,
    intake: intake && { id: intake.id, name: intake.name },
  };
}
