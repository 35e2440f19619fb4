// The only thing that stores entries of the shared sheets: cells, counts, ledger rows and changes, in one transaction with
// the judging, whether or not the entries are values elsewhere.
import { Injectable } from '@nestjs/common';
import { carried, proposalOf, type Act, type Carry, type Cells } from '@dellum/core';
import type { Change, EntryView, Slip, WrittenCell } from '@dellum/contract';
import { sql, type RawBuilder } from 'kysely';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CountsStore, deltasOf, type Delta } from '../counts/counts.store.js';
import { Database, holdBuild, lockBuild, type Trx } from '../database/database.js';
import { LedgerStore, type LedgerRow } from '../ledger/ledger.store.js';
import { ChangesStore, type Told } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { EntriesStore } from '../entries/entries.store.js';

/** Beyond so many changed entries the stream says that the register changed instead of naming each. */
const mostCellChanges = 50;

/** How often an act is begun anew because the register has begun, or ceased, to feed catalogs meanwhile. */
const mostTurns = 5;

/** An act of entering under way: its transaction, and the build, which stays as it is until the transaction ends. */
export interface Entering {
  readonly trx: Trx;
  readonly build: HouseBuild;
  readonly register: RegisterBuild;
}

/** The act changes values that other entries hold: it waits for an administrator, and nothing else of it is stored. */
export class Waits {
  constructor(readonly slip: Slip) {}
}

/** In whose name entries are written; nobody's where a form is filled by a link. */
export interface Writer {
  readonly id: string | null;
  readonly houseId: string;
}

/** Changed entries that are not stored yet. */
export interface PreparedCells {
  readonly houseId: string;
  /** All of them as they will be. */
  readonly now: EntryView[];
  /** Stores them; undefined where nothing changes. */
  readonly statement?: RawBuilder<unknown>;
  readonly told: readonly Told[];
}

@Injectable()
export class EntryWriterService {
  constructor(
    private readonly store: EntriesStore,
    private readonly counts: CountsStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly sources: SourcesService,
    private readonly database: Database,
    private readonly builds: StructureService,
  ) {}

  /**
   * Does an act of entering in one transaction, judging and storing, while the build stays as it is. Where the entries are
   * values elsewhere nobody else enters meanwhile. An act that waits is told after the slip is kept.
   */
  async enter<T>(caller: Caller, registerId: string, act: (at: Entering) => Promise<T | Waits>): Promise<T> {
    for (let turn = 0; turn < mostTurns; turn++) {
      const feeds = feedsCatalogs(await this.builds.now(caller.houseId), registerId);
      const done = await this.database.transaction(async (trx) => {
        await (feeds ? lockBuild : holdBuild)(trx, caller.houseId);
        const build = await this.builds.at(trx, caller.houseId);
        const register = enteredRegister(build, registerId, caller);
        // The lock was the wrong one: the register feeds catalogs by now, or feeds none any more.
        return feedsCatalogs(build, registerId) === feeds ? { outcome: await act({ trx, build, register }) } : undefined;
      });
      if (!done) continue;
      if (done.outcome instanceof Waits) throw waiting(done.outcome.slip);
      return done.outcome;
    }
    throw new ProblemError('internal', 'What the sheet feeds is being changed. Nothing was stored; try again.');
  }

  /** Entries of a register that feeds catalogs are values elsewhere: a change of them goes the way of any change of a source. */
  private async propose({ trx, build, register }: Entering, caller: Caller, act: Act): Promise<Waits | undefined> {
    const { slip } = await this.sources.proposeWithin(trx, caller, build, proposalOf({ what: 'act', registerId: register.id, act }));
    return slip ? new Waits(slip) : undefined;
  }

  /** Stores changed entries. Returns all of them as they are now. */
  async change(
    at: Entering,
    caller: Caller,
    entries: ReadonlyMap<string, EntryView>,
    after: ReadonlyMap<string, Cells>,
    carries: readonly Carry[],
  ): Promise<EntryView[] | Waits> {
    if (!feedsCatalogs(at.build, at.register.id)) return this.cells(at.trx, caller, at.register, entries, after, carries);
    const changed = [...after].map(([id, cells]) => ({ id, cells, keys: changedKeys(carried(entries.get(id)!.cells, carries), cells) }));
    const cells = changed.flatMap(({ id, cells: now, keys }) => keys.map((field) => ({ entry: id, field, text: now[field] ?? '' })));
    const waits = cells.length > 0 ? await this.propose(at, caller, { act: 'write', cells }) : undefined;
    return (
      waits ??
      changed.map(({ id, cells: now, keys }) => ({ id, version: entries.get(id)!.version + (keys.length > 0 ? 1 : 0), cells: now }))
    );
  }

