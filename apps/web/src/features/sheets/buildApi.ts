// The build over the API: sheets, lists and fields.
import type { BuildView, MakeFieldDto, MakeListDto, MakeSheetDto } from '@dellum/contract';
import { api } from '../../api/api.js';

type Made = { id: string };
const touches = { invalidatesTags: ['Build', 'Counts', 'Lineage'] as const };

export const buildApi = api.injectEndpoints({
  endpoints: (build) => ({
    build: build.query<BuildView, void>({ query: () => '/build', providesTags: ['Build'] }),
    makeSheet: build.mutation<Made, MakeSheetDto>({ query: (body) => ({ path: '/sheets', method: 'POST', body }), ...touches }),
    retitleSheet: build.mutation<Made, { id: string; title: string }>({ query: ({ id, title }) => ({ path: `/sheets/${id}`, method: 'PATCH', body: { title } }), ...touches }),
    deleteSheet: build.mutation<Made, string>({ query: (id) => ({ path: `/sheets/${id}`, method: 'DELETE' }), ...touches }),
    makeList: build.mutation<Made, MakeListDto>({ query: (body) => ({ path: '/lists', method: 'POST', body }), ...touches }),
    retitleList: build.mutation<Made, { id: string; title: string }>({ query: ({ id, title }) => ({ path: `/registers/${id}`, method: 'PATCH', body: { title } }), ...touches }),
    deleteList: build.mutation<Made, string>({ query: (id) => ({ path: `/registers/${id}`, method: 'DELETE' }), ...touches }),
    makeField: build.mutation<Made, { registerId: string; field: MakeFieldDto }>({ query: ({ registerId, field }) => ({ path: `/registers/${registerId}/fields`, method: 'POST', body: field }), ...touches }),
    renameField: build.mutation<Made, { id: string; title: string }>({ query: ({ id, title }) => ({ path: `/fields/${id}`, method: 'PATCH', body: { title } }), ...touches }),
    deleteField: build.mutation<Made, string>({ query: (id) => ({ path: `/fields/${id}`, method: 'DELETE' }), ...touches }),
  }),
});
export const {
  useBuildQuery,
  useMakeSheetMutation,
  useRetitleSheetMutation,
  useDeleteSheetMutation,
  useMakeListMutation,
  useRetitleListMutation,
  useDeleteListMutation,
  useMakeFieldMutation,
  useRenameFieldMutation,
  useDeleteFieldMutation,
} = buildApi;
