// Whether an entry is closed, and what is said of one.
import { closedWords, isClosed } from '@dellum/core';
import type { EntryView, Me, RegisterView } from '@dellum/contract';

/** Why nobody but administrators changes the entry; undefined for one that is open. */
export function closedNote({ closing, fields }: RegisterView, entry: EntryView | undefined, me: Me): string | undefined {
  if (!closing || !entry || !isClosed(closing, entry.cells, me.house.today)) return undefined;
  return closedWords(closing, fields, me.house.locale);
}
