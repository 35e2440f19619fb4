// Acts on blocks over the API: begun, followed until they are done; finding texts, and sums of blocks.
import type { BlockDto, BlockSum, EntryActDto, EntryActView, FindDto, Found } from '@dellum/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { api } from './api.js';
import { registered, type AppDispatch } from './store.js';

export const entryActsApi = api.injectEndpoints({
  endpoints: (build) => ({
    beginEntryAct: build.mutation<EntryActView, { registerId: string; act: EntryActDto }>({
      query: ({ registerId, act }) => ({ path: `/registers/${registerId}/entry-acts`, method: 'POST', body: act }),
    }),
    entryAct: build.query<EntryActView, { registerId: string; id: number }>({
      query: ({ registerId, id }) => `/registers/${registerId}/entry-acts/${id}`,
    }),
    found: build.query<Found, { registerId: string; asked: FindDto }>({
      query: ({ registerId, asked }) => ({ path: `/registers/${registerId}/found`, method: 'POST', body: asked }),
      providesTags: ['Counts'],
    }),
    blockSum: build.query<BlockSum, { registerId: string; block: BlockDto }>({
      query: ({ registerId, block }) => ({ path: `/registers/${registerId}/summed`, method: 'POST', body: block }),
      providesTags: ['Counts'],
    }),
  }),
});
export const { useFoundQuery, useBlockSumQuery, useEntryActQuery } = entryActsApi;

declare module './store.js' {
  interface RootState {
    acts: Record<string, EntryActView>;
  }
}

/** The acts of this browser tab that are under way, by register. */
export const actsSlice = registered(
  createSlice({
    name: 'acts',
    initialState: {} as Record<string, EntryActView>,
    reducers: {
      wentOn: (acts, { payload }: PayloadAction<EntryActView>) => ({ ...acts, [payload.registerId]: payload }),
      ended: (acts, { payload }: PayloadAction<string>) =>
        Object.fromEntries(Object.entries(acts).filter(([registerId]) => registerId !== payload)),
    },
  }),
);
const { wentOn, ended } = actsSlice.actions;

const askEvery = 400;
const pause = () => new Promise((resolve) => setTimeout(resolve, askEvery));

/** Begins an act and follows it until it is done. */
export const doAct =
  (registerId: string, act: EntryActDto) =>
  async (dispatch: AppDispatch): Promise<EntryActView> => {
    const view = await dispatch(entryActsApi.endpoints.beginEntryAct.initiate({ registerId, act })).unwrap();
    return dispatch(followAct(registerId, view));
  };

const actNow = (registerId: string, id: number) =>
  entryActsApi.endpoints.entryAct.initiate({ registerId, id }, { subscribe: false, forceRefetch: true });

/** Follows an act that was begun elsewhere until it is done. */
export const followActOf =
  (registerId: string, id: number) =>
  async (dispatch: AppDispatch): Promise<EntryActView> =>
    dispatch(followAct(registerId, await dispatch(actNow(registerId, id)).unwrap()));

const followAct =
  (registerId: string, begun: EntryActView) =>
  async (dispatch: AppDispatch): Promise<EntryActView> => {
    let view = begun;
    try {
      while (view.state !== 'done') {
        dispatch(wentOn(view));
        await pause();
        view = await dispatch(actNow(registerId, view.id)).unwrap();
      }
    } finally {
      dispatch(ended(registerId));
    }
    dispatch(api.util.invalidateTags([{ type: 'Register', id: registerId }, 'Counts']));
    return view;
  };
