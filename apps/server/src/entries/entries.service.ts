// Entries of the shared sheets: read by the page, edited by the cell or the block, inserted and deleted.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { canBeOutside, carried, cellsOfNew, proposalOf, readsOf, withTexts, type Act, type Cells, type Verdict } from '@dellum/core';
import type { BlockOutcome, Change, DeleteEntriesDto, EditCellDto, EditOutcome, EntryPage, EntryView, HeldIn, InsertEntriesDto, PageQueryDto, RestoreEntriesDto, Slip, TakeBackCellsDto, TakenBack, WriteBlockDto } from '@dellum/contract';
import { sql } from 'kysely';
import { BuildService, feedsCatalogs, fieldWithKey, registerOf } from '../build/build.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../build/build.store.js';
import { CompiledCatalogs } from '../catalogs/compiled.service.js';
import { countKey, Counts, deltasOf, type Delta } from '../counts/counts.js';
import { Outside } from '../counts/outside.js';
import { Database, holdBuild, type Reader, type Trx } from '../database/database.js';
import { todayOf } from '../houses/houses.service.js';
import { Ledger, type LedgerRow } from '../ledger/ledger.js';
import { Changes, type Told } from '../live/changes.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { CellWriter } from './cellWriter.js';
import { EntriesStore, type HoldsOneOf } from './entries.store.js';
import { afterVerdict, carriesOf, catalogsOf, cellJudges, depthIn, judgeCell, withFollowers, type Judged, type Judgement } from './judging.js';
import { PlacesStore } from './places.store.js';

/** Beyond so many changed entries the stream says that the register changed instead of naming each. */
const mostCellChanges = 50;
/** How often an edit is judged anew when others write to the same entry. */
const mostTurns = 20;

