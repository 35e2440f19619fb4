// What somebody was about to do when something else had to be made first, and where it goes on.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { keptInTab } from '../data/keptInTab.js';
import { registered } from '../data/store.js';

export interface Errand {
  /** What was begun, as a button says it: "use Sellers for fields". */
  readonly what: string;
  /** The address at which it goes on. */
  readonly to: string;
}

/** Whether a page is the one at which an errand goes on. */
export const isAt = (errand: Errand, pathname: string): boolean => errand.to.split('?')[0] === pathname;

declare module '../data/store.js' {
  interface RootState {
    errand: Errand | null;
  }
}

export const errandSlice = registered(
  createSlice({
    name: 'errand',
    initialState: (): Errand | null => keptInTab<Errand>('errand') ?? null,
    reducers: {
      sentAway: (_, { payload }: PayloadAction<Errand>) => payload,
      dropped: () => null,
      /** A page was come to: the errand ends where it goes on. */
      cameTo: (errand, { payload: pathname }: PayloadAction<string>) => (errand && isAt(errand, pathname) ? null : errand),
    },
  }),
  'kept',
);
export const { sentAway, dropped, cameTo } = errandSlice.actions;
