// Files that came back, over the API: brought, followed while they are read, decided upon, stored.
import type {
  DecideAllDto,
  DecideRowDto,
  FileColumn,
  Outcome,
  ReturnedFileView,
  ReturnedRow,
  ReturnedRows,
  ReturnedShown,
} from '@dellum/contract';
import { api, ask } from './api.js';
import { sourceTags } from './sourcesApi.js';
import type { AppDispatch } from './store.js';
import type { RequestProblem } from './problem.js';

const path = '/returned-files';
const tag = (id: number) => [{ type: 'Returned', id } as const];

export const returnedApi = api.injectEndpoints({
  endpoints: (build) => ({
    returnedFiles: build.query<ReturnedFileView[], void>({ query: () => path, providesTags: ['Returned'] }),
    returnedFile: build.query<ReturnedFileView, number>({ query: (id) => `${path}/${id}`, providesTags: (_file, _error, id) => tag(id) }),
    returnedRows: build.query<ReturnedRows, { id: number; show: ReturnedShown }>({
      query: ({ id, show }) => `${path}/${id}/rows?show=${show}`,
      providesTags: (_rows, _error, { id }) => tag(id),
    }),
    setReturnedColumns: build.mutation<ReturnedFileView, { id: number; registerId: string; columns: readonly FileColumn[] }>({
      query: ({ id, ...body }) => ({ path: `${path}/${id}/columns`, method: 'PUT', body }),
      invalidatesTags: (_file, _error, { id }) => tag(id),
    }),
    compareAgain: build.mutation<ReturnedFileView, number>({
      query: (id) => ({ path: `${path}/${id}/compared`, method: 'POST' }),
      invalidatesTags: (_file, _error, id) => tag(id),
    }),
    decideRow: build.mutation<ReturnedRow, { id: number; ord: number; decision: DecideRowDto }>({
      query: ({ id, ord, decision }) => ({ path: `${path}/${id}/rows/${ord}`, method: 'PUT', body: decision }),
      invalidatesTags: (_row, _error, { id }) => tag(id),
    }),
    decideAll: build.mutation<ReturnedFileView, { id: number; decision: DecideAllDto }>({
      query: ({ id, decision }) => ({ path: `${path}/${id}/decided`, method: 'PUT', body: decision }),
      invalidatesTags: (_file, _error, { id }) => tag(id),
    }),
    rememberName: build.mutation<Outcome, { id: number; ord: number; field: string; name: string }>({
      query: ({ id, ord, ...body }) => ({ path: `${path}/${id}/rows/${ord}/other-names`, method: 'POST', body }),
      invalidatesTags: sourceTags,
    }),
    applyReturned: build.mutation<ReturnedFileView, number>({
      query: (id) => ({ path: `${path}/${id}/applied`, method: 'POST' }),
      invalidatesTags: ['Returned'],
    }),
    removeReturned: build.mutation<null, number>({
      query: (id) => ({ path: `${path}/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Returned'],
    }),
  }),
});
export const {
  useReturnedFilesQuery,
  useReturnedFileQuery,
  useReturnedRowsQuery,
  useSetReturnedColumnsMutation,
  useCompareAgainMutation,
  useDecideRowMutation,
  useDecideAllMutation,
  useRememberNameMutation,
  useApplyReturnedMutation,
  useRemoveReturnedMutation,
} = returnedApi;

/** Brings a file; `registerId`: the sheet at which it is brought. Throws the problem as a request does. */
export const bringFile =
  (file: File, registerId: string | undefined) =>
  async (dispatch: AppDispatch): Promise<ReturnedFileView> => {
    const query = new URLSearchParams({ name: file.name.slice(0, 200), ...(registerId !== undefined && { registerId }) });
    const answer = await ask({ path: `${path}?${query.toString()}`, method: 'POST', file }, new AbortController().signal);
    if ('error' in answer) throw answer.error satisfies RequestProblem;
    dispatch(api.util.invalidateTags(['Returned']));
    return answer.data as ReturnedFileView;
  };
