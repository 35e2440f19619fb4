// Catalogs over the API: how they are composed, their items, use, history and lineage.
import type {
  AddItemDto,
  CatalogChange,
  CatalogItems,
  CatalogUse,
  ChangedCatalog,
  ChangeCatalogDto,
  DefineCatalogDto,
  DefinitionDto,
  DefinitionTrial,
  ItemActDto,
  KeepItemDto,
  Lineage,
  MakeCatalogDto,
  Outcome,
  PackedCatalog,
} from '@dellum/contract';
import { api } from './api.js';
import { sourceTags } from './sourcesApi.js';
import type { RootState } from './store.js';
import type { HeldCatalog } from './unpacked.js';

/** After so many changes a catalog is fetched whole again. */
const mostChanges = 200;

export const catalogsApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** The whole once; after that what has changed. */
    catalogItems: build.query<HeldCatalog, string>({
      async queryFn(id, { getState }, _options, ask) {
        const held = heldCatalog(getState() as RootState, id);
        const since = held && (held.changes?.length ?? 0) < mostChanges ? `?since=${held.version}` : '';
        const answer = await ask(`/catalogs/${id}/items/packed${since}`);
        if (answer.error) return { error: answer.error };
        const came = answer.data as PackedCatalog | ChangedCatalog;
        if (!('steps' in came)) return { data: came };
        const { steps, since: _since, ...members } = came;
        return { data: { ...held!, ...members, changes: [...(held!.changes ?? []), ...steps] } };
      },
      providesTags: (_result, _error, id) => [{ type: 'Catalog', id }],
    }),
    openCatalogItems: build.query<PackedCatalog, { token: string; id: string }>({
      query: ({ token, id }) => `/open/${token}/catalogs/${id}`,
    }),
    catalogUse: build.query<CatalogUse, string>({
      query: (id) => `/catalogs/${id}/use`,
      // By values, which may be called as what every object has.
      transformResponse: (use: CatalogUse) => ({ ...use, entries: Object.assign(Object.create(null) as object, use.entries) }),
      providesTags: ['Counts'],
    }),
    catalogLineage: build.query<Lineage, string>({ query: (id) => `/catalogs/${id}/lineage`, providesTags: ['Lineage'] }),
    rangeLineage: build.query<Lineage, string>({ query: (id) => `/ranges/${id}/lineage`, providesTags: ['Lineage'] }),
    catalogHistory: build.query<CatalogChange[], string>({ query: (id) => `/catalogs/${id}/history`, providesTags: ['History'] }),
    catalogAsOf: build.query<CatalogItems, { id: string; day: string }>({
      query: ({ id, day }) => `/catalogs/${id}/as-of?day=${day}`,
      providesTags: ['History'],
    }),
    definitionTrial: build.query<DefinitionTrial, { id: string | undefined; definition: DefinitionDto }>({
      query: ({ id, definition }) => ({ path: id ? `/catalogs/${id}/trial` : '/catalogs/trial', method: 'POST', body: definition }),
      providesTags: ['Counts', 'Catalog'],
    }),
    makeCatalog: build.mutation<{ id: string }, MakeCatalogDto>({
      query: (body) => ({ path: '/catalogs', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Build', 'Lineage', 'Ranges', 'Upkeep'],
    }),
    changeCatalog: build.mutation<null, { id: string; change: ChangeCatalogDto }>({
      query: ({ id, change }) => ({ path: `/catalogs/${id}`, method: 'PATCH', changesBuild: true, body: change }),
      invalidatesTags: ['Build', 'Catalog', 'Lineage'],
    }),
    entrustCatalog: build.mutation<null, { id: string; people: readonly string[] }>({
      query: ({ id, people }) => ({ path: `/catalogs/${id}/stewards`, method: 'PUT', changesBuild: true, body: { people } }),
      invalidatesTags: ['Build'],
    }),
    deleteCatalog: build.mutation<null, string>({
      query: (id) => ({ path: `/catalogs/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Build', 'Lineage', 'Ranges', 'Upkeep'],
    }),
    defineCatalog: build.mutation<Outcome, { id: string; definition: DefineCatalogDto }>({
      query: ({ id, definition }) => ({ path: `/catalogs/${id}/definition`, method: 'PUT', body: definition }),
      invalidatesTags: sourceTags,
    }),
    addItem: build.mutation<Outcome, { id: string; item: AddItemDto }>({
      query: ({ id, item }) => ({ path: `/catalogs/${id}/items`, method: 'POST', body: item }),
      invalidatesTags: sourceTags,
    }),
    itemAct: build.mutation<Outcome, { id: string; act: ItemActDto }>({
      query: ({ id, act }) => ({ path: `/catalogs/${id}/items/acts`, method: 'POST', body: act }),
      invalidatesTags: sourceTags,
    }),
    cureParent: build.mutation<Outcome, { id: string; words: string }>({
      query: ({ id, words }) => ({ path: `/catalogs/${id}/parents/cures`, method: 'POST', body: { words } }),
      invalidatesTags: sourceTags,
    }),
    keepItem: build.mutation<Outcome, { id: string; item: KeepItemDto }>({
      query: ({ id, item }) => ({ path: `/catalogs/${id}/items/kept`, method: 'PUT', body: item }),
      invalidatesTags: sourceTags,
    }),
  }),
});
const heldCatalog = (state: RootState, id: string): HeldCatalog | undefined => catalogsApi.endpoints.catalogItems.select(id)(state).data;

export const {
  useCatalogItemsQuery,
  useCatalogUseQuery,
  useCatalogLineageQuery,
  useRangeLineageQuery,
  useCatalogHistoryQuery,
  useCatalogAsOfQuery,
  useDefinitionTrialQuery,
  useMakeCatalogMutation,
  useChangeCatalogMutation,
  useDeleteCatalogMutation,
  useEntrustCatalogMutation,
  useDefineCatalogMutation,
  useAddItemMutation,
  useCureParentMutation,
  useItemActMutation,
  useKeepItemMutation,
} = catalogsApi;
