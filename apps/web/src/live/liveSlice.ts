// Whether the live stream and the database are there.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type LiveState = 'connecting' | 'live' | 'away';

export const liveSlice = createSlice({
  name: 'live',
  initialState: { stream: 'connecting' as LiveState, databaseAway: false },
  reducers: {
    streamIs: (state, { payload }: PayloadAction<LiveState>) => {
      state.stream = payload;
    },
    databaseIs: (state, { payload }: PayloadAction<'there' | 'away'>) => {
      state.databaseAway = payload === 'away';
    },
  },
});
export const { streamIs, databaseIs } = liveSlice.actions;
