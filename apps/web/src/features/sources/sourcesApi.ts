// Acts on lists and tables, and their slips, over the API.
import type { ActDto, AnswerDto, EntryView, Outcome, Slip } from '@dellum/contract';
import { api } from '../../api/api.js';
import { entriesApi } from '../entries/entriesApi.js';

/** What a change of the sources may touch. */
export const sourceTags = ['Register', 'Build', 'Slips', 'Lineage', 'Catalog', 'Counts', 'Ranges', 'Upkeep', 'History'] as const;

export interface ActsArg {
  readonly registerId: string;
  readonly acts: readonly ActDto[];
  readonly joins?: number | undefined;
  /** New rows at the end are shown before they are stored. */
  readonly showAtOnce?: boolean;
}

/** The rows of an act as they will be, under ids of their own until the stored ones come. */
const rowsShown = ({ fields = [], rows = [] }: ActDto): EntryView[] =>
  rows.map((texts) => ({ id: crypto.randomUUID(), version: 1, cells: Object.fromEntries(texts.flatMap((text, at) => (text.trim() === '' ? [] : [[fields[at]!, text]]))) }));

export const sourcesApi = api.injectEndpoints({
  endpoints: (build) => ({
    slips: build.query<Slip[], void>({ query: () => '/slips', providesTags: ['Slips'] }),
    act: build.mutation<Outcome, ActsArg>({
      query: ({ registerId, acts, joins }) => ({ path: `/registers/${registerId}/acts`, method: 'POST', body: { acts, ...(joins !== undefined && { joins }) } }),
      async onQueryStarted({ registerId, acts, showAtOnce }, { dispatch, queryFulfilled }) {
        if (!showAtOnce) return;
        const shown = dispatch(entriesApi.util.updateQueryData('listEntries', registerId, (entries) => void entries.push(...acts.flatMap(rowsShown))));
        const outcome = await queryFulfilled.catch(() => undefined);
        if (!outcome || outcome.data.slip) shown.undo();
      },
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
