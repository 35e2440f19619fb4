// Downloads over the API: begun, followed until their file is written, fetched, stopped.
import type { DownloadDto, DownloadView, ValueFormatName } from '@dellum/contract';
import { api } from './api.js';
import type { RecordsArg } from './entriesApi.js';
import { isProblem, passes } from './problem.js';
import type { AppDispatch } from './store.js';

/** What goes into a file: what is arranged, or what is found among the records. */
export type WantedFile = Omit<DownloadDto, 'found'> & { readonly found?: Pick<RecordsArg, 'search' | 'only' | 'sort'> };

export const downloadsApi = api.injectEndpoints({
  endpoints: (build) => ({
    downloads: build.query<DownloadView[], void>({ query: () => '/downloads', providesTags: ['Downloads'] }),
    beginDownload: build.mutation<DownloadView, { registerId: string; wanted: WantedFile }>({
      query: ({ registerId, wanted }) => ({ path: `/registers/${registerId}/downloads`, method: 'POST', body: wanted }),
      invalidatesTags: ['Downloads'],
    }),
    download: build.query<DownloadView, number>({ query: (id) => `/downloads/${id}` }),
    removeDownload: build.mutation<null, number>({
      query: (id) => ({ path: `/downloads/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Downloads'],
    }),
  }),
});
export const { useDownloadsQuery, useBeginDownloadMutation, useRemoveDownloadMutation } = downloadsApi;

export const catalogFileAddress = (
  id: string,
  { format, all, guarded }: { format: ValueFormatName; all: boolean; guarded: boolean },
): string => `/api/v1/catalogs/${id}/file?${new URLSearchParams({ format, all: String(all), guarded: String(guarded) }).toString()}`;

const askEvery = 300;
const pause = () => new Promise((resolve) => setTimeout(resolve, askEvery));

export const fileAddress = (id: number): string => `/api/v1/downloads/${id}/file`;

/** Follows a download until its file is written; undefined when it was stopped. */
export const followDownload =
  (begun: DownloadView, went: (view: DownloadView) => void) =>
  async (dispatch: AppDispatch): Promise<DownloadView | undefined> => {
    let view = begun;
    while (view.state !== 'done') {
      went(view);
      await pause();
      const answer = await dispatch(downloadsApi.endpoints.download.initiate(view.id, { subscribe: false, forceRefetch: true }));
      // While the server is away it is asked again; whatever else it answers, there is no file to wait for.
      if (answer.isError && isProblem(answer.error) && !passes(answer.error)) return undefined;
      view = answer.data ?? view;
    }
    dispatch(api.util.invalidateTags(['Downloads']));
    return view;
  };
