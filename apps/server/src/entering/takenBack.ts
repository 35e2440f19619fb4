// What taking back makes of entries, by the ledger: a cell gets what it held, unless somebody has changed it since.
import { carried, withTexts, type Carry, type Cells } from '@dellum/core';
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

/** The entries after taking back, and how many cells that are. */
export function takenBack(
  register: RegisterBuild,
  wrote: readonly Wrote[],
  entries: ReadonlyMap<string, EntryView>,
  carries: readonly Carry[],
): { after: Map<string, Cells>; taken: number } {
  const fields = new Set(register.fields.map(({ key }) => key));
  const after = new Map<string, Cells>();
  let taken = 0;
  for (const { entryId, field, from, to } of wrote) {
    const entry = entries.get(entryId);
    if (!entry || field === null || !fields.has(field)) continue;
    const cells = after.get(entryId) ?? carried(entry.cells, carries);
    const seen = (text: string | null) => (text === null ? '' : (carried({ [field]: text }, carries)[field] ?? ''));
    if ((cells[field] ?? '') !== seen(to)) continue;
    taken++;
    after.set(entryId, withTexts(cells, [[field, seen(from)]]));
  }
  return { after, taken };
}

/** What entries hold as everybody sees them. */
export const seenIn = (entries: ReadonlyMap<string, EntryView>, carries: readonly Carry[]): ReadonlyMap<string, Cells> =>
  new Map([...entries].map(([id, { cells }]) => [id, carried(cells, carries)]));

/** What an entry held, as far as its fields are still there. */
export function ofFields(register: RegisterBuild, held: LedgerDetail): Cells {
  const keys = new Set(register.fields.map(({ key }) => key));
  return Object.fromEntries(Object.entries(held).filter(([key]) => keys.has(key))) as Cells;
}
