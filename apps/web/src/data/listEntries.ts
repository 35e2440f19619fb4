// All entries of a list or a table of a source sheet, as the store holds them.
import type { EntryView, PackedEntries, PackedEntry } from '@dellum/contract';

/**
 * The entries in their order. They are frozen, so that the store takes them as they are: else it walks through each of a hundred thousand
 * rows.
 */
export function listed(entries: readonly EntryView[]): EntryView[] {
  const list = [...entries];
  Object.freeze(list);
  return list;
}

export const unpacked = ({ fields, entries }: PackedEntries): EntryView[] => entries.map((entry) => unpackedEntry(entry, fields));

function unpackedEntry([id, version, ...texts]: PackedEntry, fields: readonly string[]): EntryView {
  const cells: Record<string, string> = {};
  texts.forEach((text, at) => {
    if (text !== null) cells[fields[at]!] = text;
  });
  return { id, version, cells };
}

function isSame(one: EntryView, other: EntryView): boolean {
  const keys = Object.keys(one.cells);
  return (
    one.id === other.id &&
    one.version === other.version &&
    keys.length === Object.keys(other.cells).length &&
    keys.every((key) => one.cells[key] === other.cells[key])
  );
}

/** The entries as a list; the one that is known where nothing differs, so that nothing is drawn anew. */
export const listOf = (entries: readonly EntryView[], known: EntryView[] | undefined): EntryView[] =>
  known?.length === entries.length && known.every((entry, at) => isSame(entry, entries[at]!)) ? known : listed(entries);
