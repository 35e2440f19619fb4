// What takes an act back, computed before it is done.
import type { Act, DeleteAct, Entry, EntryId, WriteAct } from './models.js';

function textsBefore(entries: readonly Entry[], act: WriteAct): Act[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const cells = act.cells.flatMap(({ entry, field }) =>
    byId.has(entry) ? [{ entry, field, text: byId.get(entry)!.cells[field] ?? '' }] : [],
  );
  return [{ act: 'write', cells }];
}

/** Each run of neighbours goes back above the entry that stays below it. */
function putBack(entries: readonly Entry[], act: DeleteAct): Act[] {
  const leaving = new Set(act.entries);
  const acts: Act[] = [];
  let run: Entry[] = [];
  const close = (before: EntryId | null) => {
    if (run.length > 0) acts.push({ act: 'insert', before, entries: run });
    run = [];
  };
  for (const entry of entries) {
    if (leaving.has(entry.id)) run.push(entry);
    else close(entry.id);
  }
  close(null);
  return acts;
}

/** The acts that, done after `act`, bring the entries back to what they are now. */
export function inverseOf(entries: readonly Entry[], act: Act): Act[] {
  switch (act.act) {
    case 'write':
      return textsBefore(entries, act);
    case 'insert':
      return [{ act: 'delete', entries: act.entries.map(({ id }) => id) }];
    case 'delete':
      return putBack(entries, act);
    case 'move':
    case 'sort':
    case 'arrange':
      return [{ act: 'arrange', entries: entries.map(({ id }) => id) }];
  }
}
