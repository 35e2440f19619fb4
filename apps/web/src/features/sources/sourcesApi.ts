// Acts on lists, named ranges and slips over the API.
import type { ActDto, AnswerDto, ChangeRangeDto, MakeRangeDto, Outcome, Slip } from '@dellum/contract';
import { api } from '../../api/api.js';

export const sourcesApi = api.injectEndpoints({
  endpoints: (build) => ({
    slips: build.query<Slip[], void>({ query: () => '/slips', providesTags: ['Slips'] }),
    act: build.mutation<Outcome, { registerId: string; act: ActDto }>({
      query: ({ registerId, act }) => ({ path: `/registers/${registerId}/acts`, method: 'POST', body: act }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }, 'Build', 'Slips', 'Lineage', 'Catalog'],
    }),
    answerSlip: build.mutation<Outcome, { id: string; answers: readonly AnswerDto[] }>({
      query: ({ id, answers }) => ({ path: `/slips/${id}/answers`, method: 'POST', body: { answers } }),
      invalidatesTags: ['Slips', 'Register', 'Build', 'Lineage', 'Catalog', 'Counts'],
    }),
    leaveSlip: build.mutation<null, string>({ query: (id) => ({ path: `/slips/${id}`, method: 'DELETE' }), invalidatesTags: ['Slips'] }),
    makeRange: build.mutation<Outcome, MakeRangeDto>({ query: (body) => ({ path: '/ranges', method: 'POST', body }), invalidatesTags: ['Build', 'Slips', 'Lineage', 'Catalog'] }),
    changeRange: build.mutation<Outcome, { id: string; change: ChangeRangeDto }>({
      query: ({ id, change }) => ({ path: `/ranges/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['Build', 'Slips', 'Lineage', 'Catalog'],
    }),
    deleteRange: build.mutation<Outcome, string>({ query: (id) => ({ path: `/ranges/${id}`, method: 'DELETE' }), invalidatesTags: ['Build', 'Lineage', 'Catalog'] }),
  }),
});
export const { useSlipsQuery, useActMutation, useAnswerSlipMutation, useLeaveSlipMutation, useMakeRangeMutation, useChangeRangeMutation, useDeleteRangeMutation } = sourcesApi;
