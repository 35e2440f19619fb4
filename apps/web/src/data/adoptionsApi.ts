// Houses out of files, over the API: brought, looked at, mended, applied, taken back.
import type { AdoptionSummary, AdoptionView, MendColumnDto, MendListDto, MendSpellingsDto, MendTableDto } from '@dellum/contract';
import { api, ask } from './api.js';
import { sourceTags } from './sourcesApi.js';
import type { AppDispatch } from './store.js';
import type { RequestProblem } from './problem.js';

const path = '/adoptions';
const changed = ['Adoptions'] as const;

/** What is changed by hand of a proposal, and what it is of. */
export type Mend = { readonly id: string } & (
  | { readonly of: 'tables'; readonly mend: MendTableDto }
  | { readonly of: 'columns'; readonly mend: MendColumnDto }
  | { readonly of: 'lists'; readonly mend: MendListDto }
  | { readonly of: 'spellings'; readonly mend: MendSpellingsDto }
);

export const adoptionsApi = api.injectEndpoints({
  endpoints: (build) => ({
    adoptions: build.query<AdoptionSummary[], void>({ query: () => path, providesTags: changed }),
    adoption: build.query<AdoptionView, string>({ query: (id) => `${path}/${id}`, providesTags: [...changed, 'Build'] }),
    mendAdoption: build.mutation<AdoptionView, Mend>({
      query: ({ id, of, mend }) => ({ path: `${path}/${id}/${of}`, method: 'PUT', body: mend }),
      onQueryStarted: async ({ id }, { dispatch, queryFulfilled }) => {
        const { data } = await queryFulfilled.catch(() => ({ data: undefined }));
        if (data) dispatch(adoptionsApi.util.updateQueryData('adoption', id, () => data));
      },
    }),
    applyAdoption: build.mutation<AdoptionView, string>({
      query: (id) => ({ path: `${path}/${id}/applied`, method: 'POST' }),
      invalidatesTags: changed,
    }),
    takeBackAdoption: build.mutation<AdoptionView, string>({
      query: (id) => ({ path: `${path}/${id}/taken-back`, method: 'POST', changesBuild: true }),
      invalidatesTags: [...changed, ...sourceTags],
    }),
    removeAdoption: build.mutation<null, string>({
      query: (id) => ({ path: `${path}/${id}`, method: 'DELETE' }),
      invalidatesTags: changed,
    }),
  }),
});
export const {
  useAdoptionsQuery,
  useAdoptionQuery,
  useMendAdoptionMutation,
  useApplyAdoptionMutation,
  useTakeBackAdoptionMutation,
  useRemoveAdoptionMutation,
} = adoptionsApi;

export interface FilesBrought {
  readonly id: string;
  /** Why one of them, and those after it, did not come. */
  readonly problem?: RequestProblem;
}

/**
 * Brings files into one proposal, one after another: the one that is given, or a new one. Throws the problem of the first as a request
 * does.
 */
export const adoptFiles =
  (files: readonly File[], proposal?: string) =>
  async (dispatch: AppDispatch): Promise<FilesBrought> => {
    let id = proposal;
    for (const file of files) {
      const query = new URLSearchParams({ name: file.name.slice(0, 200), ...(id !== undefined && { proposal: id }) });
      const answer = await ask({ path: `/adoption-files?${query.toString()}`, method: 'POST', file }, new AbortController().signal);
      if ('error' in answer) {
        if (id === undefined) throw answer.error;
        return { id, problem: { ...answer.error, detail: `${file.name}: ${answer.error.detail}` } };
      }
      ({ id } = answer.data as AdoptionView);
      dispatch(api.util.invalidateTags([...changed]));
    }
    return { id: id! };
  };
