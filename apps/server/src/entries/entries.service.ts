// Entries of the shared sheets: edited by the cell or the block, inserted and deleted.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { carried, cellsOfNew, type Cells } from '@dellum/core';
import type { BeginEntryDto, BlockOutcome, DeleteEntriesDto, EditCellDto, EditOutcome, EntryView, InsertEntriesDto, WriteBlockDto } from '@dellum/contract';
import { BuildService, feedsCatalogs, fieldWithKey } from '../build/build.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../build/build.store.js';
import { countKey, Counts } from '../counts/counts.js';
import { Database, holdBuild, type Reader, type Trx } from '../database/database.js';
import { todayOf } from '../houses/houses.service.js';
import { Ledger } from '../ledger/ledger.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { BlockJudging, valueLock } from './blockJudging.js';
import { CellWriter } from './cellWriter.js';
import { EntriesStore } from './entries.store.js';
import { changedKeys, entryRegister, EntryWriting, writtenCells } from './entryWriting.js';
import { judgedCells, NewValues, type JudgedCell } from './newValues.js';
import { afterVerdict, carriesOf, judgeCell, withFollowers, type Judged, type Judgement } from './judging.js';
import { PlacesStore } from './places.store.js';

/** How often an edit is judged anew when others write to the same entry. */
const mostTurns = 20;

