// Arrangements over the API: how I look at a register, and the values that its entries hold.
import type { Arrangement } from '@dellum/core';
import type { ArrangementView, HeldValues } from '@dellum/contract';
import { api } from '../../api/api.js';

export const arrangementsApi = api.injectEndpoints({
  endpoints: (build) => ({
    arrangement: build.query<ArrangementView, string>({ query: (registerId) => `/registers/${registerId}/arrangement`, providesTags: (_result, _error, id) => [{ type: 'Arrangement', id }] }),
    keepArrangement: build.mutation<ArrangementView, { registerId: string; arrangement: Arrangement }>({
      query: ({ registerId, arrangement }) => ({ path: `/registers/${registerId}/arrangement`, method: 'PUT', body: arrangement }),
      /** Shown at once; the entries follow when the server has arranged them. */
      async onQueryStarted({ registerId, arrangement }, { dispatch, queryFulfilled }) {
        const shown = dispatch(arrangementsApi.util.updateQueryData('arrangement', registerId, (view) => ({ ...view, arrangement })));
        try {
          const { data } = await queryFulfilled;
          dispatch(arrangementsApi.util.updateQueryData('arrangement', registerId, () => data));
        } catch {
          shown.undo();
        }
      },
    }),
    arrangeAnew: build.mutation<ArrangementView, string>({
      query: (registerId) => ({ path: `/registers/${registerId}/arrangement/anew`, method: 'POST' }),
      invalidatesTags: (_result, _error, id) => [{ type: 'Arrangement', id }],
    }),
    heldValues: build.query<HeldValues, { registerId: string; field: string; search: string }>({
      query: ({ registerId, field, search }) => `/registers/${registerId}/values?${new URLSearchParams({ field, search }).toString()}`,
      providesTags: ['Counts'],
    }),
  }),
});

export const { useArrangementQuery, useKeepArrangementMutation, useArrangeAnewMutation, useHeldValuesQuery } = arrangementsApi;
