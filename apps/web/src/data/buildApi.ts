// The build over the API: sheets, lists and fields.
import type { FieldKind } from '@dellum/core';
import type {
  BuildView,
  ChangeFieldDto,
  ChangeSheetDto,
  ClosingDto,
  ClosingTrial,
  KindTrial,
  LimitSheetDto,
  MakeFieldDto,
  MakeListDto,
  MakeSheetDto,
  MakeTableDto,
  Outcome,
} from '@dellum/contract';
import { api } from './api.js';
import type { AppDispatch, RootState } from './store.js';

type Made = { id: string };
const touches = { invalidatesTags: ['Build', 'Counts', 'Lineage', 'Ranges'] as const };
/** What can be put before another of its kind, or last. */
type Placed = { id: string; before?: string };
const placing = (kind: 'sheets' | 'registers' | 'fields') => ({
  query: ({ id, before }: Placed) => ({ path: `/${kind}/${id}/place`, method: 'POST' as const, body: before ? { before } : {} }),
  ...touches,
});

export const buildApi = api.injectEndpoints({
  endpoints: (build) => ({
    makeSheet: build.mutation<Made, MakeSheetDto>({
      query: (body) => ({ path: '/sheets', method: 'POST', changesBuild: true, body }),
      ...touches,
    }),
    changeSheet: build.mutation<Made, { id: string; change: ChangeSheetDto }>({
      query: ({ id, change }) => ({ path: `/sheets/${id}`, method: 'PATCH', changesBuild: true, body: change }),
      ...touches,
    }),
    limitSheet: build.mutation<Made, { id: string; limits: LimitSheetDto }>({
      query: ({ id, limits }) => ({ path: `/sheets/${id}/limits`, method: 'PUT', changesBuild: true, body: limits }),
      ...touches,
    }),
    setClosing: build.mutation<null, { id: string; closing: ClosingDto }>({
      query: ({ id, closing }) => ({ path: `/registers/${id}/closing`, method: 'PUT', changesBuild: true, body: closing }),
      ...touches,
    }),
    closingTrial: build.query<ClosingTrial, { id: string; closing: ClosingDto }>({
      query: ({ id, closing }) => ({ path: `/registers/${id}/closing/trial`, method: 'POST', body: closing }),
      providesTags: ['Counts'],
    }),
    copySheet: build.mutation<Made, string>({
      query: (id) => ({ path: `/sheets/${id}/copies`, method: 'POST', changesBuild: true }),
      ...touches,
    }),
    placeSheet: build.mutation<Made, Placed>(placing('sheets')),
    placeRegister: build.mutation<Made, Placed>(placing('registers')),
    placeField: build.mutation<Made, Placed>(placing('fields')),
    makeTable: build.mutation<Made, MakeTableDto>({
      query: (body) => ({ path: '/tables', method: 'POST', changesBuild: true, body }),
      ...touches,
    }),
    deleteSheet: build.mutation<Made, string>({
      query: (id) => ({ path: `/sheets/${id}`, method: 'DELETE', changesBuild: true }),
      ...touches,
    }),
    makeList: build.mutation<Made, MakeListDto>({
      query: (body) => ({ path: '/lists', method: 'POST', changesBuild: true, body }),
      ...touches,
    }),
    retitleList: build.mutation<Outcome, { id: string; title: string }>({
      query: ({ id, title }) => ({ path: `/registers/${id}`, method: 'PATCH', changesBuild: true, body: { title } }),
      invalidatesTags: ['Build', 'Slips', 'Lineage', 'Catalog', 'Ranges'],
    }),
    deleteList: build.mutation<Made, string>({
      query: (id) => ({ path: `/registers/${id}`, method: 'DELETE', changesBuild: true }),
      ...touches,
    }),
    makeField: build.mutation<Made, { registerId: string; field: MakeFieldDto }>({
      query: ({ registerId, field }) => ({ path: `/registers/${registerId}/fields`, method: 'POST', changesBuild: true, body: field }),
      ...touches,
    }),
    changeField: build.mutation<Made, { id: string; change: ChangeFieldDto }>({
      query: ({ id, change }) => ({ path: `/fields/${id}`, method: 'PATCH', changesBuild: true, body: change }),
      ...touches,
    }),
    /** What another kind would do to what the entries hold. */
    tryKind: build.mutation<KindTrial, { id: string; kind: FieldKind }>({
      query: ({ id, kind }) => ({ path: `/fields/${id}/kind/trial`, method: 'POST', body: { kind } }),
    }),
    changeKind: build.mutation<null, { id: string; kind: FieldKind }>({
      query: ({ id, kind }) => ({ path: `/fields/${id}/kind`, method: 'PUT', changesBuild: true, body: { kind } }),
      invalidatesTags: ['Build', 'Counts', 'Lineage', 'Ranges', 'Register', 'Upkeep'],
    }),
    deleteField: build.mutation<Made, string>({
      query: (id) => ({ path: `/fields/${id}`, method: 'DELETE', changesBuild: true }),
      ...touches,
    }),
  }),
});
export const {
  useMakeSheetMutation,
  useChangeSheetMutation,
  useLimitSheetMutation,
  useSetClosingMutation,
  useClosingTrialQuery,
  useCopySheetMutation,
  usePlaceSheetMutation,
  usePlaceRegisterMutation,
  usePlaceFieldMutation,
  useMakeTableMutation,
  useDeleteSheetMutation,
  useMakeListMutation,
  useRetitleListMutation,
  useDeleteListMutation,
  useMakeFieldMutation,
  useChangeFieldMutation,
  useDeleteFieldMutation,
  useTryKindMutation,
  useChangeKindMutation,
} = buildApi;
export const { useBuildQuery } = api;

/** The build as it stands here; after a request that changes it, as it is by that. */
export const buildNow =
  () =>
  (_dispatch: AppDispatch, state: () => RootState): BuildView | undefined =>
    api.endpoints.build.select()(state()).data;
