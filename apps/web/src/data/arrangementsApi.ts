// Arrangements over the API: how I look at a register, and the values that its entries hold.
import type { Arrangement } from '@dellum/core';
import type { ArrangementView, HeldValues } from '@dellum/contract';
import { api } from './api.js';

export const arrangementsApi = api.injectEndpoints({
  endpoints: (build) => ({
    arrangement: build.query<ArrangementView, string>({
      query: (registerId) => `/registers/${registerId}/arrangement`,
      providesTags: (_result, _error, id) => [{ type: 'Arrangement', id }],
    }),
    keepArrangement: build.mutation<ArrangementView, { registerId: string; arrangement: Arrangement }>({
      query: ({ registerId, arrangement }) => ({ path: `/registers/${registerId}/arrangement`, method: 'PUT', body: arrangement }),
    }),
    arrangeAnew: build.mutation<ArrangementView, string>({
      query: (registerId) => ({ path: `/registers/${registerId}/arrangement/anew`, method: 'POST' }),
    }),
    heldValues: build.query<HeldValues, { registerId: string; field: string; search: string }>({
      query: ({ registerId, field, search }) => `/registers/${registerId}/values?${new URLSearchParams({ field, search }).toString()}`,
      providesTags: ['Counts'],
    }),
  }),
});

export const { useArrangementQuery, useHeldValuesQuery } = arrangementsApi;
