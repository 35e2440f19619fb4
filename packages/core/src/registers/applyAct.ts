// What a register holds after an act. One act touches one register only.
import { alphabetical, isBlank } from '../text/index.js';
import type { Act, ArrangeAct, Cells, Entry, EntryId, MoveAct, SortAct, WriteAct } from './models.js';

/** The cells with some texts set; a blank text takes the cell away. */
export function withTexts(cells: Cells, texts: Iterable<readonly [string, string]>): Cells {
  const next: Record<string, string> = { ...cells };
  for (const [field, text] of texts) {
    if (isBlank(text)) delete next[field];
    else next[field] = text;
  }
  return next;
}

function write(entries: readonly Entry[], act: WriteAct): Entry[] {
  const texts = new Map<EntryId, [string, string][]>();
  for (const { entry, field, text } of act.cells) {
    const known = texts.get(entry);
    if (known) known.push([field, text]);
    else texts.set(entry, [[field, text]]);
  }
  return entries.map((entry) => {
    const changed = texts.get(entry.id);
    return changed ? { ...entry, cells: withTexts(entry.cells, changed) } : entry;
  });
}

function putBefore(entries: readonly Entry[], added: readonly Entry[], before: EntryId | null): Entry[] {
  const at = before === null ? -1 : entries.findIndex((entry) => entry.id === before);
  return at < 0 ? [...entries, ...added] : [...entries.slice(0, at), ...added, ...entries.slice(at)];
}

/** The entry above which a moved block lands: the first one at or below `before` that does not move itself. */
export function landing(entries: readonly Entry[], act: MoveAct): EntryId | null {
  const moving = new Set(act.entries);
  const at = entries.findIndex((entry) => entry.id === act.before);
  if (act.before === null || at < 0) return null;
  return entries.slice(at).find((entry) => !moving.has(entry.id))?.id ?? null;
}

function move(entries: readonly Entry[], act: MoveAct): Entry[] {
  const moving = new Set(act.entries);
  const taken = entries.filter((entry) => moving.has(entry.id));
  const rest = entries.filter((entry) => !moving.has(entry.id));
  return putBefore(rest, taken, landing(entries, act));
}

function sort(entries: readonly Entry[], act: SortAct, language: string): Entry[] {
  const compare = alphabetical(language);
  const sign = act.direction === 'up' ? 1 : -1;
  const filled = entries.filter((entry) => act.field in entry.cells);
  const blank = entries.filter((entry) => !(act.field in entry.cells));
  filled.sort((a, b) => sign * compare(a.cells[act.field]!, b.cells[act.field]!));
  return [...filled, ...blank];
}

function arrange(entries: readonly Entry[], act: ArrangeAct): Entry[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const named = act.entries.flatMap((id) => byId.get(id) ?? []);
  const isNamed = new Set(act.entries);
  return [...named, ...entries.filter(({ id }) => !isNamed.has(id))];
}

/** The entries after the act. Entries and fields that the act names and the register lacks are passed over. */
export function applyAct(entries: readonly Entry[], act: Act, language: string): Entry[] {
  switch (act.act) {
    case 'write':
      return write(entries, act);
    case 'insert':
      return putBefore(entries, act.entries, act.before);
    case 'delete': {
      const leaving = new Set(act.entries);
      return entries.filter((entry) => !leaving.has(entry.id));
    }
    case 'move':
      return move(entries, act);
    case 'sort':
      return sort(entries, act, language);
    case 'arrange':
      return arrange(entries, act);
  }
}
