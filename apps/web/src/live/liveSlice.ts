// Whether the live stream and the database are there.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type LiveState = 'connecting' | 'live' | 'away';
/** What does not answer: the server itself, or its database. */
export type Away = 'server' | 'database';

export const liveSlice = createSlice({
  name: 'live',
  initialState: { stream: 'connecting' as LiveState, away: null as Away | null },
  reducers: {
    streamIs: (state, { payload }: PayloadAction<LiveState>) => {
      state.stream = payload;
    },
    isAway: (state, { payload }: PayloadAction<Away | null>) => {
      state.away = payload;
    },
  },
});
export const { streamIs, isAway } = liveSlice.actions;
