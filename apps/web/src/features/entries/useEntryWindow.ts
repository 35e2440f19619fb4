// The entries on screen: the pages around the visible rows, and any row of them by its number.
import type { EntryPage, EntryView } from '@dellum/contract';
import { useCallback, useState } from 'react';
import { useAppDispatch } from '../../data/store.js';
import { entriesApi, pageSize, useEntryPageQuery, type PageArg } from '../../data/entriesApi.js';
import { errorWords } from '../../data/problem.js';

export interface EntryWindow {
  readonly total: number | undefined;
  readonly error: string | undefined;
  /** True while pages are being fetched anew. */
  readonly fetching: boolean;
  /** When the older of the pages on screen was asked for (`Date.now()`); undefined while pages are being fetched, or could not be. */
  readonly askedAt: number | undefined;
  entryAt(row: number): EntryView | undefined;
  /** An entry by its id, where a page on screen holds it. */
  find(id: string): EntryView | undefined;
  /** The row of an entry, where a page on screen holds it. */
  rowOf(id: string): number | undefined;
  onVisible(first: number, last: number): void;
  /** Entries of rows that may not be on screen; fetched where they are missing. */
  rows(first: number, last: number): Promise<EntryView[]>;
}

/** Which entries of a register are shown; all of them where nothing is said. */
export type Wanted = Pick<PageArg, 'outside' | 'field' | 'value' | 'arranged'>;

/** A page is fetched so many rows before it comes into view; with a screen of rows between them, two pages are enough. */
const ahead = 60;

/**
 * The page on which the entries end: pages may be of different moments, and how many there are is told by the one that shows whether the
 * newest is among them. Else it would stand twice for a moment, or nowhere, and what is typed next would land in another row.
 */
function endOf(above: EntryPage | undefined, below: EntryPage | undefined): EntryPage | undefined {
  if (!above || !below) return above ?? below;
  const reachesBelow = above.from + above.entries.length >= below.from;
  return below.entries.length > 0 || reachesBelow ? below : above;
}

export function useEntryWindow(registerId: string, wanted: Wanted): EntryWindow {
  const [pages, setPages] = useState({ first: 0, last: 0 });
  const dispatch = useAppDispatch();
  const arg = (page: number): PageArg => ({ registerId, page, ...wanted });
  const upper = useEntryPageQuery(arg(pages.first));
  const lower = useEntryPageQuery(arg(pages.last));
  // While another arrangement is coming the rows stay as they were: whoever types in one goes on in it.
  const standing = ({ currentData, data }: typeof upper) => currentData ?? (wanted.arranged === undefined ? undefined : data);
  const loaded: readonly (EntryPage | undefined)[] = [standing(upper), standing(lower)];

  const onVisible = useCallback((first: number, last: number) => {
    const next = { first: Math.floor(Math.max(0, first - ahead) / pageSize), last: Math.floor((last + ahead) / pageSize) };
    setPages((before) => (before.first === next.first && before.last === next.last ? before : next));
  }, []);
  const entryAt = (row: number): EntryView | undefined => {
    const page = loaded.find((known) => known !== undefined && row >= known.from && row < known.from + known.entries.length);
    return page?.entries[row - page.from];
  };
  const [above, below] = loaded;
  const find = useCallback(
    (id: string) => above?.entries.find((entry) => entry.id === id) ?? below?.entries.find((entry) => entry.id === id),
    [above, below],
  );
  const rowOf = (id: string): number | undefined => {
    for (const page of loaded) {
      const at = page?.entries.findIndex((entry) => entry.id === id) ?? -1;
      if (at >= 0) return page!.from + at;
    }
    return undefined;
  };
  const rows = async (first: number, last: number): Promise<EntryView[]> => {
    const numbers = Array.from(
      { length: Math.floor(last / pageSize) - Math.floor(first / pageSize) + 1 },
      (_, at) => Math.floor(first / pageSize) + at,
    );
    const fetched = await Promise.all(
      numbers.map((page) => dispatch(entriesApi.endpoints.entryPage.initiate(arg(page), { subscribe: false })).unwrap()),
    );
    return fetched.flatMap(({ from, entries }) => entries.filter((_, at) => from + at >= first && from + at <= last));
  };
  const error = upper.error ?? lower.error;
  return {
    total: endOf(above, below)?.total ?? upper.data?.total,
    error: errorWords(error),
    fetching: upper.isFetching || lower.isFetching,
    askedAt: [upper, lower].every(({ isFetching, isSuccess }) => !isFetching && isSuccess)
      ? Math.min(upper.startedTimeStamp ?? 0, lower.startedTimeStamp ?? 0)
      : undefined,
    entryAt,
    find,
    rowOf,
    onVisible,
    rows,
  };
}