  /** Puts new entries above `before`, or at the end. The order of the register must be locked. */
  async add(
    at: Entering,
    caller: Caller,
    before: string | undefined,
    entries: readonly { id: string; cells: Cells }[],
    act: 'entry.inserted' | 'entry.restored' = 'entry.inserted',
  ): Promise<Waits | undefined> {
    // What a new entry begins with may be a value elsewhere; a blank one is none.
    const isValue = feedsCatalogs(at.build, at.register.id) && entries.some(({ cells }) => Object.keys(cells).length > 0);
    if (isValue) return this.propose(at, caller, { act: 'insert', before: before ?? null, entries });
    await this.insert(at.trx, caller, at.register, before, entries, act);
    return undefined;
  }

  /** Deletes entries. The order of the register must be locked. */
  async takeOut(at: Entering, caller: Caller, ids: readonly string[], carries: readonly Carry[]): Promise<Waits | undefined> {
    if (feedsCatalogs(at.build, at.register.id)) return this.propose(at, caller, { act: 'delete', entries: [...new Set(ids)] });
    await this.remove(at.trx, caller, at.register, ids, carries);
    return undefined;
  }

  /** Stores changed entries with their counts, ledger rows and changes. Returns all of them as they are now. */
  async cells(trx: Trx, ...changed: Parameters<EntryWriterService['prepared']>): Promise<EntryView[]> {
    const prepared = this.prepared(...changed);
    await this.write(trx, prepared);
    return prepared.now;
  }

  /** What stores changed entries with their counts, ledger rows and changes. `after`: what they are to hold. */
  prepared(
    caller: Writer,
    register: RegisterBuild,
    entries: ReadonlyMap<string, EntryView>,
    after: ReadonlyMap<string, Cells>,
    carries: readonly Carry[],
    actId?: number,
  ): PreparedCells {
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const deltas: Delta[] = [];
    const rows: LedgerRow[] = [];
    const told: Told[] = [];
    const now: EntryView[] = [];
    const changed: { id: string; cells: Cells }[] = [];
    for (const [id, cells] of after) {
      const entry = entries.get(id)!;
      const before = carried(entry.cells, carries);
      const keys = register.fields.flatMap(({ key }) => (before[key] === cells[key] ? [] : [key]));
      const version = entry.version + (keys.length > 0 ? 1 : 0);
      now.push({ id, version, cells });
      if (keys.length === 0) continue;
      changed.push({ id, cells });
      deltas.push(...deltasOf(before, cells, fieldIds));
      rows.push({
        personId: caller.id,
        act: 'cell.written',
        registerId: register.id,
        entryId: id,
        entryVersion: version,
        ...writtenInto(keys, before, cells),
        actId,
      });
      if (told.length > mostCellChanges) continue;
      const body: Change = {
        kind: 'cells',
        registerId: register.id,
        entryId: id,
        version,
        cells: Object.fromEntries(keys.map((key) => [key, cells[key] ?? null])),
        by: caller.id ?? '',
      };
      told.push({ audience: 'everyone', body });
    }
    const parts = [
      this.store.writing({ houseId: caller.houseId, registerId: register.id }, changed),
      ...this.counts.writing(caller.houseId, deltas),
      this.ledger.writing(caller.houseId, rows),
    ];
    return {
      houseId: caller.houseId,
      now,
      // One statement: whoever has more to judge goes on while the database carries it out.
      ...(changed.length > 0 && {
        statement: sql`with ${sql.join(parts.map((part, at) => sql`${sql.id(`part${at}`)} as (${part})`))} select`,
      }),
      told: told.length <= mostCellChanges ? told : [registerChanged(register)],
    };
  }

  /** Stores what is prepared. */
  async write(trx: Trx, { houseId, statement, told }: PreparedCells): Promise<void> {
    if (!statement) return;
    await statement.execute(trx);
    await this.changes.append(trx, houseId, told);
  }