@Injectable()
export class EntriesService {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly catalogs: CompiledCatalogs,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writer: CellWriter,
    private readonly counts: Counts,
    private readonly outside: Outside,
    private readonly ledger: Ledger,
    private readonly changes: Changes,
    private readonly sources: SourcesService,
  ) {}

  async page(caller: Caller, registerId: string, query: PageQueryDto): Promise<EntryPage> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const place = { houseId: caller.houseId, registerId };
    const wanted = await this.wantedBy(db, build, register, query);
    const { total, entries } = wanted
      ? await this.store.pageOfHolding(db, place, wanted, query.from, query.count)
      : { total: await this.places.total(db, place), entries: await this.store.page(db, place, query.from, query.count) };
    const carries = carriesOf(build, register);
    return { from: query.from, total, entries: entries.map((entry) => ({ ...entry, cells: carried(entry.cells, carries) })) };
  }

  /** Which entries are asked for; undefined for all. */
  private async wantedBy(db: Reader, build: HouseBuild, register: RegisterBuild, { outside, field, value = '' }: PageQueryDto): Promise<HoldsOneOf | undefined> {
    if (outside) return this.outsideValues(db, build, register, outside);
    if (field === undefined) return undefined;
    const { key } = fieldWithKey(register, field);
    const notReached = carriesOf(build, register).filter((carry) => carry.field === key && carry.to === value).map(({ from }) => from);
    return [{ keys: [key], holdings: [value === '' ? null : value, ...notReached].map((held) => [held]) }];
  }

  /** Every field of the entry sheets in which entries hold the value. */
  async heldIn(caller: Caller, value: string): Promise<HeldIn[]> {
    const build = await this.builds.now(caller.houseId);
    const fields = [...build.fields.values()].filter(({ registerId }) => !build.registers.get(registerId)!.source).map(({ id }) => id);
    const counts = await this.counts.ofValues(this.database.kysely, caller.houseId, fields, [countKey(value)]);
    return [...counts].flatMap(([fieldId, held]) => [...held.values()].map((entries) => ({ fieldId, entries }))).filter(({ entries }) => entries > 0);
  }

  /** What is outside, by field, as rows hold it; computed from the distinct values, never stored. */
  private async outsideValues(db: Reader, build: HouseBuild, register: RegisterBuild, which: string): Promise<HoldsOneOf> {
    const fields = (which === '*' ? register.fields : [fieldWithKey(register, which)]).filter(canBeOutside);
    const found = await this.outside.of(db, build, fields);
    const carries = carriesOf(build, register);
    return fields.flatMap((field) => {
      const { outside } = found.get(field.id)!;
      const keys = [field.key, ...readsOf(field.rule)];
      const alone = keys.length === 1;
      // Counts know a value by its new spelling at once; rows that a correction has not reached yet still hold the old one.
      const notReached = alone ? carries.filter((carry) => carry.field === field.key && outside.some(({ cells }) => cells[field.key] === carry.to)).map(({ from }) => ({ [field.key]: from })) : [];
      return [{ keys, holdings: [...outside.map(({ cells }) => cells), ...notReached].map((cells) => keys.map((key) => cells[key] ?? null)) }];
    });
  }

  private async judgement(db: Reader, build: HouseBuild, register: RegisterBuild, fields: readonly FieldBuild[], suggest: boolean): Promise<Judgement> {
    const catalogs = await this.catalogs.some(db, build, catalogsOf(fields));
    return { locale: build.locale, catalogs, carries: carriesOf(build, register), suggest, today: todayOf(new Date()), fields: register.fields };
  }

  /**
   * One cell edited by a clerk: judged with authority, stored, counted, recorded and told. It is judged on what was read
   * and stored only if entry and build are still the same; otherwise it is judged anew.
   */
  async editCell(caller: Caller, registerId: string, entryId: string, dto: EditCellDto): Promise<EditOutcome> {
    for (let turn = 0; turn < mostTurns; turn++) {
      const outcome = await this.tryEdit(caller, registerId, entryId, dto);
      if (outcome) return outcome;
    }
    throw new ProblemError('internal', 'Many people are writing to this entry at once. Nothing was stored; try again.');
  }

  private async tryEdit(caller: Caller, registerId: string, entryId: string, dto: EditCellDto): Promise<EditOutcome | undefined> {
    const db = this.database.kysely;
    const found = await this.store.withBuild(db, { houseId: caller.houseId, registerId }, entryId);
    const build = await this.builds.at(db, caller.houseId, found?.build);
    const register = this.entryRegister(build, registerId, caller);
    const field = fieldWithKey(register, dto.field);
    if (!found) throw notFound('This entry');
    const { entry } = found;
    const judgement = await this.judgement(db, build, register, withFollowers(register, field), true);
    const seen = carried(entry.cells, judgement.carries);
    const judged = await this.judgeOnce(db, caller.houseId, field, dto, seen, judgement);
    const { verdict } = judged;
    if (verdict.verdict === 'refused') return { verdict, entry: { ...entry, cells: seen } };
    if (dto.version < entry.version) await this.mustBeUnchanged(db, caller.houseId, entry, seen, field, dto.version);
    const plan = afterVerdict(register, seen, judged, judgement);
    if (!plan) return { verdict, entry: { ...entry, cells: seen } };
    const keys = changedKeys(seen, plan.cells);
    const outcome: EditOutcome = { verdict, entry: { id: entryId, version: entry.version + 1, cells: plan.cells }, cleared: plan.cleared, kept: plan.kept, filled: plan.filled, written: keys.map((key) => ({ entry: entryId, field: key, version: entry.version + 1 })) };
    if (feedsCatalogs(build, registerId)) {
      await this.proposeAct(caller, registerId, { act: 'write', cells: keys.map((key) => ({ entry: entryId, field: key, text: plan.cells[key] ?? '' })) });
      return outcome;
    }
    const before = { ...entry, cells: seen };
    const written = keys.length === 1 && !field.rule?.noRepeats ? await this.writer.write(caller, field, build.version, before, plan.cells) : await this.writeSeveral(caller, register, field, build, before, plan.cells, judgement);
    return written ? outcome : undefined;
  }

  /** Judges a cell; whether its value is a repeat is asked of the counts only where the rule wants to know. */
  private async judgeOnce(db: Reader, houseId: string, field: FieldBuild, dto: EditCellDto, seen: Cells, judgement: Judgement): Promise<Judged> {
    const judged = judgeCell(field, dto, seen, judgement);
    if (!field.rule?.noRepeats || judged.verdict.verdict !== 'taken' || judged.verdict.value === '' || judged.verdict.value === seen[field.key]) return judged;
    const held = await this.counts.ofValues(db, houseId, [field.id], [countKey(judged.verdict.value)]);
    const repeated = (held.get(field.id)?.size ?? 0) > 0;
    return judgeCell(field, { ...dto, repeats: () => repeated }, seen, judgement);
  }

  /**
   * Stores an edit that changes several cells of the entry, or one whose value nobody else may hold: in a transaction, since
   * the hot path knows one cell. False when entry or build are not of now any more.
   */
  private async writeSeveral(caller: Caller, register: RegisterBuild, field: FieldBuild, build: HouseBuild, before: EntryView, after: Cells, judgement: Judgement): Promise<boolean> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      if ((await this.builds.at(trx, caller.houseId)).version !== build.version) return false;
      const value = after[field.key];
      if (field.rule?.noRepeats && value !== undefined && value !== before.cells[field.key]) {
        await sql`select pg_advisory_xact_lock(hashtextextended(${`${field.id} ${value}`}, 1))`.execute(trx);
        const held = await this.counts.ofValues(trx, caller.houseId, [field.id], [countKey(value)]);
        // Somebody else was first; judged anew, the edit is told so.
        if ((held.get(field.id)?.size ?? 0) > 0 && field.rule.others === 'refuse') return false;
      }
      const [entry] = await this.store.lock(trx, { houseId: caller.houseId, registerId: register.id }, [before.id]);
      if (!entry || entry.version !== before.version) return false;
      await this.writeEntries(trx, caller, register, new Map([[entry.id, entry]]), new Map([[entry.id, after]]), judgement);
      return true;
    });
  }

  /**
   * Entries of a register that feeds catalogs are values elsewhere: a change of them goes the way of any change of a source.
   * One that other entries depend on waits for an administrator.
   */
  private async proposeAct(caller: Caller, registerId: string, act: Act): Promise<void> {
    const { slip } = await this.sources.propose(caller, () => proposalOf({ what: 'act', registerId, act }));
    mustNotWait(slip);
  }

  /** Sheets of entries only: what stands on a source sheet changes by acts. */
  private entryRegister(build: HouseBuild, registerId: string, caller: Caller): RegisterBuild {
    const register = registerOf(build, registerId, caller);
    if (register.source) throw notFound('This entry sheet');
    return register;
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
  async writeBlock(caller: Caller, registerId: string, dto: WriteBlockDto): Promise<BlockOutcome> {
    const judged = await this.database.transaction(async (trx): Promise<BlockOutcome & { before?: ReadonlyMap<string, EntryView> }> => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = this.entryRegister(build, registerId, caller);
      const fields = new Map(dto.cells.map(({ field }) => [field, fieldWithKey(register, field)]));
      const needed = new Set([...fields.values()].flatMap((field) => withFollowers(register, field)));
      const judgement = await this.judgement(trx, build, register, [...needed], dto.cells.length <= 200);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map((await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]));
      if (dto.cells.some(({ entry }) => !entries.has(entry))) throw notFound('An entry of the block');
      const { outcomes, after } = await this.judgeBlock(trx, caller.houseId, register, dto.cells, fields, entries, judgement);
      const written = [...after].flatMap(([id, cells]) => changedKeys(carried(entries.get(id)!.cells, judgement.carries), cells).map((field) => ({ entry: id, field, version: entries.get(id)!.version + 1 })));
      if (feedsCatalogs(build, registerId)) return { outcomes, written, entries: [...after].map(([id, cells]) => ({ id, version: entries.get(id)!.version + 1, cells })), before: entries };
      return { outcomes, written, entries: await this.writeEntries(trx, caller, register, entries, after, judgement) };
    });
    const { before, ...outcome } = judged;
    if (!before) return outcome;
    const cells = outcome.entries.flatMap(({ id, cells: now }) => changedKeys(before.get(id)!.cells, now).map((field) => ({ entry: id, field, text: now[field] ?? '' })));
    if (cells.length > 0) await this.proposeAct(caller, registerId, { act: 'write', cells });
    return outcome;
  }

  /** Judges the cells of a block, parents before their children; what a cell clears or fills outside the block goes with it. */
  private async judgeBlock(trx: Trx, houseId: string, register: RegisterBuild, cells: WriteBlockDto['cells'], fields: ReadonlyMap<string, FieldBuild>, entries: ReadonlyMap<string, EntryView>, judgement: Judgement) {
    const places = cells.map((cell, place) => ({ cell, place, field: fields.get(cell.field)! })).sort((a, b) => depthIn(a.field) - depthIn(b.field));
    const repeats = await this.repeatsIn(trx, houseId, places, entries, judgement);
    const outcomes: { entry: string; field: string; verdict: Verdict }[] = [];
    const after = new Map<string, Cells>();
    const judgeOf = cellJudges(judgement);
    for (const { cell, place, field } of places) {
      const before = after.get(cell.entry) ?? carried(entries.get(cell.entry)!.cells, judgement.carries);
      const judged = judgeOf(field, { text: cell.text, repeats: repeats(field, before[field.key]) }, before);
      outcomes[place] = { entry: cell.entry, field: cell.field, verdict: judged.verdict };
      after.set(cell.entry, afterVerdict(register, before, judged, judgement)?.cells ?? before);
    }
    return { outcomes, after };
  }

  /** For fields without repeats: what entries hold already, and what the block itself brings twice. */
  private async repeatsIn(trx: Trx, houseId: string, places: readonly { cell: { text: string; entry: string }; field: FieldBuild }[], entries: ReadonlyMap<string, EntryView>, judgement: Judgement) {
    const unique = places.filter(({ field }) => field.rule?.noRepeats);
    const wanted = unique.flatMap(({ cell, field }) => {
      const { verdict } = judgeCell(field, cell, carried(entries.get(cell.entry)!.cells, judgement.carries), judgement);
      return verdict.verdict === 'taken' && verdict.value !== '' ? [{ field, value: verdict.value }] : [];
    });
    const held = wanted.length === 0 ? new Map<string, Map<string, number>>() : await this.counts.ofValues(trx, houseId, [...new Set(wanted.map(({ field }) => field.id))], [...new Set(wanted.map(({ value }) => countKey(value)))]);
    const brought = new Set<string>();
    return (field: FieldBuild, before: string | undefined) => (value: string) => {
      const key = `${field.id} ${value}`;
      if (value === before) return false;
      if ((held.get(field.id)?.has(countKey(value)) ?? false) || brought.has(key)) return true;
      brought.add(key);
      return false;
    };
  }

  /** Stores changed entries with their counts, ledger rows and changes. Returns all of them as they are now. */
  private async writeEntries(trx: Trx, caller: Caller, register: RegisterBuild, entries: ReadonlyMap<string, EntryView>, after: ReadonlyMap<string, Cells>, judgement: Judgement): Promise<EntryView[]> {
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const deltas: Delta[] = [];
    const rows: LedgerRow[] = [];
    const told: Told[] = [];
    const now: EntryView[] = [];
    const changed: { id: string; cells: Cells }[] = [];
    for (const [id, cells] of after) {
      const entry = entries.get(id)!;
      const before = carried(entry.cells, judgement.carries);
      const keys = [...fieldIds.keys()].filter((key) => before[key] !== cells[key]);
      const version = entry.version + (keys.length > 0 ? 1 : 0);
      now.push({ id, version, cells });
      if (keys.length === 0) continue;
      changed.push({ id, cells });
      deltas.push(...deltasOf(before, cells, fieldIds));
      for (const key of keys) {
        rows.push({ personId: caller.id, act: 'cell.written', registerId: register.id, entryId: id, field: key, entryVersion: version, from: before[key], to: cells[key] });
      }
      const body: Change = { kind: 'cells', registerId: register.id, entryId: id, version, cells: Object.fromEntries(keys.map((key) => [key, cells[key] ?? null])), by: caller.id };
      told.push({ audience: 'everyone', body });
    }
    await this.store.write(trx, { houseId: caller.houseId, registerId: register.id }, changed);
    await this.counts.write(trx, caller.houseId, deltas);
    await this.ledger.write(trx, caller.houseId, rows);
    await this.changes.append(trx, caller.houseId, told.length <= mostCellChanges ? told : [registerChanged(register)]);
    return now;
  }

  /** New entries above `before`, or at the end; each cell begins as its rule says. */
  async insert(caller: Caller, registerId: string, dto: InsertEntriesDto): Promise<{ entries: string[] }> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = this.entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const asAbove = register.fields.some(({ rule }) => rule?.begins.with === 'above');
      const above = asAbove ? await this.store.above(trx, place, dto.before) : undefined;
      const cells = cellsOfNew(register.fields, above && carried(above.cells, carriesOf(build, register)), todayOf(new Date()));
      const entries = Array.from({ length: dto.count }, () => ({ id: randomUUID(), cells }));
      await this.store.insert(trx, place, dto.before, entries);
      const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
      await this.counts.write(trx, caller.houseId, entries.flatMap(() => deltasOf({}, cells, fieldIds)));
      await this.ledger.write(trx, caller.houseId, entries.map(({ id }) => ({ personId: caller.id, act: 'entry.inserted', registerId, entryId: id, detail: cells })));
      await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
      return { entries: entries.map(({ id }) => id) };
    });
  }

  /**
   * Takes back cells that the caller has written: each gets what it held before, unless somebody has changed it since. It
   * is not judged: what a cell held it may take back.
   */
  takeBack(caller: Caller, registerId: string, dto: TakeBackCellsDto): Promise<TakenBack> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = this.entryRegister(build, registerId, caller);
      if (feedsCatalogs(build, registerId)) throw new ProblemError('in-use', 'These entries are values elsewhere; change them by hand, so that what depends on them is asked about.', { users: [] });
      const judgement = await this.judgement(trx, build, register, [], false);
      const place = { houseId: caller.houseId, registerId };
      const entries = new Map((await this.store.lock(trx, place, [...new Set(dto.cells.map(({ entry }) => entry))])).map((entry) => [entry.id, entry]));
      const wrote = await this.ledger.writtenBy(trx, caller, registerId, dto.cells);
      const after = new Map<string, Cells>();
      let taken = 0;
      for (const { entryId, field, from, to } of wrote) {
        const entry = entries.get(entryId);
        if (!entry || !register.fields.some(({ key }) => key === field)) continue;
        const cells = after.get(entryId) ?? carried(entry.cells, judgement.carries);
        const seen = (text: string | null) => (text === null ? '' : (carried({ [field]: text }, judgement.carries)[field] ?? ''));
        if ((cells[field] ?? '') !== seen(to)) continue;
        taken++;
        after.set(entryId, withTexts(cells, [[field, seen(from)]]));
      }
      const written = [...after].flatMap(([id, cells]) => changedKeys(carried(entries.get(id)!.cells, judgement.carries), cells).map((field) => ({ entry: id, field, version: entries.get(id)!.version + 1 })));
      return { entries: await this.writeEntries(trx, caller, register, entries, after, judgement), written, changed: dto.cells.length - taken };
    });
  }

  /** Brings back entries that the caller has deleted, with all they held. */
  restore(caller: Caller, registerId: string, dto: RestoreEntriesDto): Promise<{ entries: string[] }> {
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = this.entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const there = new Set((await this.store.lock(trx, place, dto.entries)).map(({ id }) => id));
      const deleted = await this.ledger.deletedBy(trx, caller, registerId, dto.entries.filter((id) => !there.has(id)));
      const keys = new Set(register.fields.map(({ key }) => key));
      const entries = dto.entries.flatMap((id) => {
        const cells = deleted.get(id);
        return cells ? [{ id, cells: Object.fromEntries(Object.entries(cells).filter(([key]) => keys.has(key))) as Cells }] : [];
      });
      if (entries.length === 0) throw notFound('An entry that you deleted');
      await this.store.insert(trx, place, dto.before, entries);
      const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
      await this.counts.write(trx, caller.houseId, entries.flatMap(({ cells }) => deltasOf({}, cells, fieldIds)));
      await this.ledger.write(trx, caller.houseId, entries.map(({ id, cells }) => ({ personId: caller.id, act: 'entry.restored', registerId, entryId: id, detail: cells })));
      await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
      return { entries: entries.map(({ id }) => id) };
    });
  }

  async remove(caller: Caller, registerId: string, dto: DeleteEntriesDto): Promise<{ deleted: number }> {
    const now = await this.builds.now(caller.houseId);
    this.entryRegister(now, registerId, caller);
    if (feedsCatalogs(now, registerId)) {
      await this.proposeAct(caller, registerId, { act: 'delete', entries: [...new Set(dto.entries)] });
      return { deleted: new Set(dto.entries).size };
    }
    return this.database.transaction(async (trx) => {
      await holdBuild(trx, caller.houseId);
      const build = await this.builds.at(trx, caller.houseId);
      const register = this.entryRegister(build, registerId, caller);
      const place = { houseId: caller.houseId, registerId };
      await this.places.lockOrder(trx, place);
      const locked = await this.store.lock(trx, place, dto.entries);
      if (locked.length < new Set(dto.entries).size) throw notFound('An entry to delete');
      const gone = await this.store.remove(trx, place, dto.entries);
      const carries = carriesOf(build, register);
      const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
      await this.counts.write(trx, caller.houseId, gone.flatMap(({ cells }) => deltasOf(carried(cells, carries), {}, fieldIds)));
      // What an entry held is kept in the ledger, so that nothing typed is lost with it.
      await this.ledger.write(trx, caller.houseId, gone.map(({ id, cells }) => ({ personId: caller.id, act: 'entry.deleted', registerId, entryId: id, detail: cells })));
      await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
      return { deleted: gone.length };
    });
  }
}

const changedKeys = (before: Cells, after: Cells): string[] => [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((key) => before[key] !== after[key]);

/** Says to whoever enters data that the change waits, with what it would touch. */
function mustNotWait(slip: Slip | null): void {
  if (!slip) return;
  const [first] = slip.questions;
  const held = Object.values(first?.holds ?? {}).reduce((sum, count) => sum + count, 0);
  throw new ProblemError('slip-open', `${held} ${held === 1 ? 'entry holds' : 'entries hold'} “${first?.value ?? ''}” because of this value. The change waits until an administrator has said what becomes of them.`);
}

const registerChanged = (register: RegisterBuild): Told => ({ audience: 'everyone', body: { kind: 'register', registerId: register.id } });
