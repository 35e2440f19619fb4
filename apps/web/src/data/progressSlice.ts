// How far the counting of figures is.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { registered } from './store.js';

export interface Progress {
  readonly done: number;
  readonly total: number;
}

declare module './store.js' {
  interface RootState {
    figureProgress: Record<string, Progress>;
  }
}

export const progressSlice = registered(
  createSlice({
    name: 'figureProgress',
    initialState: {} as Record<string, Progress>,
    reducers: {
      progressed: (progress, { payload: { key, ...how } }: PayloadAction<Progress & { key: string }>) => {
        progress[key] = how;
      },
    },
  }),
);
export const { progressed } = progressSlice.actions;
