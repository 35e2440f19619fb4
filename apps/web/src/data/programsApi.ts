// Access tokens of other programs, and webhooks that tell them, over the API.
import type { AccessTokenDto, AccessTokenView, MadeToken, MadeWebhook, WebhookDto, WebhookMessageView, Webhooks } from '@dellum/contract';
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
    webhooks: build.query<Webhooks, void>({ query: () => '/webhooks', providesTags: ['Webhooks'] }),
    webhookMessages: build.query<WebhookMessageView[], string>({ query: (id) => `/webhooks/${id}/messages`, providesTags: ['Webhooks'] }),
    makeWebhook: build.mutation<MadeWebhook, WebhookDto>({
      query: (body) => ({ path: '/webhooks', method: 'POST', body }),
      invalidatesTags: ['Webhooks'],
    }),
    removeWebhook: build.mutation<null, string>({
      query: (id) => ({ path: `/webhooks/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Webhooks', 'Upkeep'],
    }),
    testWebhook: build.mutation<WebhookMessageView, string>({
      query: (id) => ({ path: `/webhooks/${id}/tests`, method: 'POST' }),
      invalidatesTags: ['Webhooks', 'Upkeep'],
    }),
    turnOnWebhook: build.mutation<null, string>({
      query: (id) => ({ path: `/webhooks/${id}/on`, method: 'POST' }),
      invalidatesTags: ['Webhooks', 'Upkeep'],
    }),
  }),
});
export const {
  useAccessTokensQuery,
  useMakeTokenMutation,
  useEndTokenMutation,
  useWebhooksQuery,
  useWebhookMessagesQuery,
  useMakeWebhookMutation,
  useRemoveWebhookMutation,
  useTestWebhookMutation,
  useTurnOnWebhookMutation,
} = programsApi;
