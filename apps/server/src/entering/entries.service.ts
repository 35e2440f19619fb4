// Entries of the shared sheets: edited by the cell or the block, inserted and deleted.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { afterVerdict, carried, cellsOfNew, judgeEdit, unlessClosed, type Cells, type Edit, type Verdict } from '@dellum/core';
import {
  givenOf,
  type BeginEntryDto,
  type BlockOutcome,
  type DeleteEntriesDto,
  type EditCellDto,
  type EditOutcome,
  type EntryView,
  type InsertEntriesDto,
  type WriteBlockDto,
} from '@dellum/contract';
import { StructureService, feedsCatalogs, fieldWithKey } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { Database, holdBuild, type Reader, type Trx } from '../database/database.js';
import { todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { BlockJudgingService } from './blockJudging.service.js';
import { ClosingService } from './closing.service.js';
import { CellWriterService } from './cellWriter.service.js';
import { EntriesStore } from '../entries/entries.store.js';
import { changedKeys, EntryWriterService, Waits, writtenCells } from './entryWriter.service.js';
import { judgedCells, NewValuesService, type JudgedCell } from './newValues.service.js';
import { carriesOf, withFollowers, type Judgement } from '../entries/judging.js';
import { PlacesStore } from '../entries/places.store.js';
import { RepeatsService } from './repeats.service.js';
import { seenAs } from './takenBack.js';

/** How often an edit is judged anew when others write to the same entry. */
const mostTurns = 20;

@Injectable()
export class EntriesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly judging: BlockJudgingService,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writer: CellWriterService,
    private readonly repeats: RepeatsService,
    private readonly ledger: LedgerStore,
    private readonly writing: EntryWriterService,
    private readonly newValues: NewValuesService,
    private readonly closing: ClosingService,
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
    const register = enteredRegister(build, registerId, caller);
    // The hot path is for entries that are values nowhere else.
    if (feedsCatalogs(build, registerId)) return this.editValue(caller, registerId, entryId, dto);
    const field = fieldWithKey(register, dto.field);
    if (!found) throw notFound('This entry');
    const { entry } = found;
    const judgement = await this.judging.judgement(db, build, register, withFollowers(register, field), true, caller.role);
    const seen = carried(entry.cells, judgement.carries);
    const closed = (await this.closing.closedTo(db, build, register, [{ id: entryId, cells: seen }], caller))(entryId);
    const verdict = unlessClosed(await this.judgeOnce(db, caller.houseId, field, dto, seen, judgement), seen[field.key] ?? '', closed);
    if (verdict.verdict === 'refused') return { verdict, entry: { ...entry, cells: seen } };
    const plan = afterVerdict(register.fields, seen, field.key, verdict, judgement);
    if (!plan) return { verdict, entry: { ...entry, cells: seen } };
    if (dto.version < entry.version) await this.mustBeUnchanged(db, caller.houseId, entry, seen, field, dto.version);
    const cell: JudgedCell = { entry: entryId, field, verdict, cells: plan.cells };
    this.newValues.mustAdd([cell]);
    const keys = changedKeys(seen, plan.cells);
    const outcome: EditOutcome = {
      verdict,
      entry: { id: entryId, version: entry.version + 1, cells: plan.cells },
      cleared: plan.cleared,
      kept: plan.kept,
      filled: plan.filled,
      written: writtenCells(entry, seen, plan.cells),
    };
    const before = { ...entry, cells: seen };
    const alone = keys.length === 1 && !field.rule?.noRepeats && verdict.verdict !== 'requested';
    const written = alone
      ? await this.writer.write(caller, field, build.version, before, plan.cells)
      : await this.writeSeveral(caller, register, build, before, cell, judgement);
    return written ? outcome : undefined;
  }

  /** An edit of an entry that is a value elsewhere: judged and stored in one transaction. */
  private editValue(caller: Caller, registerId: string, entryId: string, dto: EditCellDto): Promise<EditOutcome> {
    return this.writing.enter(caller, registerId, async (at): Promise<EditOutcome | Waits> => {
      const { trx, build, register } = at;
      const field = fieldWithKey(register, dto.field);
      const [entry] = await this.store.lock(trx, { houseId: caller.houseId, registerId }, [entryId]);
      if (!entry) throw notFound('This entry');
      const judgement = await this.judging.judgement(trx, build, register, withFollowers(register, field), true, caller.role);
      const seen = carried(entry.cells, judgement.carries);
      const closed = (await this.closing.closedTo(trx, build, register, [{ id: entryId, cells: seen }], caller))(entryId);
      const verdict = unlessClosed(await this.judgeAlone(trx, caller.houseId, field, dto, seen, judgement), seen[field.key] ?? '', closed);
      const plan = afterVerdict(register.fields, seen, field.key, verdict, judgement);
      if (!plan) return { verdict, entry: { ...entry, cells: seen } };
      if (dto.version < entry.version) await this.mustBeUnchanged(trx, caller.houseId, entry, seen, field, dto.version);
      const cell: JudgedCell = { entry: entryId, field, verdict, cells: plan.cells };
      this.newValues.mustAdd([cell]);
      const now = await this.writing.change(at, caller, new Map([[entryId, entry]]), new Map([[entryId, plan.cells]]), judgement.carries);
      if (now instanceof Waits) return now;
      await this.newValues.keepRequests(trx, caller, register, [cell]);
      return {
        verdict,
        entry: now[0]!,
        cleared: plan.cleared,
        kept: plan.kept,
        filled: plan.filled,
        written: writtenCells(entry, seen, plan.cells),
      };
    });
  }

  /** Judges a cell; whether its value is a repeat is asked of the counts only where the rule wants to know. */
  private async judgeOnce(
    db: Reader,
    houseId: string,
    field: FieldBuild,
    dto: BeginEntryDto,
    seen: Cells,
    judgement: Judgement,
  ): Promise<Verdict> {
    const given = { ...givenOf(dto), confirmed: dto.confirmed };
    const verdict = judgeEdit(field, given, seen, judgement);
    if (!field.rule?.noRepeats || verdict.verdict !== 'taken' || verdict.value === '' || verdict.value === seen[field.key]) return verdict;
    const heldElsewhere = await this.repeats.look(db, houseId, [{ field, value: verdict.value }]);
    return judgeEdit(field, given, seen, { ...judgement, repeats: (_key, value, own) => heldElsewhere(field, value, own) });
  }

  /**
   * Stores an edit that changes several cells of the entry, one whose value nobody else may hold, or one that asks for a
   * value: in a transaction, since the hot path knows one cell. False when entry or build are not of now any more.
   */
  private async writeSeveral(
    caller: Caller,
    register: RegisterBuild,
    build: HouseBuild,
    before: EntryView,
    cell: JudgedCell,
    judgement: Judgement,
  ): Promise<boolean> {
    const { field, cells: after } = cell;
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      if ((await this.builds.at(trx, caller.houseId)).version !== build.version) return false;
      const value = after[field.key];
      if (field.rule?.noRepeats && value !== undefined && value !== before.cells[field.key]) {
        const heldElsewhere = await this.repeats.hold(trx, caller.houseId, [{ field, value }]);
        // Somebody else was first; judged anew, the edit is told so.
        if (heldElsewhere(field, value, before.cells[field.key] ?? '') && field.rule.others === 'refuse') return false;
      }
      const [entry] = await this.store.lock(trx, { houseId: caller.houseId, registerId: register.id }, [before.id]);
      if (!entry || entry.version !== before.version) return false;
      await this.writing.cells(trx, caller, register, new Map([[entry.id, entry]]), new Map([[entry.id, after]]), judgement.carries);
      await this.newValues.keepRequests(trx, caller, register, [cell]);
      return true;
    });
  }

  private async mustBeUnchanged(
    db: Reader,
    houseId: string,
    entry: EntryView,
    seen: Cells,
    field: FieldBuild,
    version: number,
  ): Promise<void> {
    const last = await this.ledger.lastChange(db, houseId, entry.id, field.key, version);
    if (!last) return;
    const value = seen[field.key] ?? '';
    const by = last.by ?? 'Dellum';
    const now = value === '' ? 'is blank' : `holds “${value}”`;
    throw new ProblemError('cell-changed', `${by} changed this ${field.heading} a moment ago; it ${now} now. Keep theirs, or take yours.`, {
      current: { value, version: entry.version, by },
    });
  }

  /** A pasted block: an outcome a cell, nothing refused is stored, all in one transaction. */
  writeBlock(caller: Caller, registerId: string, dto: WriteBlockDto): Promise<BlockOutcome> {
    return this.newValues.around(caller, () => this.tryBlock(caller, registerId, dto));
  }

  private tryBlock(caller: Caller, registerId: string, dto: WriteBlockDto): Promise<BlockOutcome> {
    return this.writing.enter(caller, registerId, async (at): Promise<BlockOutcome | Waits> => {
      const { trx, build, register } = at;
      const edits = dto.cells.map((cell): Edit => ({ entry: cell.entry, field: cell.field, ...givenOf(cell) }));
      const fields = new Map(dto.cells.map(({ field }) => [field, fieldWithKey(register, field)]));
      const needed = new Set([...fields.values()].flatMap((field) => withFollowers(register, field)));
      const judgement = await this.judging.judgement(trx, build, register, [...needed], dto.cells.length <= 200, caller.role);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map(
        (await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]),
      );
      if (dto.cells.some(({ entry }) => !entries.has(entry))) throw notFound('An entry of the block');
      const standing = seenAs(entries.values(), judgement.carries);
      const closed = await this.closing.closedTo(trx, build, register, standing, caller);
      const { outcomes, after } = await this.judging.block(trx, caller.houseId, register, edits, fields, entries, { ...judgement, closed });
      const cells = judgedCells(outcomes, fields, after);
      this.newValues.mustAdd(cells);
      const written = [...after].flatMap(([id, cells]) =>
        writtenCells(entries.get(id)!, carried(entries.get(id)!.cells, judgement.carries), cells),
      );
      const now = await this.writing.change(at, caller, entries, after, judgement.carries);
      if (now instanceof Waits) return now;
      await this.newValues.keepRequests(trx, caller, register, cells);
      return { outcomes, written, entries: now };
    });
  }

  /** New entries above `before`, or at the end; each cell begins as its rule says. */
  insert(caller: Caller, registerId: string, dto: InsertEntriesDto): Promise<{ entries: string[] }> {
    return this.writing.enter(caller, registerId, async (at): Promise<{ entries: string[] } | Waits> => {
      const { trx, build, register } = at;
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const ids = dto.ids ?? Array.from({ length: dto.count }, () => randomUUID());
      if (ids.length !== dto.count)
        throw new ProblemError('not-valid', `${ids.length} ids are given for ${dto.count} new entries.`, {
          faults: { ids: 'Give one id for each new entry.' },
        });
      const there = await this.store.some(trx, place, dto.ids ?? []);
      // Sent twice: they are there already.
      if (there.size === ids.length) return { entries: ids };
      if (there.size > 0)
        throw new ProblemError('not-valid', 'Some of the ids belong to entries that are there.', {
          faults: { ids: 'Give ids that no entry has.' },
        });
      const cells = await this.repeats.freshCells(
        trx,
        caller.houseId,
        register,
        await this.beginning(trx, build, register, dto.before),
        dto.count,
      );
      return (
        (await this.writing.add(
          at,
          caller,
          dto.before,
          ids.map((id) => ({ id, cells })),
        )) ?? { entries: ids }
      );
    });
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
    const begun = await this.writing.enter(caller, registerId, async (at): Promise<EditOutcome | undefined | Waits> => {
      const { trx, build, register } = at;
      const field = fieldWithKey(register, dto.field);
      await this.places.lockOrder(trx, place);
      if ((await this.store.some(trx, place, [entryId])).size > 0) return undefined;
      const seen = await this.repeats.freshCells(trx, caller.houseId, register, await this.beginning(trx, build, register, undefined), 1);
      const judgement = await this.judging.judgement(trx, build, register, withFollowers(register, field), true, caller.role);
      const verdict = await this.judgeAlone(trx, caller.houseId, field, dto, seen, judgement);
      if (verdict.verdict === 'refused') return { verdict, entry: { id: entryId, version: 0, cells: {} } };
      const plan = afterVerdict(register.fields, seen, field.key, verdict, judgement) ?? { cells: seen, cleared: [], kept: [], filled: [] };
      const cell: JudgedCell = { entry: entryId, field, verdict, cells: plan.cells };
      this.newValues.mustAdd([cell]);
      const waits = await this.writing.add(at, caller, undefined, [{ id: entryId, cells: plan.cells }]);
      if (waits) return waits;
      await this.newValues.keepRequests(trx, caller, register, [cell]);
      return {
        verdict,
        entry: { id: entryId, version: 1, cells: plan.cells },
        cleared: plan.cleared,
        kept: plan.kept,
        filled: plan.filled,
      };
    });
    // Sent twice, or typed into before the first answer came: the entry is there.
    return begun ?? this.editCell(caller, registerId, entryId, { ...dto, version: 1 });
  }

  /** Judges a cell in the transaction that stores it: nobody else stores its value meanwhile where the rule wants none twice. */
  private async judgeAlone(
    trx: Trx,
    houseId: string,
    field: FieldBuild,
    dto: BeginEntryDto,
    seen: Cells,
    judgement: Judgement,
  ): Promise<Verdict> {
    const verdict = judgeEdit(field, { ...givenOf(dto), confirmed: dto.confirmed }, seen, judgement);
    if (field.rule?.noRepeats && verdict.verdict === 'taken' && verdict.value !== '')
      await this.repeats.hold(trx, houseId, [{ field, value: verdict.value }]);
    return this.judgeOnce(trx, houseId, field, dto, seen, judgement);
  }

  remove(caller: Caller, registerId: string, dto: DeleteEntriesDto): Promise<{ deleted: number }> {
    return this.writing.enter(caller, registerId, async (at): Promise<{ deleted: number } | Waits> => {
      const place = { houseId: caller.houseId, registerId };
      const deleted = new Set(dto.entries).size;
      await this.places.lockOrder(at.trx, place);
      const carries = carriesOf(at.build, at.register);
      const entries = await this.store.lock(at.trx, place, dto.entries);
      if (entries.length < deleted) throw notFound('An entry to delete');
      await this.closing.mustBeOpen(at.trx, at.build, at.register, seenAs(entries, carries), caller);
      return (await this.writing.takeOut(at, caller, dto.entries, carries)) ?? { deleted };
    });
  }
}
