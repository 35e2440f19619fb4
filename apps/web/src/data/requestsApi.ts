// Requests over the API: what waits, what became of a request at its entry, and the answers.
import type { AnswerRequestDto, OwnRequest, RequestAtEntry, RequestCount, RequestGroup } from '@dellum/contract';
import { api } from './api.js';

const requestsApi = api.injectEndpoints({
  endpoints: (build) => ({
    requests: build.query<RequestGroup[], void>({ query: () => '/requests', providesTags: ['Requests'] }),
    ownRequests: build.query<OwnRequest[], void>({ query: () => '/requests/own', providesTags: ['Requests'] }),
    requestCount: build.query<RequestCount, void>({ query: () => '/requests/count', providesTags: ['Requests'] }),
    requestsOfRegister: build.query<RequestAtEntry[], string>({
      query: (registerId) => `/registers/${registerId}/requests`,
      providesTags: ['Requests'],
    }),
    answerRequest: build.mutation<{ entries: number }, AnswerRequestDto>({
      query: (body) => ({ path: '/requests/answers', method: 'POST', body }),
      invalidatesTags: ['Requests', 'Counts'],
    }),
  }),
});
export const { useRequestsQuery, useOwnRequestsQuery, useRequestCountQuery, useRequestsOfRegisterQuery, useAnswerRequestMutation } =
  requestsApi;
