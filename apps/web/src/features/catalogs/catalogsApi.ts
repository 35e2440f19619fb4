// Catalogs over the API: items for the judge and the picker, use, lineage.
import type { CatalogItems, CatalogUse, ChangeCatalogDto, Lineage, MakeCatalogDto } from '@dellum/contract';
import { api } from '../../api/api.js';

export const catalogsApi = api.injectEndpoints({
  endpoints: (build) => ({
    catalogItems: build.query<CatalogItems, string>({ query: (id) => `/catalogs/${id}/items`, providesTags: (_result, _error, id) => [{ type: 'Catalog', id }] }),
    catalogUse: build.query<CatalogUse, string>({ query: (id) => `/catalogs/${id}/use`, providesTags: ['Counts'] }),
    catalogLineage: build.query<Lineage, string>({ query: (id) => `/catalogs/${id}/lineage`, providesTags: ['Lineage'] }),
    rangeLineage: build.query<Lineage, string>({ query: (id) => `/ranges/${id}/lineage`, providesTags: ['Lineage'] }),
    makeCatalog: build.mutation<{ id: string }, MakeCatalogDto>({ query: (body) => ({ path: '/catalogs', method: 'POST', body }), invalidatesTags: ['Build', 'Lineage'] }),
    changeCatalog: build.mutation<null, { id: string; change: ChangeCatalogDto }>({ query: ({ id, change }) => ({ path: `/catalogs/${id}`, method: 'PATCH', body: change }), invalidatesTags: ['Build', 'Catalog', 'Lineage'] }),
    deleteCatalog: build.mutation<null, string>({ query: (id) => ({ path: `/catalogs/${id}`, method: 'DELETE' }), invalidatesTags: ['Build', 'Lineage'] }),
  }),
});
export const { useCatalogItemsQuery, useCatalogUseQuery, useCatalogLineageQuery, useRangeLineageQuery, useMakeCatalogMutation, useChangeCatalogMutation, useDeleteCatalogMutation } = catalogsApi;
