// Records over the API: the history of an entry's fields, and taking one change back. Pages of records and single ones are
// kept with the entries, so that edits and the live stream reach them.
import type { EntryChange, EntryView } from '@dellum/contract';
import { api } from './api.js';

export const recordsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** `version`: asked anew when the entry has changed. */
    entryHistory: build.query<EntryChange[], { registerId: string; entryId: string; version: number }>({
      query: ({ registerId, entryId }) => `/registers/${registerId}/records/${entryId}/history`,
    }),
    takeBackChange: build.mutation<EntryView, { registerId: string; entryId: string; change: EntryChange }>({
      query: ({ registerId, entryId, change }) => ({
        path: `/registers/${registerId}/records/${entryId}/history/${change.id}/back`,
        method: 'POST',
        body: { field: change.field },
      }),
    }),
  }),
});
export const { useEntryHistoryQuery, useTakeBackChangeMutation } = recordsApi;