  /**
   * Deletes entries. What they held, and where they stood, is kept in the ledger, so that nothing typed is lost with them. The order must
   * be locked.
   */
  async remove(
    trx: Trx,
    caller: Writer,
    register: RegisterBuild,
    ids: readonly string[],
    carries: readonly Carry[],
    actId?: number,
  ): Promise<number> {
    const gone = await this.store.remove(trx, { houseId: caller.houseId, registerId: register.id }, ids);
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    await this.counts.write(
      trx,
      caller.houseId,
      gone.flatMap(({ cells }) => deltasOf(carried(cells, carries), {}, fieldIds)),
    );
    await this.ledger.write(
      trx,
      caller.houseId,
      gone.map(({ id, version, cells, pos }) => ({
        personId: caller.id,
        act: 'entry.deleted',
        registerId: register.id,
        entryId: id,
        entryVersion: version,
        from: pos,
        detail: carried(cells, carries),
        actId,
      })),
    );
    await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
    return gone.length;
  }

  /** Brings back entries where they stood. The order must be locked. */
  async putBack(
    trx: Trx,
    caller: Writer,
    register: RegisterBuild,
    entries: readonly { id: string; pos: string; cells: Cells }[],
    actId: number,
  ): Promise<void> {
    await this.store.putBack(trx, { houseId: caller.houseId, registerId: register.id }, entries);
    await this.noteMade(trx, caller, register, entries, 'entry.restored', actId);
  }

  /** New entries above `before`, or at the end, with all that they hold. The order of the register must be locked. */
  async insert(
    trx: Trx,
    caller: Writer,
    register: RegisterBuild,
    before: string | undefined,
    entries: readonly { id: string; cells: Cells }[],
    act: 'entry.inserted' | 'entry.restored',
    actId?: number,
  ): Promise<void> {
    await this.store.insert(trx, { houseId: caller.houseId, registerId: register.id }, before, entries, act === 'entry.restored');
    await this.noteMade(trx, caller, register, entries, act, actId);
  }

  private async noteMade(
    trx: Trx,
    caller: Writer,
    register: RegisterBuild,
    entries: readonly { id: string; cells: Cells }[],
    act: 'entry.inserted' | 'entry.restored',
    actId?: number,
  ): Promise<void> {
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    await this.counts.write(
      trx,
      caller.houseId,
      entries.flatMap(({ cells }) => deltasOf({}, cells, fieldIds)),
    );
    await this.ledger.write(
      trx,
      caller.houseId,
      entries.map(({ id, cells }) => ({ personId: caller.id, act, registerId: register.id, entryId: id, detail: cells, actId })),
    );
    await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
  }
}

export const changedKeys = (before: Cells, after: Cells): string[] =>
  [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((key) => before[key] !== after[key]);

/** Says to whoever enters data that the change waits, with what it would touch. */
function waiting(slip: Slip): ProblemError {
  const [first] = slip.questions;
  const count = (counts: readonly number[]) => counts.reduce((sum, one) => sum + one, 0);
  if (!first)
    return new ProblemError(
      'slip-open',
      `${count(slip.outside.map(({ entries }) => entries))} entries elsewhere would be outside by this. The change waits until an administrator has said whether it is meant.`,
    );
  const held = count(Object.values(first.holds));
  return new ProblemError(
    'slip-open',
    `${held} ${held === 1 ? 'entry holds' : 'entries hold'} “${first.value}” because of this value. The change waits until an administrator has said what becomes of them.`,
  );
}

/** What was written into some fields of an entry, as one row of the ledger says it. */
function writtenInto(keys: readonly string[], before: Cells, after: Cells): Pick<LedgerRow, 'field' | 'from' | 'to' | 'fields'> {
  const [field, ...others] = keys as [string, ...string[]];
  if (others.length === 0) return { field, from: before[field], to: after[field] };
  return { fields: Object.fromEntries(keys.map((key) => [key, [before[key] ?? null, after[key] ?? null]])) };
}

export const registerChanged = (register: RegisterBuild): Told => ({
  audience: 'everyone',
  body: { kind: 'register', registerId: register.id },
});

/** The cells that a change writes: each with the version that its entry has after it. */
export const writtenCells = (entry: EntryView, before: Cells, after: Cells): WrittenCell[] =>
  changedKeys(before, after).map((field) => ({ entry: entry.id, field, version: entry.version + 1 }));
