// Entries over the API: pages, edits, blocks; and the patches that the live stream brings.
import type { BlockOutcome, Change, EditOutcome, EntryPage, EntryView, FieldCount, HeldIn, TakenBack, WrittenCell } from '@dellum/contract';
import { api } from '../../api/api.js';
import type { AppDispatch, RootState } from '../../store.js';
import { rememberPatch, upToDate, withPatch } from './recentPatches.js';

export const pageSize = 200;
/** The most entries that one request brings. */
const listPage = 5000;

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

export const entriesApi = api.injectEndpoints({
  endpoints: (build) => ({
    entryPage: build.query<EntryPage, PageArg>({
      query: ({ registerId, page, ...wanted }) => `/registers/${registerId}/entries?${new URLSearchParams({ from: String(page * pageSize), count: String(pageSize), ...wanted }).toString()}`,
      transformResponse: (page: EntryPage) => ({ ...page, entries: page.entries.map(upToDate) }),
      providesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    /** All entries of a list, in order; lists are short beside entry sheets. */
    listEntries: build.query<EntryView[], string>({
      async queryFn(registerId, _api, _options, ask) {
        const entries: EntryView[] = [];
        for (;;) {
          const answer = await ask(`/registers/${registerId}/entries?from=${entries.length}&count=${listPage}`);
          if (answer.error) return { error: answer.error };
          const page = answer.data as EntryPage;
          entries.push(...page.entries);
          if (page.entries.length < listPage || entries.length >= page.total) return { data: entries };
        }
      },
      providesTags: (_result, _error, registerId) => [{ type: 'Register', id: registerId }],
    }),
    editCell: build.mutation<EditOutcome, { registerId: string; entryId: string; field: string; text: string; version: number; confirmed?: boolean }>({
      query: ({ registerId, entryId, ...body }) => ({ path: `/registers/${registerId}/entries/${entryId}`, method: 'PATCH', body }),
    }),
    writeBlock: build.mutation<BlockOutcome, { registerId: string; cells: readonly { entry: string; field: string; text: string }[] }>({
      query: ({ registerId, cells }) => ({ path: `/registers/${registerId}/entries/block`, method: 'POST', body: { cells } }),
    }),
    takeBackCells: build.mutation<TakenBack, { registerId: string; cells: readonly WrittenCell[] }>({
      query: ({ registerId, cells }) => ({ path: `/registers/${registerId}/entries/taken-back`, method: 'POST', body: { cells } }),
    }),
    restoreEntries: build.mutation<{ entries: string[] }, { registerId: string; entries: readonly string[]; before?: string | undefined }>({
      query: ({ registerId, entries, before }) => ({ path: `/registers/${registerId}/entries/restored`, method: 'POST', body: { entries, ...(before && { before }) } }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    insertEntries: build.mutation<{ entries: string[] }, { registerId: string; before?: string; count: number }>({
      query: ({ registerId, ...body }) => ({ path: `/registers/${registerId}/entries`, method: 'POST', body }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    deleteEntries: build.mutation<{ deleted: number }, { registerId: string; entries: readonly string[] }>({
      query: ({ registerId, entries }) => ({ path: `/registers/${registerId}/entries/delete`, method: 'POST', body: { entries } }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }],
    }),
    heldIn: build.query<HeldIn[], string>({ query: (value) => `/held?${new URLSearchParams({ value }).toString()}`, providesTags: ['Counts'] }),
    fieldCounts: build.query<FieldCount[], string>({
      query: (registerId) => `/registers/${registerId}/counts`,
      providesTags: ['Counts'],
    }),
  }),
});

export const { useEntryPageQuery, useListEntriesQuery, useEditCellMutation, useWriteBlockMutation, useInsertEntriesMutation, useDeleteEntriesMutation, useTakeBackCellsMutation, useRestoreEntriesMutation, useFieldCountsQuery, useHeldInQuery } = entriesApi;

/** Changes an entry in every page of the cache that shows it. */
export function updateEntry(dispatch: AppDispatch, state: RootState, registerId: string, entryId: string, update: (entry: EntryView) => EntryView): void {
  for (const arg of entriesApi.util.selectCachedArgsForQuery(state, 'entryPage')) {
    if (arg.registerId !== registerId) continue;
    const at = entriesApi.endpoints.entryPage.select(arg)(state).data?.entries.findIndex(({ id }) => id === entryId) ?? -1;
    if (at < 0) continue;
    dispatch(
      entriesApi.util.updateQueryData('entryPage', arg, (page) => ({ ...page, entries: page.entries.map((entry, index) => (index === at ? update(entry) : entry)) })),
    );
  }
}

/** Brings the cells of a live change into the cache; an older version changes nothing. */
export function patchEntry(dispatch: AppDispatch, state: RootState, change: Extract<Change, { kind: 'cells' }>): void {
  rememberPatch(change.entryId, change.version, change.cells);
  updateEntry(dispatch, state, change.registerId, change.entryId, (entry) => (entry.version >= change.version ? entry : withPatch(entry, change.version, change.cells)));
}
