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

/** The entry with what was written to it since, and what is being written. */
export function upToDate(entry: EntryView): EntryView {
  const patch = patches.get(entry.id);
  return withPending(!patch || patch.version <= entry.version ? entry : withPatch(entry, patch.version, patch.cells));
}

/** By entry, the cells of edits that are shown and not answered, in order. */
const pending = new Map<string, Set<Patch['cells']>>();

/** Notes the cells of an edit that is shown before it is answered: no answer about an edit before it takes them away. Call what it returns once it is answered. */
export function pend(entryId: string, cells: Patch['cells']): () => void {
  const own = pending.get(entryId) ?? new Set();
  pending.set(entryId, own);
  own.add(cells);
  return () => {
    own.delete(cells);
    if (own.size === 0 && pending.get(entryId) === own) pending.delete(entryId);
  };
}

/** The entry with the edits of it that are not answered. */
export const withPending = (entry: EntryView): EntryView =>
  [...(pending.get(entry.id) ?? [])].reduce((shown, cells) => withPatch(shown, shown.version, cells), entry);

export function withPatch(entry: EntryView, version: number, patch: Patch['cells']): EntryView {
  const cells: Record<string, string> = { ...entry.cells };
  for (const [field, value] of Object.entries(patch)) {
    if (value === null) delete cells[field];
    else cells[field] = value;
  }
  return { ...entry, version, cells };
}
