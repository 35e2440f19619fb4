// Short notices: what just happened, and sometimes a way to take it back.
import { createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';
import { registered } from '../data/store.js';

export interface Notice {
  readonly id: string;
  readonly tone: 'done' | 'refused';
  readonly text: string;
}

declare module '../data/store.js' {
  interface RootState {
    notices: Notice[];
  }
}

export const noticesSlice = registered(
  createSlice({
    name: 'notices',
    initialState: [] as Notice[],
    reducers: {
      noticed: {
        prepare: (tone: Notice['tone'], text: string) => ({ payload: { id: nanoid(), tone, text } }),
        reducer: (notices, { payload }: PayloadAction<Notice>) =>
          [...notices.filter(({ text }) => text !== payload.text), payload].slice(-3),
      },
      dismissed: (notices, { payload }: PayloadAction<string>) => notices.filter(({ id }) => id !== payload),
    },
  }),
);
export const { noticed, dismissed } = noticesSlice.actions;
