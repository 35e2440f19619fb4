// Access tokens of other programs over the API.
import type { AccessTokenDto, AccessTokenView, MadeToken } from '@dellum/contract';
import { api } from './api.js';

export const programsApi = api.injectEndpoints({
  endpoints: (build) => ({
    accessTokens: build.query<AccessTokenView[], void>({ query: () => '/access-tokens', providesTags: ['Tokens'] }),
    makeToken: build.mutation<MadeToken, AccessTokenDto>({
      query: (body) => ({ path: '/access-tokens', method: 'POST', body }),
      invalidatesTags: ['Tokens'],
    }),
    endToken: build.mutation<null, string>({
      query: (id) => ({ path: `/access-tokens/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Tokens'],
    }),
  }),
});
export const { useAccessTokensQuery, useMakeTokenMutation, useEndTokenMutation } = programsApi;