@Injectable()
export class EntriesService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly judging: BlockJudging,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writer: CellWriter,
    private readonly counts: Counts,
    private readonly ledger: Ledger,
    private readonly writing: EntryWriting,
    private readonly newValues: NewValues,
  ) {}

  /**
   * One cell edited by a clerk: judged with authority, stored, counted, recorded and told. It is judged on what was read
   * and stored only if entry and build are still the same; otherwise it is judged anew.
   */
  async editCell(caller: Caller, registerId: string, entryId: string, dto: EditCellDto): Promise<EditOutcome> {
    for (let turn = 0; turn < mostTurns; turn++) {
      const outcome = await this.newValues.around(caller, () => this.tryEdit(caller, registerId, entryId, dto));
      if (outcome) return outcome;
    }
    throw new ProblemError('internal', 'Many people are writing to this entry at once. Nothing was stored; try again.');
  }

  private async tryEdit(caller: Caller, registerId: string, entryId: string, dto: EditCellDto): Promise<EditOutcome | undefined> {
    const db = this.database.kysely;
    const found = await this.store.withBuild(db, { houseId: caller.houseId, registerId }, entryId);
    const build = await this.builds.at(db, caller.houseId, found?.build);
    const register = entryRegister(build, registerId, caller);
    const field = fieldWithKey(register, dto.field);
    if (!found) throw notFound('This entry');
    const { entry } = found;
    const judgement = await this.judging.judgement(db, build, register, withFollowers(register, field), true);
    const seen = carried(entry.cells, judgement.carries);
    const judged = await this.judgeOnce(db, caller.houseId, field, dto, seen, judgement);
    const { verdict } = judged;
    if (verdict.verdict === 'refused') return { verdict, entry: { ...entry, cells: seen } };
    if (dto.version < entry.version) await this.mustBeUnchanged(db, caller.houseId, entry, seen, field, dto.version);
    const plan = afterVerdict(register, seen, judged, judgement);
    if (!plan) return { verdict, entry: { ...entry, cells: seen } };
    const cell: JudgedCell = { entry: entryId, field, verdict, cells: plan.cells };
    this.newValues.mustAdd([cell]);
    const keys = changedKeys(seen, plan.cells);
    const outcome: EditOutcome = { verdict, entry: { id: entryId, version: entry.version + 1, cells: plan.cells }, cleared: plan.cleared, kept: plan.kept, filled: plan.filled, written: writtenCells(entry, seen, plan.cells) };
    if (feedsCatalogs(build, registerId)) {
      await this.writing.propose(caller, registerId, { act: 'write', cells: keys.map((key) => ({ entry: entryId, field: key, text: plan.cells[key] ?? '' })) });
      await this.database.transaction((trx) => this.newValues.keepRequests(trx, caller, register, [cell]));
      return outcome;
    }
    const before = { ...entry, cells: seen };
    const alone = keys.length === 1 && !field.rule?.noRepeats && verdict.verdict !== 'requested';
    const written = alone ? await this.writer.write(caller, field, build.version, before, plan.cells) : await this.writeSeveral(caller, register, build, before, cell, judgement);
    return written ? outcome : undefined;
  }

  /** Judges a cell; whether its value is a repeat is asked of the counts only where the rule wants to know. */
  private async judgeOnce(db: Reader, houseId: string, field: FieldBuild, dto: BeginEntryDto, seen: Cells, judgement: Judgement): Promise<Judged> {
    const judged = judgeCell(field, dto, seen, judgement);
    if (!field.rule?.noRepeats || judged.verdict.verdict !== 'taken' || judged.verdict.value === '' || judged.verdict.value === seen[field.key]) return judged;
    const held = await this.counts.ofValues(db, houseId, [field.id], [countKey(judged.verdict.value)]);
    const repeated = (held.get(field.id)?.size ?? 0) > 0;
    return judgeCell(field, { ...dto, repeats: () => repeated }, seen, judgement);
  }

  /**
   * Stores an edit that changes several cells of the entry, one whose value nobody else may hold, or one that asks for a
   * value: in a transaction, since the hot path knows one cell. False when entry or build are not of now any more.
   */
  private async writeSeveral(caller: Caller, register: RegisterBuild, build: HouseBuild, before: EntryView, cell: JudgedCell, judgement: Judgement): Promise<boolean> {
    const { field, cells: after } = cell;
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      if ((await this.builds.at(trx, caller.houseId)).version !== build.version) return false;
      const value = after[field.key];
      if (field.rule?.noRepeats && value !== undefined && value !== before.cells[field.key]) {
        await this.judging.holdValues(trx, [valueLock(field, value)]);
        const held = await this.counts.ofValues(trx, caller.houseId, [field.id], [countKey(value)]);
        // Somebody else was first; judged anew, the edit is told so.
        if ((held.get(field.id)?.size ?? 0) > 0 && field.rule.others === 'refuse') return false;
      }
      const [entry] = await this.store.lock(trx, { houseId: caller.houseId, registerId: register.id }, [before.id]);
      if (!entry || entry.version !== before.version) return false;
      await this.writing.cells(trx, caller, register, new Map([[entry.id, entry]]), new Map([[entry.id, after]]), judgement.carries);
      await this.newValues.keepRequests(trx, caller, register, [cell]);
      return true;
    });
  }

  private async mustBeUnchanged(db: Reader, houseId: string, entry: EntryView, seen: Cells, field: FieldBuild, version: number): Promise<void> {
    const last = await this.ledger.lastChange(db, houseId, entry.id, field.key, version);
    if (!last) return;
    const value = seen[field.key] ?? '';
    const by = last.by ?? 'Dellum';
    const now = value === '' ? 'is blank' : `holds “${value}”`;
    throw new ProblemError('cell-changed', `${by} changed this ${field.heading} a moment ago; it ${now} now. Keep theirs, or take yours.`, { current: { value, version: entry.version, by } });
  }

  /** A pasted block: an outcome a cell, nothing refused is stored, all in one transaction. */
  writeBlock(caller: Caller, registerId: string, dto: WriteBlockDto): Promise<BlockOutcome> {
    return this.newValues.around(caller, () => this.tryBlock(caller, registerId, dto));
  }

  private async tryBlock(caller: Caller, registerId: string, dto: WriteBlockDto): Promise<BlockOutcome> {
    const judged = await this.database.transaction(async (trx): Promise<BlockOutcome & { before?: ReadonlyMap<string, EntryView> }> => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      const fields = new Map(dto.cells.map(({ field }) => [field, fieldWithKey(register, field)]));
      const needed = new Set([...fields.values()].flatMap((field) => withFollowers(register, field)));
      const judgement = await this.judging.judgement(trx, build, register, [...needed], dto.cells.length <= 200);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map((await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]));
      if (dto.cells.some(({ entry }) => !entries.has(entry))) throw notFound('An entry of the block');
      const { outcomes, after } = await this.judging.block(trx, caller.houseId, register, dto.cells, fields, entries, judgement);
      const cells = judgedCells(outcomes, fields, after);
      this.newValues.mustAdd(cells);
      const written = [...after].flatMap(([id, cells]) => writtenCells(entries.get(id)!, carried(entries.get(id)!.cells, judgement.carries), cells));
      if (feedsCatalogs(build, registerId)) return { outcomes, written, entries: [...after].map(([id, cells]) => ({ id, version: entries.get(id)!.version + 1, cells })), before: entries };
      const now = await this.writing.cells(trx, caller, register, entries, after, judgement.carries);
      await this.newValues.keepRequests(trx, caller, register, cells);
      return { outcomes, written, entries: now };
    });
    const { before, ...outcome } = judged;
    if (!before) return outcome;
    const cells = outcome.entries.flatMap(({ id, cells: now }) => changedKeys(before.get(id)!.cells, now).map((field) => ({ entry: id, field, text: now[field] ?? '' })));
    if (cells.length > 0) await this.writing.propose(caller, registerId, { act: 'write', cells });
    return outcome;
  }

  /** New entries above `before`, or at the end; each cell begins as its rule says. */
  async insert(caller: Caller, registerId: string, dto: InsertEntriesDto): Promise<{ entries: string[] }> {
    const made = await this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const ids = dto.ids ?? Array.from({ length: dto.count }, () => randomUUID());
      if (ids.length !== dto.count) throw new ProblemError('not-valid', `${ids.length} ids are given for ${dto.count} new entries.`, { faults: { ids: 'Give one id for each new entry.' } });
      const there = await this.store.some(trx, place, dto.ids ?? []);
      // Sent twice: they are there already.
      if (there.size === ids.length) return { entries: ids.map((id) => ({ id, cells: {} })), waits: false };
      if (there.size > 0) throw new ProblemError('not-valid', 'Some of the ids belong to entries that are there.', { faults: { ids: 'Give ids that no entry has.' } });
      const cells = await this.beginning(trx, build, register, dto.before);
      const entries = ids.map((id) => ({ id, cells }));
      // What a new entry begins with may be a value elsewhere; a blank one is none.
      const waits = feedsCatalogs(build, registerId) && Object.keys(cells).length > 0;
      if (!waits) await this.writing.insert(trx, caller, register, dto.before, entries, 'entry.inserted');
      return { entries, waits };
    });
    if (made.waits) await this.writing.propose(caller, registerId, { act: 'insert', before: dto.before ?? null, entries: made.entries });
    return { entries: made.entries.map(({ id }) => id) };
  }

  /** What the cells of a new entry hold at first, above `before` or at the end. */
  private async beginning(trx: Trx, build: HouseBuild, register: RegisterBuild, before: string | undefined): Promise<Cells> {
    const asAbove = register.fields.some(({ rule }) => rule?.begins.with === 'above');
    const above = asAbove ? await this.store.above(trx, { houseId: build.houseId, registerId: register.id }, before) : undefined;
    return cellsOfNew(register.fields, above && carried(above.cells, carriesOf(build, register)), todayOf(new Date(), build.locale));
  }

  /** A new entry at the end, made with the first cell that is typed into it: a refused one makes no entry. */
  begin(caller: Caller, registerId: string, entryId: string, dto: BeginEntryDto): Promise<EditOutcome> {
    return this.newValues.around(caller, () => this.tryBegin(caller, registerId, entryId, dto));
  }

  private async tryBegin(caller: Caller, registerId: string, entryId: string, dto: BeginEntryDto): Promise<EditOutcome> {
    const place = { houseId: caller.houseId, registerId };
    const begun = await this.database.transaction(async (trx): Promise<{ outcome: EditOutcome; proposes?: { register: RegisterBuild; cell: JudgedCell } } | undefined> => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      const field = fieldWithKey(register, dto.field);
      await this.places.lockOrder(trx, place);
      if ((await this.store.some(trx, place, [entryId])).size > 0) return undefined;
      const seen = await this.beginning(trx, build, register, undefined);
      const judgement = await this.judging.judgement(trx, build, register, withFollowers(register, field), true);
      const judged = await this.judgeAlone(trx, caller.houseId, field, dto, seen, judgement);
      const { verdict } = judged;
      if (verdict.verdict === 'refused') return { outcome: { verdict, entry: { id: entryId, version: 0, cells: {} } } };
      const plan = afterVerdict(register, seen, judged, judgement) ?? { cells: seen, cleared: [], kept: [], filled: [] };
      const cell: JudgedCell = { entry: entryId, field, verdict, cells: plan.cells };
      this.newValues.mustAdd([cell]);
      const entry = { id: entryId, version: 1, cells: plan.cells };
      const outcome: EditOutcome = { verdict, entry, cleared: plan.cleared, kept: plan.kept, filled: plan.filled };
      if (feedsCatalogs(build, registerId)) return { outcome, proposes: { register, cell } };
      await this.writing.insert(trx, caller, register, undefined, [entry], 'entry.inserted');
      await this.newValues.keepRequests(trx, caller, register, [cell]);
      return { outcome };
    });
    // Sent twice, or typed into before the first answer came: the entry is there.
    if (!begun) return this.editCell(caller, registerId, entryId, { ...dto, version: 1 });
    const { outcome, proposes } = begun;
    if (!proposes) return outcome;
    await this.writing.propose(caller, registerId, { act: 'insert', before: null, entries: [{ id: entryId, cells: proposes.cell.cells }] });
    await this.database.transaction((trx) => this.newValues.keepRequests(trx, caller, proposes.register, [proposes.cell]));
    return outcome;
  }

  /** Judges a cell in the transaction that stores it: nobody else stores its value meanwhile where the rule wants none twice. */
  private async judgeAlone(trx: Trx, houseId: string, field: FieldBuild, dto: BeginEntryDto, seen: Cells, judgement: Judgement): Promise<Judged> {
    const { verdict } = judgeCell(field, dto, seen, judgement);
    if (field.rule?.noRepeats && verdict.verdict === 'taken' && verdict.value !== '') await this.judging.holdValues(trx, [valueLock(field, verdict.value)]);
    return this.judgeOnce(trx, houseId, field, dto, seen, judgement);
  }

  async remove(caller: Caller, registerId: string, dto: DeleteEntriesDto): Promise<{ deleted: number }> {
    const now = await this.builds.now(caller.houseId);
    entryRegister(now, registerId, caller);
    if (feedsCatalogs(now, registerId)) {
      await this.writing.propose(caller, registerId, { act: 'delete', entries: [...new Set(dto.entries)] });
      return { deleted: new Set(dto.entries).size };
    }
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const locked = await this.store.lock(trx, place, dto.entries);
      if (locked.length < new Set(dto.entries).size) throw notFound('An entry to delete');
      return { deleted: await this.writing.remove(trx, caller, register, dto.entries, carriesOf(build, register)) };
    });
  }
}
