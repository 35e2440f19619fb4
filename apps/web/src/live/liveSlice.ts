// Whether the live stream and the database are there.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { isAway, type Away } from '../data/away.js';
import { registered } from '../data/store.js';

export type LiveState = 'connecting' | 'live' | 'away';

declare module '../data/store.js' {
  interface RootState {
    live: { stream: LiveState; away: Away | null };
  }
}

export const liveSlice = registered(
  createSlice({
    name: 'live',
    initialState: { stream: 'connecting' as LiveState, away: null as Away | null },
    reducers: {
      streamIs: (state, { payload }: PayloadAction<LiveState>) => {
        state.stream = payload;
      },
    },
    extraReducers: (builder) => {
      builder.addCase(isAway, (state, { payload }) => {
        state.away = payload;
      });
    },
  }),
);
export const { streamIs } = liveSlice.actions;
