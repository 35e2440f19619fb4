// Entries over the API: pages, edits, blocks; and the patches that the live stream brings.
import type { FieldSort, Only } from '@dellum/core';
import type {
  BlockOutcome,
  Change,
  EditOutcome,
  EntryPage,
  EntryView,
  FieldCount,
  GiveCellDto,
  GivenMembers,
  HeldIn,
  PackedEntries,
  RecordView,
  TakenBack,
  WrittenCell,
} from '@dellum/contract';
import { api } from './api.js';
import type { AppDispatch, RootState } from './store.js';
import { inTurn } from './inTurn.js';
import { listOf, unpacked } from './listEntries.js';
import { answered, begunAbove, begunChanged, dropped } from './newEntriesSlice.js';
import { rememberPatch, upToDate, withPatch, withPending } from './recentPatches.js';
import { shownAhead } from './shownAhead.js';

export const pageSize = 200;

export interface PageArg {
  readonly registerId: string;
  readonly page: number;
  /** A field's key or `*`: only entries that are outside there. */
  readonly outside?: string;
  /** Only entries that hold `value` in this field. */
  readonly field?: string;
  readonly value?: string;
  /** The version of my arrangement: the entries as I have arranged them. */
  readonly arranged?: string;
}

/** Which entries are looked for, and how they are ordered. */
export interface RecordsArg {
  readonly registerId: string;
  readonly search: string;
  readonly only: readonly Only[];
  readonly sort: readonly FieldSort[];
  readonly from: number;
  readonly count: number;
}

const pagesAhead = shownAhead<EntryPage>();
/** Changes of lists that are shown before the server has them. */
export const listsAhead = shownAhead<readonly EntryView[]>();

/** True for pages of all entries as they stand. */
const showsAll = ({ outside, field, arranged }: PageArg): boolean => outside === undefined && field === undefined && arranged === undefined;

