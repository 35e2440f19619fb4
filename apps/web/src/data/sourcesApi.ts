// Acts on lists and tables, and their slips, over the API.
import { original } from '@reduxjs/toolkit';
import type { ActDto, AnswerDto, CanAgain, EntryView, Outcome, Slip } from '@dellum/contract';
import { api } from './api.js';
import { listed } from './listEntries.js';
import { isProblem, type RequestProblem } from './problem.js';
import { actsTurn, inTurn } from './inTurn.js';
import type { AppDispatch } from './store.js';
import { shownAfter } from './shownAfter.js';
import { entriesApi, listsAhead } from './entriesApi.js';

/** What a change of the sources may touch. */
export const sourceTags = ['Register', 'Build', 'Slips', 'Lineage', 'Catalog', 'Counts', 'Ranges', 'Upkeep', 'History'] as const;

export interface ActsArg {
  readonly registerId: string;
  readonly acts: readonly ActDto[];
  /** The act that these go on with, which may not be answered yet; they fail with it, by its `RequestProblem`. */
  readonly joins?: number | Promise<number | undefined> | undefined;
}

/** What came of acts, and when their answer was here (`performance.now()`). */
type Done = Outcome & { readonly answeredAt: number };

export const sourcesApi = api.injectEndpoints({
  endpoints: (build) => ({
    slips: build.query<Slip[], void>({ query: () => '/slips', providesTags: ['Slips'] }),
    act: build.mutation<Done, ActsArg>({
      // Acts on one register go one after the other, in the order in which they were done.
      queryFn: ({ registerId, acts, joins }, _api, _options, ask) =>
        inTurn(actsTurn(registerId), async () => {
          const joined = await Promise.resolve(joins).catch((problem: RequestProblem) => problem);
          if (isProblem(joined)) return { error: joined };
          const answer = await ask({
            path: `/registers/${registerId}/acts`,
            method: 'POST',
            body: { acts, ...(joined !== undefined && { joins: joined }) },
          });
          return answer.error ? { error: answer.error } : { data: { ...(answer.data as Outcome), answeredAt: performance.now() } };
        }),
      invalidatesTags: (_result, _error, { registerId }) => [
        { type: 'Register', id: registerId },
        'Build',
        'Slips',
        'Lineage',
        'Catalog',
        'Ranges',
        'Upkeep',
        'History',
      ],
    }),
    canAgain: build.query<CanAgain, string>({ query: (sheetId) => `/sheets/${sheetId}/again`, providesTags: ['History'] }),
    again: build.mutation<Outcome, { sheetId: string; as: 'undo' | 'redo' }>({
      query: ({ sheetId, as }) => ({ path: `/sheets/${sheetId}/${as}`, method: 'POST', changesBuild: true }),
      invalidatesTags: sourceTags,
    }),
    takeBack: build.mutation<Outcome, number>({
      query: (act) => ({ path: '/acts/taken-back', method: 'POST', changesBuild: true, body: { act } }),
      invalidatesTags: sourceTags,
    }),
    answerSlip: build.mutation<Outcome, { id: string; answers: readonly AnswerDto[] }>({
      query: ({ id, answers }) => ({ path: `/slips/${id}/answers`, method: 'POST', changesBuild: true, body: { answers } }),
      invalidatesTags: sourceTags,
    }),
    leaveSlip: build.mutation<null, string>({ query: (id) => ({ path: `/slips/${id}`, method: 'DELETE' }), invalidatesTags: ['Slips'] }),
  }),
});
/** What a change makes of a list, which is not looked at through its draft: that would make one of each row. */
const anew =
  (change: (entries: readonly EntryView[]) => readonly EntryView[]) =>
  (draft: EntryView[]): EntryView[] =>
    listed(change(original(draft)!));

/**
 * Does acts that are shown before they are stored: new rows, moved ones, and cells written into them. One that has to wait is shown as it
 * was.
 * `failing` hears what went wrong before what was shown is taken off the screen.
 */
export const actAtOnce =
  (arg: ActsArg, failing?: (error: unknown) => void) =>
  async (dispatch: AppDispatch): Promise<Outcome> => {
    const change = (entries: readonly EntryView[]) => shownAfter(entries, arg.acts);
    const ahead = listsAhead.note(arg.registerId, change);
    dispatch(entriesApi.util.updateQueryData('listEntries', arg.registerId, anew(change)));
    // Others may have been shown since: they stay.
    const undo = () => {
      ahead.dropped();
      const left = listsAhead.again(arg.registerId);
      if (left) dispatch(entriesApi.util.updateQueryData('listEntries', arg.registerId, () => listed(left)));
    };
    const request = dispatch(sourcesApi.endpoints.act.initiate(arg));
    try {
      const outcome = await request.unwrap();
      if (outcome.slip) undo();
      else ahead.settled(outcome.answeredAt);
      return outcome;
    } catch (error) {
      failing?.(error);
      undo();
      throw error;
    } finally {
      request.reset();
    }
  };

export const {
  useSlipsQuery,
  useCanAgainQuery,
  useActMutation,
  useAgainMutation,
  useTakeBackMutation,
  useAnswerSlipMutation,
  useLeaveSlipMutation,
} = sourcesApi;
