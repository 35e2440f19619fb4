// Acts on lists and tables, and their slips, over the API.
import type { ActDto, AnswerDto, Outcome, Slip } from '@dellum/contract';
import { api } from '../../api/api.js';

/** What a change of the sources may touch. */
export const sourceTags = ['Register', 'Build', 'Slips', 'Lineage', 'Catalog', 'Counts', 'Ranges', 'Upkeep', 'History'] as const;

export const sourcesApi = api.injectEndpoints({
  endpoints: (build) => ({
    slips: build.query<Slip[], void>({ query: () => '/slips', providesTags: ['Slips'] }),
    act: build.mutation<Outcome, { registerId: string; acts: readonly ActDto[] }>({
      query: ({ registerId, acts }) => ({ path: `/registers/${registerId}/acts`, method: 'POST', body: { acts } }),
      invalidatesTags: (_result, _error, { registerId }) => [{ type: 'Register', id: registerId }, 'Build', 'Slips', 'Lineage', 'Catalog', 'Ranges', 'Upkeep', 'History'],
    }),
    again: build.mutation<Outcome, { sheetId: string; as: 'undo' | 'redo' }>({ query: ({ sheetId, as }) => ({ path: `/sheets/${sheetId}/${as}`, method: 'POST' }), invalidatesTags: sourceTags }),
    takeBack: build.mutation<Outcome, number>({ query: (act) => ({ path: '/acts/taken-back', method: 'POST', body: { act } }), invalidatesTags: sourceTags }),
    answerSlip: build.mutation<Outcome, { id: string; answers: readonly AnswerDto[] }>({
      query: ({ id, answers }) => ({ path: `/slips/${id}/answers`, method: 'POST', body: { answers } }),
      invalidatesTags: sourceTags,
    }),
    leaveSlip: build.mutation<null, string>({ query: (id) => ({ path: `/slips/${id}`, method: 'DELETE' }), invalidatesTags: ['Slips'] }),
  }),
});
export const { useSlipsQuery, useActMutation, useAgainMutation, useTakeBackMutation, useAnswerSlipMutation, useLeaveSlipMutation } = sourcesApi;
