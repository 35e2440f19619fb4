// What taking back makes of entries, by the ledger: a cell gets what it held, unless somebody has changed it since.
import { carried, isReadOnly, withTexts, type Carry, type Cells } from '@dellum/core';
import type { EntryView } from '@dellum/contract';
import type { RegisterBuild } from '../structure/structure.store.js';
import type { LedgerDetail } from '../database/tables.js';

/** A cell as the ledger has it: what it held before, and what was written. */
export interface Wrote {
  readonly entryId: string;
  readonly field: string | null;
  readonly from: string | null;
  readonly to: string | null;
}

/** The entries after taking back, and how many cells that are. `designs`: whoever takes back may change what others only see. */
export function takenBack(
  register: RegisterBuild,
  wrote: readonly Wrote[],
  entries: ReadonlyMap<string, EntryView>,
  carries: readonly Carry[],
  designs: boolean,
): { after: Map<string, Cells>; taken: number } {
  const fields = new Map(register.fields.map((field) => [field.key, field]));
  const after = new Map<string, Cells>();
  let taken = 0;
  for (const { entryId, field, from, to } of wrote) {
    const entry = entries.get(entryId);
    const own = fields.get(field ?? '');
    if (!entry || field === null || !own) continue;
    const cells = after.get(entryId) ?? carried(entry.cells, carries);
    if (isReadOnly(own, { entry: cells, designs })) continue;
    const seen = (text: string | null) => (text === null ? '' : (carried({ [field]: text }, carries)[field] ?? ''));
    if ((cells[field] ?? '') !== seen(to)) continue;
    taken++;
    after.set(entryId, withTexts(cells, [[field, seen(from)]]));
  }
  return { after, taken };
}

/** Entries as everybody sees them, one by one. */
export const seenAs = (entries: Iterable<EntryView>, carries: readonly Carry[]): { id: string; cells: Cells }[] =>
  [...entries].map(({ id, cells }) => ({ id, cells: carried(cells, carries) }));

/** What entries hold as everybody sees them. */
export const seenIn = (entries: ReadonlyMap<string, EntryView>, carries: readonly Carry[]): ReadonlyMap<string, Cells> =>
  new Map([...entries].map(([id, { cells }]) => [id, carried(cells, carries)]));

/** What an entry held, as far as its fields are still there. */
export function ofFields(register: RegisterBuild, held: LedgerDetail): Cells {
  const keys = new Set(register.fields.map(({ key }) => key));
  return Object.fromEntries(Object.entries(held).filter(([key]) => keys.has(key))) as Cells;
}
