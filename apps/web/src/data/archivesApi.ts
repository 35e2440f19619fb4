// House archives over the API: looked at, brought in; and templates.
import type { ArchiveBrought, ArchiveLook, ArchiveOutDto, BringArchiveDto, Template } from '@dellum/contract';
import { api, ask } from './api.js';
import type { RequestProblem } from './problem.js';
import type { AppDispatch } from './store.js';

const path = '/archives';

export const archivesApi = api.injectEndpoints({
  endpoints: (build) => ({
    templates: build.query<Template[], void>({ query: () => `${path}/templates` }),
    archiveLook: build.query<ArchiveLook, string>({ query: (look) => `${path}/${look}` }),
    lookAtTemplate: build.mutation<ArchiveLook, string>({
      query: (template) => ({ path: `${path}/templates`, method: 'POST', body: { template } }),
    }),
    bringArchive: build.mutation<ArchiveBrought, BringArchiveDto>({
      query: (body) => ({ path: `${path}/brought`, method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['People', 'Linked', 'Figures', 'Form'],
    }),
    forgetArchive: build.mutation<null, string>({ query: (look) => ({ path: `${path}/${look}`, method: 'DELETE' }) }),
  }),
});
export const { useTemplatesQuery, useArchiveLookQuery, useLookAtTemplateMutation, useBringArchiveMutation, useForgetArchiveMutation } =
  archivesApi;

/** Where the browser fetches the house as an archive. */
export const archiveAddress = (wanted: ArchiveOutDto): string => `/api/v1${path}/house?${new URLSearchParams({ ...wanted }).toString()}`;

/** Sends an archive to be looked at. Throws the problem as a request does. */
export const sendArchive =
  (file: File) =>
  async (dispatch: AppDispatch): Promise<ArchiveLook> => {
    const answer = await ask({ path, method: 'POST', file }, new AbortController().signal);
    if ('error' in answer) throw answer.error satisfies RequestProblem;
    const look = answer.data as ArchiveLook;
    await dispatch(archivesApi.util.upsertQueryData('archiveLook', look.look, look));
    return look;
  };
