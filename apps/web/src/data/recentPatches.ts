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
  pending.get(entryId)?.learn(cells, Object.keys(cells));
  for (const [id, { at }] of patches) {
    if (now - at < keptFor) break;
    patches.delete(id);
  }
}

/** The entry with what was written to it since, and what is being written. */
export function upToDate(entry: EntryView): EntryView {
  const patch = patches.get(entry.id);
  const known = !patch || patch.version <= entry.version ? entry : withPatch(entry, patch.version, patch.cells);
  pending.get(entry.id)?.learn(known.cells);
  return withPending(known);
}

/** The entry as the server has just given it, unless a newer one is known; the mark of its form stays. */
export const asGiven =
  (entry: EntryView) =>
  (known: EntryView): EntryView => {
    if (known.version > entry.version) return known;
    pending.get(entry.id)?.learn(entry.cells);
    return withPending({ ...known, ...entry });
  };

/** The edits of an entry that are shown and not answered, in order, and what is stored of the fields that they change. */
class PendingEdits {
  readonly edits = new Set<Patch['cells']>();
  private readonly stored = new Map<string, string | null>();

  add(cells: Patch['cells'], before: EntryView['cells']): void {
    for (const field of Object.keys(cells)) if (!this.stored.has(field)) this.stored.set(field, before[field] ?? null);
    this.edits.add(cells);
  }

  learn(cells: Patch['cells'], fields: Iterable<string> = [...this.stored.keys()]): void {
    for (const field of fields) if (this.stored.has(field)) this.stored.set(field, cells[field] ?? null);
  }

  storedOf(cells: Patch['cells']): Patch['cells'] {
    return Object.fromEntries(Object.keys(cells).map((field) => [field, this.stored.get(field) ?? null]));
  }
}

const pending = new Map<string, PendingEdits>();

/** An edit that is shown and not answered. */
export interface Pended {
  /** Call it once the edit is answered, however it ended. */
  ended(): void;
  /**
   * It was not taken: what the entry shows then, which is what is stored, with the edits after it. `newer`: somebody else's cells that
   * stand in its way.
   */
  refused(newer?: Patch['cells']): (shown: EntryView) => EntryView;
}

/** Notes the cells of an edit that is shown before it is answered: no answer about an edit before it takes them away. */
export function pend(entryId: string, cells: Patch['cells'], before: EntryView['cells']): Pended {
  const own = pending.get(entryId) ?? new PendingEdits();
  pending.set(entryId, own);
  own.add(cells, before);
  const ended = () => {
    own.edits.delete(cells);
    if (own.edits.size === 0 && pending.get(entryId) === own) pending.delete(entryId);
  };
  return {
    ended,
    refused: (newer = {}) => {
      own.learn(newer, Object.keys(newer));
      const stored = own.storedOf(cells);
      ended();
      return (shown) => withPending(withPatch(shown, shown.version, stored));
    },
  };
}

/** The entry with the edits of it that are not answered. */
export const withPending = (entry: EntryView): EntryView =>
  [...(pending.get(entry.id)?.edits ?? [])].reduce((shown, cells) => withPatch(shown, shown.version, cells), entry);

export function withPatch(entry: EntryView, version: number, patch: Patch['cells']): EntryView {
  const cells: Record<string, string> = { ...entry.cells };
  for (const [field, value] of Object.entries(patch)) {
    if (value === null) delete cells[field];
    else cells[field] = value;
  }
  return { ...entry, version, cells };
}