export const entriesApi = api.injectEndpoints({
  endpoints: (build) => ({
    entryPage: build.query<EntryPage, PageArg>({
      query: ({ registerId, page, ...wanted }) =>
        `/registers/${registerId}/entries?${new URLSearchParams({ from: String(page * pageSize), count: String(pageSize), ...wanted }).toString()}`,
      transformResponse: (page: EntryPage, meta, arg) => {
        const known = { ...page, entries: page.entries.map(upToDate) };
        return showsAll(arg) && meta ? pagesAhead.bring(arg.registerId, meta.askedAt, known) : known;
      },
      providesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    /** Entries that are looked for. */
    records: build.query<EntryPage, RecordsArg>({
      query: ({ registerId, ...body }) => ({ path: `/registers/${registerId}/records`, method: 'POST', body }),
      providesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    /** One entry with what it names and what names it. */
    record: build.query<RecordView, { registerId: string; entryId: string }>({
      query: ({ registerId, entryId }) => `/registers/${registerId}/records/${entryId}`,
      providesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    /** All entries of a list or a table of a source sheet, in order. */
    listEntries: build.query<EntryView[], string>({
      // It is compared with the one that is known below.
      structuralSharing: false,
      async queryFn(registerId, { getState }, _options, ask) {
        const entries: EntryView[] = [];
        const askedAt = performance.now();
        for (let total = 1; entries.length < total;) {
          const answer = await ask(`/registers/${registerId}/entries/packed?from=${entries.length}`);
          if (answer.error) return { error: answer.error };
          const found = answer.data as PackedEntries;
          for (const entry of unpacked(found)) entries.push(entry);
          // Others may have deleted some meanwhile.
          total = found.entries.length === 0 ? 0 : found.total;
        }
        const shown = listsAhead.bring(registerId, askedAt, entries);
        return { data: listOf(shown, knownList(getState() as RootState, registerId)) };
      },
      providesTags: (_result, _error, registerId) => [{ type: 'Register', id: registerId }],
    }),
    editCell: build.mutation<
      EditOutcome,
      { registerId: string; entryId: string; field: string; version: number; confirmed?: boolean } & GivenMembers
    >({ query: ({ registerId, entryId, ...body }) => ({ path: `/registers/${registerId}/entries/${entryId}`, method: 'PATCH', body }) }),
    /** Begins an entry, under an id of ours, with its first cell. */
    beginEntry: build.mutation<EditOutcome, { registerId: string; entryId: string; field: string; confirmed?: boolean } & GivenMembers>({
      query: ({ registerId, entryId, ...body }) => ({ path: `/registers/${registerId}/entries/${entryId}`, method: 'PUT', body }),
    }),
    writeBlock: build.mutation<BlockOutcome, { registerId: string; cells: readonly GiveCellDto[] }>({
      query: ({ registerId, cells }) => ({ path: `/registers/${registerId}/entries/block`, method: 'POST', body: { cells } }),
    }),
    takeBackCells: build.mutation<TakenBack, { registerId: string; cells: readonly WrittenCell[] }>({
      query: ({ registerId, cells }) => ({ path: `/registers/${registerId}/entries/taken-back`, method: 'POST', body: { cells } }),
    }),
    restoreEntries: build.mutation<{ entries: string[] }, { registerId: string; entries: readonly string[]; before?: string | undefined }>({
      query: ({ registerId, entries, before }) => ({
        path: `/registers/${registerId}/entries/restored`,
        method: 'POST',
        body: { entries, ...(before && { before }) },
      }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    /** New entries above another or at the end; `shown`: under ids of ours. */
    insertEntries: build.mutation<
      { entries: string[]; answeredAt: number },
      { registerId: string; before?: string; count: number; shown?: readonly EntryView[] }
    >({
      transformResponse: (made: { entries: string[] }, meta) => ({ ...made, answeredAt: meta?.answeredAt ?? 0 }),
      query: ({ registerId, shown, ...body }) => ({
        path: `/registers/${registerId}/entries`,
        method: 'POST',
        body: { ...body, ...(shown && { ids: shown.map(({ id }) => id) }) },
      }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    deleteEntries: build.mutation<{ deleted: number }, { registerId: string; entries: readonly string[] }>({
      query: ({ registerId, entries }) => ({ path: `/registers/${registerId}/entries/delete`, method: 'POST', body: { entries } }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    heldIn: build.query<HeldIn[], string>({
      query: (value) => `/held?${new URLSearchParams({ value }).toString()}`,
      providesTags: ['Counts'],
    }),
    fieldCounts: build.query<FieldCount[], string>({ query: (registerId) => `/registers/${registerId}/counts`, providesTags: ['Counts'] }),
  }),
});

/** A list as it is on the screen, if it is. */
function knownList(state: RootState, registerId: string): EntryView[] | undefined {
  return entriesApi.endpoints.listEntries.select(registerId)(state).data;
}

export const {
  useEntryPageQuery,
  useListEntriesQuery,
  useEditCellMutation,
  useWriteBlockMutation,
  useInsertEntriesMutation,
  useDeleteEntriesMutation,
  useTakeBackCellsMutation,
  useRestoreEntriesMutation,
  useFieldCountsQuery,
  useHeldInQuery,
  useRecordsQuery,
  useRecordQuery,
} = entriesApi;

/** Changes an entry wherever the cache shows it: in pages, among records, by itself. */
export function updateEntry(
  dispatch: AppDispatch,
  state: RootState,
  registerId: string,
  entryId: string,
  update: (entry: EntryView) => EntryView,
): void {
  const { util, endpoints } = entriesApi;
  const here = ({ entries }: Pick<EntryPage, 'entries'>) => entries.some(({ id }) => id === entryId);
  const changed = (page: EntryPage): EntryPage => ({
    ...page,
    entries: page.entries.map((entry) => (entry.id === entryId ? update(entry) : entry)),
  });
  for (const arg of util.selectCachedArgsForQuery(state, 'entryPage')) {
    const page = endpoints.entryPage.select(arg)(state).data;
    if (arg.registerId === registerId && page && here(page)) dispatch(util.updateQueryData('entryPage', arg, changed));
  }
  for (const arg of util.selectCachedArgsForQuery(state, 'records')) {
    const page = endpoints.records.select(arg)(state).data;
    if (arg.registerId === registerId && page && here(page)) dispatch(util.updateQueryData('records', arg, changed));
  }
  const begun = state.newEntries[registerId]?.begun.find(({ entry }) => entry.id === entryId);
  if (begun) dispatch(begunChanged({ registerId, entry: update(begun.entry) }));
  for (const arg of util.selectCachedArgsForQuery(state, 'record')) {
    if (arg.entryId === entryId) dispatch(util.updateQueryData('record', arg, (record) => ({ ...record, entry: update(record.entry) })));
  }
}

/**
 * Puts new entries above another one and shows them at once, with what they begin with: what is typed next is theirs
 * before the server has answered.
 */
export const insertShown =
  (registerId: string, before: string, shown: readonly EntryView[]) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<{ entries: string[] }> => {
    // The entry below may be so new that no page has it yet.
    const inPages = showAbove(dispatch, getState(), registerId, before, shown);
    if (!inPages.shown) dispatch(begunAbove({ registerId, before, entries: shown }));
    const send = async () => {
      const request = dispatch(entriesApi.endpoints.insertEntries.initiate({ registerId, count: shown.length, before, shown }));
      try {
        const made = await request.unwrap();
        inPages.settled(made.answeredAt);
        for (const { id } of shown) dispatch(answered({ registerId, entryId: id }));
        return made;
      } catch (error) {
        inPages.undo();
        dispatch(dropped({ registerId, ids: shown.map(({ id }) => id) }));
        throw error;
      } finally {
        request.reset();
      }
    };
    // What is typed into them waits for them, and they for the entry above which they are put.
    return inTurn(shown[0]!.id, () => inTurn(before, send));
  };

/** Shows new entries above another in the pages that show all entries, and in those that are under way. `shown`: a page has that one. */
function showAbove(
  dispatch: AppDispatch,
  state: RootState,
  registerId: string,
  before: string,
  shown: readonly EntryView[],
): { readonly shown: boolean; settled(answeredAt: number): void; undo(): void } {
  const { util, endpoints } = entriesApi;
  const args = util.selectCachedArgsForQuery(state, 'entryPage').filter((arg) => arg.registerId === registerId && showsAll(arg));
  const pages = args.map((arg) => endpoints.entryPage.select(arg)(state).data);
  const from = pages.find((page) => page?.entries.some(({ id }) => id === before))?.from;
  const isThere = (page: EntryPage) => page.entries.some(({ id }) => id === shown[0]!.id);
  const withShown = (page: EntryPage): EntryPage => {
    if (isThere(page)) return page;
    const at = page.entries.findIndex(({ id }) => id === before);
    // A page of before the entry below was stored knows neither.
    if (at < 0 && from === undefined) return page;
    const entries = at < 0 ? page.entries : [...page.entries.slice(0, at), ...shown, ...page.entries.slice(at)];
    return {
      ...page,
      entries,
      total: page.total + shown.length,
      from: from !== undefined && page.from > from ? page.from + shown.length : page.from,
    };
  };
  const ahead = pagesAhead.note(registerId, withShown);
  for (const arg of args) dispatch(util.updateQueryData('entryPage', arg, withShown));
  const without = (page: EntryPage): EntryPage =>
    isThere(page)
      ? { ...page, entries: page.entries.filter(({ id }) => !shown.some((one) => one.id === id)), total: page.total - shown.length }
      : page;
  return {
    shown: from !== undefined,
    settled: ahead.settled,
    undo: () => {
      ahead.dropped();
      for (const arg of args) dispatch(util.updateQueryData('entryPage', arg, without));
      dispatch(api.util.invalidateTags([{ type: 'Register', id: registerId }]));
    },
  };
}

/** Brings the cells of a live change into the cache; an older version changes nothing. */
export function patchEntry(dispatch: AppDispatch, state: RootState, change: Extract<Change, { kind: 'cells' }>): void {
  rememberPatch(change.entryId, change.version, change.cells);
  updateEntry(dispatch, state, change.registerId, change.entryId, (entry) =>
    entry.version >= change.version ? entry : withPending(withPatch(entry, change.version, change.cells)),
  );
}
