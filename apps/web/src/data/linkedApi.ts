// Linked sources over the API.
import type { DatabaseTables, LinkedSettings, LinkedTrial, LinkedView, MakeLinkedDto, Outcome, Reachable } from '@dellum/contract';
import { api } from './api.js';
import { sourceTags } from './sourcesApi.js';

export const linkedApi = api.injectEndpoints({
  endpoints: (build) => ({
    linked: build.query<LinkedView[], void>({ query: () => '/linked', providesTags: ['Linked'] }),
    reachable: build.query<Reachable, void>({ query: () => '/linked/reachable' }),
    linkedTables: build.query<DatabaseTables, string>({
      query: (connection) => `/linked/tables?connection=${encodeURIComponent(connection)}`,
    }),
    tryLinked: build.mutation<LinkedTrial, LinkedSettings>({
      query: (settings) => ({ path: '/linked/trial', method: 'POST', body: { settings } }),
    }),
    makeLinked: build.mutation<{ id: string }, MakeLinkedDto>({
      query: (body) => ({ path: '/linked', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Linked', 'Build'],
    }),
    changeLinked: build.mutation<{ id: string }, { id: string; source: MakeLinkedDto }>({
      query: ({ id, source }) => ({ path: `/linked/${id}`, method: 'PUT', changesBuild: true, body: source }),
      invalidatesTags: ['Linked', 'Build'],
    }),
    refreshLinked: build.mutation<Outcome, string>({
      query: (id) => ({ path: `/linked/${id}/refresh`, method: 'POST' }),
      invalidatesTags: [...sourceTags, 'Linked'],
    }),
    deleteLinked: build.mutation<null, string>({
      query: (id) => ({ path: `/linked/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Linked', 'Build'],
    }),
  }),
});
export const {
  useLinkedQuery,
  useReachableQuery,
  useLinkedTablesQuery,
  useTryLinkedMutation,
  useMakeLinkedMutation,
  useChangeLinkedMutation,
  useRefreshLinkedMutation,
  useDeleteLinkedMutation,
} = linkedApi;
