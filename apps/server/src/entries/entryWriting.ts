// Storing what was decided about entries: cells, counts, ledger rows and changes, in the caller's transaction.
import { Injectable } from '@nestjs/common';
import { carried, proposalOf, type Act, type Carry, type Cells } from '@dellum/core';
import type { Change, EntryView, Slip, WrittenCell } from '@dellum/contract';
import { registerOf } from '../build/build.service.js';
import type { HouseBuild, RegisterBuild } from '../build/build.store.js';
import { Counts, deltasOf, type Delta } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { Ledger, type LedgerRow } from '../ledger/ledger.js';
import { Changes, type Told } from '../live/changes.js';
import type { Caller } from '../people/guard.js';
import { notFound, ProblemError } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { EntriesStore } from './entries.store.js';

/** Beyond so many changed entries the stream says that the register changed instead of naming each. */
const mostCellChanges = 50;

/** In whose name entries are written; nobody's where a form is filled by a link. */
export interface Writer {
  readonly id: string | null;
  readonly houseId: string;
}

@Injectable()
export class EntryWriting {
  constructor(
    private readonly store: EntriesStore,
    private readonly counts: Counts,
    private readonly ledger: Ledger,
    private readonly changes: Changes,
    private readonly sources: SourcesService,
  ) {}

  /**
   * Entries of a register that feeds catalogs are values elsewhere: a change of them goes the way of any change of a source.
   * One that other entries depend on waits for an administrator.
   */
  async propose(caller: Caller, registerId: string, act: Act): Promise<void> {
    const { slip } = await this.sources.propose(caller, () => proposalOf({ what: 'act', registerId, act }));
    mustNotWait(slip);
  }

  /** The same in a transaction that holds the build lock already. */
  async proposeWithin(trx: Trx, caller: Caller, build: HouseBuild, registerId: string, act: Act): Promise<void> {
    const { slip } = await this.sources.proposeWithin(trx, caller, build, proposalOf({ what: 'act', registerId, act }));
    mustNotWait(slip);
  }

  /** Stores changed entries with their counts, ledger rows and changes. Returns all of them as they are now. */
  async cells(trx: Trx, caller: Writer, register: RegisterBuild, entries: ReadonlyMap<string, EntryView>, after: ReadonlyMap<string, Cells>, carries: readonly Carry[], actId?: number): Promise<EntryView[]> {
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const deltas: Delta[] = [];
    const rows: LedgerRow[] = [];
    const told: Told[] = [];
    const now: EntryView[] = [];
    const changed: { id: string; cells: Cells }[] = [];
    for (const [id, cells] of after) {
      const entry = entries.get(id)!;
      const before = carried(entry.cells, carries);
      const keys = [...fieldIds.keys()].filter((key) => before[key] !== cells[key]);
      const version = entry.version + (keys.length > 0 ? 1 : 0);
      now.push({ id, version, cells });
      if (keys.length === 0) continue;
      changed.push({ id, cells });
      deltas.push(...deltasOf(before, cells, fieldIds));
      for (const key of keys) {
        rows.push({ personId: caller.id, act: 'cell.written', registerId: register.id, entryId: id, field: key, entryVersion: version, from: before[key], to: cells[key], actId });
      }
      const body: Change = { kind: 'cells', registerId: register.id, entryId: id, version, cells: Object.fromEntries(keys.map((key) => [key, cells[key] ?? null])), by: caller.id ?? '' };
      told.push({ audience: 'everyone', body });
    }
    await this.store.write(trx, { houseId: caller.houseId, registerId: register.id }, changed);
    await this.counts.write(trx, caller.houseId, deltas);
    await this.ledger.write(trx, caller.houseId, rows);
    await this.changes.append(trx, caller.houseId, told.length <= mostCellChanges ? told : [registerChanged(register)]);
    return now;
  }

  /** Deletes entries. What they held, and where they stood, is kept in the ledger, so that nothing typed is lost with them. The order must be locked. */
  async remove(trx: Trx, caller: Writer, register: RegisterBuild, ids: readonly string[], carries: readonly Carry[], actId?: number): Promise<number> {
    const gone = await this.store.remove(trx, { houseId: caller.houseId, registerId: register.id }, ids);
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    await this.counts.write(trx, caller.houseId, gone.flatMap(({ cells }) => deltasOf(carried(cells, carries), {}, fieldIds)));
    await this.ledger.write(trx, caller.houseId, gone.map(({ id, cells, pos }) => ({ personId: caller.id, act: 'entry.deleted', registerId: register.id, entryId: id, from: pos, detail: carried(cells, carries), actId })));
    await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
    return gone.length;
  }

  /** Brings back entries where they stood. The order must be locked. */
  async putBack(trx: Trx, caller: Writer, register: RegisterBuild, entries: readonly { id: string; pos: string; cells: Cells }[], actId: number): Promise<void> {
    await this.store.putBack(trx, { houseId: caller.houseId, registerId: register.id }, entries);
    await this.noteMade(trx, caller, register, entries, 'entry.restored', actId);
  }

  /** New entries above `before`, or at the end, with all that they hold. The order of the register must be locked. */
  async insert(trx: Trx, caller: Writer, register: RegisterBuild, before: string | undefined, entries: readonly { id: string; cells: Cells }[], act: 'entry.inserted' | 'entry.restored', actId?: number): Promise<void> {
    await this.store.insert(trx, { houseId: caller.houseId, registerId: register.id }, before, entries);
    await this.noteMade(trx, caller, register, entries, act, actId);
  }

  private async noteMade(trx: Trx, caller: Writer, register: RegisterBuild, entries: readonly { id: string; cells: Cells }[], act: 'entry.inserted' | 'entry.restored', actId?: number): Promise<void> {
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    await this.counts.write(trx, caller.houseId, entries.flatMap(({ cells }) => deltasOf({}, cells, fieldIds)));
    await this.ledger.write(trx, caller.houseId, entries.map(({ id, cells }) => ({ personId: caller.id, act, registerId: register.id, entryId: id, detail: cells, actId })));
    await this.changes.append(trx, caller.houseId, [registerChanged(register)]);
  }
}

/** Sheets of entries only: what stands on a source sheet changes by acts. */
export function entryRegister(build: HouseBuild, registerId: string, caller: Caller): RegisterBuild {
  const register = registerOf(build, registerId, caller);
  if (register.source) throw notFound('This entry sheet');
  return register;
}

export const changedKeys = (before: Cells, after: Cells): string[] => [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((key) => before[key] !== after[key]);

/** Says to whoever enters data that the change waits, with what it would touch. */
function mustNotWait(slip: Slip | null): void {
  if (!slip) return;
  const [first] = slip.questions;
  const held = Object.values(first?.holds ?? {}).reduce((sum, count) => sum + count, 0);
  throw new ProblemError('slip-open', `${held} ${held === 1 ? 'entry holds' : 'entries hold'} “${first?.value ?? ''}” because of this value. The change waits until an administrator has said what becomes of them.`);
}

export const registerChanged = (register: RegisterBuild): Told => ({ audience: 'everyone', body: { kind: 'register', registerId: register.id } });

/** The cells that a change writes: each with the version that its entry has after it. */
export const writtenCells = (entry: EntryView, before: Cells, after: Cells): WrittenCell[] => changedKeys(before, after).map((field) => ({ entry: entry.id, field, version: entry.version + 1 }));
