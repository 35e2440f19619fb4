// Forms over the API: laid out, published, opened by links, and filled.
import type { Filled, FillFormDto, FillView, FormView, MakeFormDto, MakeLinkDto } from '@dellum/contract';
import type { FormLayout } from '@dellum/core';
import { api } from './api.js';
import { withLanguages } from './ruleLanguages.js';

/** A form as it is laid out, and the edition of it that was changed. */
interface Laid {
  readonly title: string;
  readonly layout: FormLayout;
  readonly edition: number;
}
/** Who fills: somebody of the house a form by its id, or whoever has the token of a link. */
export type FormAt =
  | { readonly formId: string; readonly version?: number; readonly token?: undefined }
  | { readonly token: string; readonly formId?: undefined };

const pathOf = (at: FormAt) => (at.token === undefined ? `/forms/${at.formId}` : `/open/${at.token}`);

export const formsApi = api.injectEndpoints({
  endpoints: (build) => ({
    form: build.query<FormView, string>({ query: (id) => `/forms/${id}`, providesTags: (_result, _error, id) => [{ type: 'Form', id }] }),
    makeForm: build.mutation<{ id: string }, MakeFormDto>({
      query: (body) => ({ path: '/forms', method: 'POST', changesBuild: true, body }),
      invalidatesTags: ['Build'],
    }),
    layForm: build.mutation<{ edition: number }, { id: string; form: Laid }>({
      query: ({ id, form }) => ({ path: `/forms/${id}`, method: 'PUT', body: form }),
    }),
    publishForm: build.mutation<{ version: number }, string>({
      query: (id) => ({ path: `/forms/${id}/versions`, method: 'POST', changesBuild: true }),
      invalidatesTags: (_result, _error, id) => ['Build', { type: 'Form', id }],
    }),
    closeForm: build.mutation<null, string>({
      query: (id) => ({ path: `/forms/${id}/versions`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: (_result, _error, id) => ['Build', { type: 'Form', id }],
    }),
    deleteForm: build.mutation<null, string>({
      query: (id) => ({ path: `/forms/${id}`, method: 'DELETE', changesBuild: true }),
      invalidatesTags: ['Build'],
    }),
    makeLink: build.mutation<{ id: string; token: string }, { id: string; link: MakeLinkDto }>({
      query: ({ id, link }) => ({ path: `/forms/${id}/links`, method: 'POST', body: link }),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Form', id }],
    }),
    closeLink: build.mutation<null, { id: string; linkId: string }>({
      query: ({ id, linkId }) => ({ path: `/forms/${id}/links/${linkId}`, method: 'DELETE' }),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Form', id }],
    }),
    filling: build.query<FillView, FormAt>({
      query: (at) =>
        at.token === undefined ? `${pathOf(at)}/filling${at.version === undefined ? '' : `?version=${at.version}`}` : pathOf(at),
      transformResponse: (view: FillView) =>
        withLanguages(
          view,
          view.fields.map(({ rule }) => rule),
        ),
      providesTags: (_result, _error, { formId }) => (formId ? [{ type: 'Form', id: `filling ${formId}` }] : []),
    }),
    fillForm: build.mutation<Filled, { at: FormAt; body: FillFormDto }>({
      query: ({ at, body }) => ({ path: `${pathOf(at)}/entries`, method: 'POST', body }),
    }),
  }),
});
export const {
  useFormQuery,
  useMakeFormMutation,
  useLayFormMutation,
  usePublishFormMutation,
  useCloseFormMutation,
  useDeleteFormMutation,
  useMakeLinkMutation,
  useCloseLinkMutation,
  useFillingQuery,
  useFillFormMutation,
} = formsApi;
