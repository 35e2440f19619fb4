// Named ranges over the API, with what the range doctor finds.
import type { ChangeRangeDto, CureDto, MakeRangeDto, Outcome, RangeLine, RangeLook, TellApartDto, ToldApart } from '@dellum/contract';
import { api } from './api.js';
import { sourceTags } from './sourcesApi.js';

export const rangesApi = api.injectEndpoints({
  endpoints: (build) => ({
    rangeLines: build.query<RangeLine[], void>({ query: () => '/ranges', providesTags: ['Ranges'] }),
    makeRange: build.mutation<Outcome, MakeRangeDto>({
      query: (body) => ({ path: '/ranges', method: 'POST', changesBuild: true, body }),
      invalidatesTags: sourceTags,
    }),
    changeRange: build.mutation<Outcome, { id: string; change: ChangeRangeDto }>({
      query: ({ id, change }) => ({ path: `/ranges/${id}`, method: 'PATCH', changesBuild: true, body: change }),
      invalidatesTags: sourceTags,
    }),
    lookAtChange: build.mutation<RangeLook, { id: string; change: ChangeRangeDto }>({
      query: ({ id, change }) => ({ path: `/ranges/${id}/look`, method: 'POST', body: change }),
    }),
    deleteRange: build.mutation<Outcome, string>({
      query: (id) => ({ path: `/ranges/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: sourceTags,
    }),
    /** Says that two values that look alike are two things. */
    tellApart: build.mutation<ToldApart, TellApartDto>({
      query: (body) => ({ path: '/upkeep/told-apart', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Build', 'Ranges', 'Upkeep'],
    }),
    forgetApart: build.mutation<null, string>({
      query: (id) => ({ path: `/upkeep/told-apart/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Build', 'Ranges', 'Upkeep'],
    }),
    cure: build.mutation<Outcome, CureDto>({
      query: (body) => ({ path: '/ranges/cures', method: 'POST', changesBuild: true, body }),
      invalidatesTags: sourceTags,
    }),
  }),
});
export const {
  useRangeLinesQuery,
  useMakeRangeMutation,
  useChangeRangeMutation,
  useLookAtChangeMutation,
  useDeleteRangeMutation,
  useCureMutation,
  useTellApartMutation,
  useForgetApartMutation,
} = rangesApi;
