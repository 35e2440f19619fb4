// What was written to entries in the last while. A page that was asked for before a write and comes after it would
// show the cell as it was; it is brought up to date here.
import type { EntryView } from '@dellum/contract';

interface Patch {
  readonly version: number;
  readonly cells: Readonly<Record<string, string | null>>;
  readonly at: number;
}

const keptFor = 30_000;
const patches = new Map<string, Patch>();

/** Remembers the cells that an entry was given with a version; null is a cell made blank. */
export function rememberPatch(entryId: string, version: number, cells: Patch['cells']): void {
  const now = Date.now();
  const before = patches.get(entryId);
  patches.delete(entryId);
  patches.set(entryId, { version: Math.max(version, before?.version ?? 0), cells: { ...before?.cells, ...cells }, at: now });
  for (const [id, { at }] of patches) {
    if (now - at < keptFor) break;
    patches.delete(id);
  }
}

/** The entry with what was written to it since. */
export function upToDate(entry: EntryView): EntryView {
  const patch = patches.get(entry.id);
  if (!patch || patch.version <= entry.version) return entry;
  return withPatch(entry, patch.version, patch.cells);
}

export function withPatch(entry: EntryView, version: number, patch: Patch['cells']): EntryView {
  const cells: Record<string, string> = { ...entry.cells };
  for (const [field, value] of Object.entries(patch)) {
    if (value === null) delete cells[field];
    else cells[field] = value;
  }
  return { ...entry, version, cells };
}
