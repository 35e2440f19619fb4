// How far the counting of figures is.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export interface Progress {
  readonly done: number;
  readonly total: number;
}

export const progressSlice = createSlice({
  name: 'figureProgress',
  initialState: {} as Record<string, Progress>,
  reducers: {
    progressed: (progress, { payload: { key, ...how } }: PayloadAction<Progress & { key: string }>) => {
      progress[key] = how;
    },
  },
});
export const { progressed } = progressSlice.actions;
