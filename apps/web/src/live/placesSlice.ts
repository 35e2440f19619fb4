// Where the others are: heard on the stream and forgotten when nothing is heard any more.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Whereabouts } from '@dellum/contract';
import { registered } from '../data/store.js';

/** With the moment at which it was heard (milliseconds). */
export type HeardPlace = Whereabouts & { readonly at: number };

declare module '../data/store.js' {
  interface RootState {
    places: Record<string, HeardPlace>;
  }
}

export const placesSlice = registered(
  createSlice({
    name: 'places',
    initialState: {} as Record<string, HeardPlace>,
    reducers: {
      placed: (places, { payload }: PayloadAction<HeardPlace>) => ({ ...places, [payload.personId]: payload }),
      forgotten: (places, { payload: before }: PayloadAction<number>) => {
        const heard = Object.entries(places).filter(([, { at }]) => at >= before);
        return heard.length === Object.keys(places).length ? places : Object.fromEntries(heard);
      },
    },
  }),
);
export const { placed, forgotten } = placesSlice.actions;
