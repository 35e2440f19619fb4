// Intakes over the API: set up, fed by hand, and what has come through them.
import type { IntakeDto, IntakeFileView, IntakeView } from '@dellum/contract';
import { api, ask } from './api.js';
import type { RequestProblem } from './problem.js';
import type { AppDispatch } from './store.js';

const path = '/intakes';

export const intakesApi = api.injectEndpoints({
  endpoints: (build) => ({
    intakes: build.query<IntakeView[], void>({ query: () => path, providesTags: ['Intakes'] }),
    intakeFiles: build.query<IntakeFileView[], string>({ query: (id) => `${path}/${id}/files`, providesTags: ['Intakes'] }),
    makeIntake: build.mutation<IntakeView, IntakeDto>({ query: (body) => ({ path, method: 'POST', body }), invalidatesTags: ['Intakes'] }),
    changeIntake: build.mutation<IntakeView, { id: string; intake: IntakeDto }>({
      query: ({ id, intake }) => ({ path: `${path}/${id}`, method: 'PUT', body: intake }),
      invalidatesTags: ['Intakes', 'Upkeep'],
    }),
    turnIntake: build.mutation<IntakeView, { id: string; on: boolean }>({
      query: ({ id, on }) => ({ path: `${path}/${id}/${on ? 'on' : 'off'}`, method: 'POST' }),
      invalidatesTags: ['Intakes', 'Upkeep'],
    }),
    removeIntake: build.mutation<null, string>({
      query: (id) => ({ path: `${path}/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Intakes', 'Returned', 'Upkeep'],
    }),
    takeIntakeBack: build.mutation<null, { id: string; file: number }>({
      query: ({ id, file }) => ({ path: `${path}/${id}/files/${file}/taken-back`, method: 'POST' }),
      invalidatesTags: ['Intakes'],
    }),
  }),
});
export const {
  useIntakesQuery,
  useIntakeFilesQuery,
  useMakeIntakeMutation,
  useChangeIntakeMutation,
  useTurnIntakeMutation,
  useRemoveIntakeMutation,
  useTakeIntakeBackMutation,
} = intakesApi;

/** Brings a file to an intake. Throws the problem as a request does. */
export const bringToIntake =
  (id: string, file: File) =>
  async (dispatch: AppDispatch): Promise<void> => {
    const query = new URLSearchParams({ name: file.name.slice(0, 200) });
    const answer = await ask({ path: `${path}/${id}/files?${query.toString()}`, method: 'POST', file }, new AbortController().signal);
    if ('error' in answer) throw answer.error satisfies RequestProblem;
    dispatch(api.util.invalidateTags(['Intakes', 'Returned']));
  };
