// The rows of a sheet with the new ones below: entries begun here stand at the end until the pages show them, and after
// them the blank row, which becomes an entry with the first value that is taken in it.
import { cellsOfNew } from '@dellum/core';
import type { EntryView, FieldView } from '@dellum/contract';
import { useEffect, useLayoutEffect, useMemo } from 'react';
import { useAppDispatch, useAppSelector } from '../../data/store.js';
import { dropped, opened, typingIn, type BegunEntry } from '../../data/newEntriesSlice.js';
import type { EntryWindow } from './useEntryWindow.js';

export interface SheetRows {
  /** Entries, the begun ones included; the blank row stands after them. */
  readonly total: number;
  /** All rows, the blank one included. */
  readonly count: number;
  /** The id of the blank row's entry-to-be; undefined where none can be added. */
  readonly blank: string | undefined;
  /** The entry of a row; in the blank row what it begins with, under the id that it will have. */
  entryAt(row: number): EntryView | undefined;
  /** An entry by its id, where it is on screen. */
  find(id: string): EntryView | undefined;
  /** The row of an entry, where it is on screen. */
  rowOf(id: string): number | undefined;
  /** True for the blank row, and for a new entry that one is still typing. */
  isNew(row: number): boolean;
  /** Notes which row one is in: a new entry that is left is one like all others. */
  iAmIn(row: number): void;
}

const none: readonly BegunEntry[] = [];

export function useNewEntries(
  registerId: string,
  fields: readonly FieldView[],
  window: EntryWindow,
  today: string,
  addsBelow: boolean,
): SheetRows {
  const dispatch = useAppDispatch();
  const own = useAppSelector((state) => state.newEntries[registerId]);
  const drafts = useAppSelector((state) => state.drafts);
  useLayoutEffect(() => {
    dispatch(opened({ registerId }));
  }, [dispatch, registerId]);
  const begun = own?.begun ?? none;
  const known = useMemo(() => new Map(begun.map((one) => [one.entry.id, one])), [begun]);
  const { total: stored = 0, askedAt, find } = window;

  // What the pages show needs no place of its own; nor does what came to nothing.
  useEffect(() => {
    const held = new Set(Object.values(drafts).map(({ entryId }) => entryId));
    const ids = begun.flatMap(({ entry, sending, answeredAt }) => {
      if (sending > 0) return [];
      const shown = find(entry.id);
      if (shown) return shown.version >= entry.version ? [entry.id] : [];
      if (own?.typing === entry.id || askedAt === undefined) return [];
      // Pages that were asked for before it was stored do not know it yet.
      const isGone = entry.version > 0 ? askedAt > answeredAt : !held.has(entry.id);
      return isGone ? [entry.id] : [];
    });
    if (ids.length > 0) dispatch(dropped({ registerId, ids }));
  }, [dispatch, registerId, begun, drafts, own?.typing, askedAt, find]);

  const below = useMemo(() => begun.filter(({ entry }) => !find(entry.id)).map(({ entry }) => entry), [begun, find]);
  const last = below.at(-1) ?? (stored > 0 ? window.entryAt(stored - 1) : undefined);
  const blankEntry = useMemo<EntryView | undefined>(
    () => (own && addsBelow ? { id: own.blank, version: 0, cells: cellsOfNew(fields, last?.cells, today) } : undefined),
    [own, addsBelow, fields, last?.cells, today],
  );
  const total = stored + (addsBelow ? below.length : 0);
  const entryAt = (row: number): EntryView | undefined => {
    if (row === total) return blankEntry;
    if (row >= stored) return below[row - stored];
    const entry = window.entryAt(row);
    const mine = entry && known.get(entry.id);
    return mine && (mine.sending > 0 || mine.entry.version > entry.version) ? mine.entry : entry;
  };
  const isNew = (row: number): boolean =>
    (row === total && blankEntry !== undefined) || (own?.typing !== undefined && entryAt(row)?.id === own.typing);
  const iAmIn = (row: number) => {
    if (own?.typing !== undefined && entryAt(row)?.id !== own.typing) dispatch(typingIn({ registerId, entryId: undefined }));
  };
  const findAny = (id: string): EntryView | undefined => (blankEntry?.id === id ? blankEntry : (known.get(id)?.entry ?? find(id)));
  const rowOf = (id: string): number | undefined => {
    if (blankEntry?.id === id) return total;
    const at = below.findIndex((entry) => entry.id === id);
    return at < 0 ? window.rowOf(id) : stored + at;
  };
  return { find: findAny, rowOf, total, count: total + (blankEntry ? 1 : 0), blank: blankEntry?.id, entryAt, isNew, iAmIn };
}
