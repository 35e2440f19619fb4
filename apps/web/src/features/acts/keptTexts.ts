// What was typed into lists and tables and is not stored stays in its cells: refused texts until they are mended, waiting ones
// until the server is back. A new row that could not be begun stands below the others.
import { grouped } from '@dellum/core';
import type { ActDto, EntryView, Outcome } from '@dellum/contract';
import { useCallback } from 'react';
import { drafted, settled, type Draft } from '../../data/draftsSlice.js';
import { entriesApi } from '../../data/entriesApi.js';
import { isProblem, passes, problemWords } from '../../data/problem.js';
import { actAtOnce } from '../../data/sourcesApi.js';
import { useAppDispatch, type AppDispatch, type RootState } from '../../data/store.js';
import { useWaitingTexts } from '../../data/useWaitingTexts.js';

export interface CellText {
  readonly field: string;
  readonly text: string;
}

/** The act that begins a row, above another one or at the end. */
export const beginning = (id: string, cells: readonly CellText[], before?: string): ActDto => ({
  act: 'insert',
  entries: [id],
  fields: cells.map(({ field }) => field),
  rows: [cells.map(({ text }) => text)],
  ...(before !== undefined && { before }),
});

export const writing = (id: string, cells: readonly CellText[]): ActDto => ({
  act: 'write',
  cells: cells.map((cell) => ({ entry: id, ...cell })),
});

/**
 * Shows texts in their row at once and stores them by an act; what is not stored becomes drafts of the cells. Throws what went wrong.
 * `joins`: the act that they go on with.
 */
export const storeTexts =
  (registerId: string, id: string, cells: readonly CellText[], act: ActDto, joins?: Promise<number | undefined>) =>
  async (dispatch: AppDispatch): Promise<Outcome> => {
    for (const { field } of cells) dispatch(settled({ entryId: id, field }));
    const keep = (error: unknown) => {
      const state = isProblem(error) && passes(error) ? 'waiting' : 'refused';
      for (const cell of cells)
        dispatch(drafted({ registerId, entryId: id, ofList: true, ...cell, state, message: problemWords(error), suggestions: [] }));
    };
    return dispatch(actAtOnce({ registerId, acts: [act], joins }, keep));
  };

/**
 * The rows of a list with those that only drafts hold. Rows begun at the end and not stored yet stand in the order in which they were
 * begun, whether they are under way or kept: none moves under whoever types in it.
 */
export function rowsWithKept(
  drafts: readonly Pick<Draft, 'entryId'>[],
  entries: readonly EntryView[],
  begun: readonly BegunRow[],
): readonly EntryView[] {
  if (drafts.length === 0 && begun.length === 0) return entries;
  const known = new Map(entries.map((entry) => [entry.id, entry]));
  const kept = new Set(drafts.map(({ entryId }) => entryId).filter((id) => !known.has(id)));
  const inOrder = begun.flatMap(({ id, underWay }) => (kept.has(id) || (underWay && known.has(id)) ? [id] : []));
  const below = new Set([...inOrder, ...kept]);
  return [...entries.filter(({ id }) => !below.has(id)), ...[...below].map((id) => known.get(id) ?? { id, version: 0, cells: {} })];
}

/** A row that was begun at the end; `underWay` until the answer about it comes. */
export interface BegunRow {
  readonly id: string;
  readonly underWay: boolean;
}

/** The rows begun so far, with one whose answer is awaited or has come; each keeps its place. */
export const withBegun = (begun: readonly BegunRow[], row: BegunRow): readonly BegunRow[] =>
  begun.some(({ id }) => id === row.id) ? begun.map((one) => (one.id === row.id ? row : one)) : [...begun, row];

/** By cell, what is kept of a list. */
export const draftsOf = (drafts: Readonly<Record<string, Draft>>, registerId: string): Draft[] =>
  Object.values(drafts).filter((draft) => draft.registerId === registerId);

const isOfList = ({ ofList }: Draft): boolean => ofList === true;

/** What waits of lists now, in the order in which its rows were begun. */
const waitingNow = ({ drafts }: RootState): Draft[] =>
  Object.values(drafts).filter((draft) => isOfList(draft) && draft.state === 'waiting');

/**
 * Stores what waits in one row. Whether it was begun is asked anew, since the answer about it may have been lost; one types on meanwhile.
 */
const storeRow = (registerId: string, id: string) => async (dispatch: AppDispatch, getState: () => RootState) => {
  const entries = await dispatch(entriesApi.endpoints.listEntries.initiate(registerId, { forceRefetch: true, subscribe: false })).unwrap();
  const isThere = entries.some((entry) => entry.id === id);
  const cells = waitingNow(getState()).flatMap(({ entryId, field, text }) => (entryId === id ? [{ field, text }] : []));
  if (cells.length > 0) await dispatch(storeTexts(registerId, id, cells, isThere ? writing(id, cells) : beginning(id, cells)));
};

/** Row after row; what begins to wait meanwhile comes after what waits already. */
const storeAll = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  const tried = new Set<string>();
  for (;;) {
    const rows = grouped(waitingNow(getState()), ({ entryId }) => entryId);
    const next = [...rows].find(([id]) => !tried.has(id));
    if (!next) return;
    const [id, cells] = next;
    tried.add(id);
    try {
      await dispatch(storeRow(cells[0]!.registerId, id));
    } catch (error) {
      // What is not stored is kept and says why; the rest waits on while nothing answers, behind it as before.
      if (!isProblem(error) || !passes(error)) continue;
      for (const draft of waitingNow(getState()).filter(({ entryId }) => entryId !== id)) {
        dispatch(settled(draft));
        dispatch(drafted(draft));
      }
      return;
    }
  }
};

/** Stores what waited of lists and tables while the server or its database was away, as soon as it is back. */
export function useWaitingRows(): void {
  const dispatch = useAppDispatch();
  const send = useCallback(() => dispatch(storeAll()), [dispatch]);
  useWaitingTexts(isOfList, send);
}
