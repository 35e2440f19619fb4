// What was done on the entry sheets in this browser tab, so that it can be taken back and done again: whole acts, in order.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { WrittenCell } from '@dellum/contract';
import type { Draft } from '../../data/draftsSlice.js';
import { registered } from '../../data/store.js';

/** One act: cells that were written, entries that were made, or entries that were deleted (with what stood below them). */
export type DoneAct =
  | {
      readonly act: 'wrote';
      readonly cells: readonly WrittenCell[];
      /** New entries at the end that hold some of the cells; `gone` once they were taken back with them. */
      readonly made?: readonly string[];
      readonly gone?: boolean;
      /** What was refused in the act and kept in its cells; taking it back clears it. */
      readonly refused?: readonly Draft[];
    }
  /** An act of the server on a large block. */
  | { readonly act: 'block'; readonly id: number }
  | { readonly act: 'made'; readonly entries: readonly string[]; readonly before: string | undefined }
  | { readonly act: 'deleted'; readonly entries: readonly string[]; readonly before: string | undefined };

export interface Done {
  readonly back: readonly DoneAct[];
  readonly again: readonly DoneAct[];
}

/** True for an act of which nothing was stored: it is all in its cells, refused. */
export const isRefusal = (act: DoneAct): boolean => act.act === 'wrote' && act.cells.length === 0 && (act.made ?? []).length === 0;

/** Whether two acts are refusals of one and the same cell. */
function sameRefusal(one: DoneAct | undefined, other: DoneAct): boolean {
  if (one?.act !== 'wrote' || other.act !== 'wrote' || !isRefusal(one) || !isRefusal(other)) return false;
  const [[first, ...more] = [], [second, ...others] = []] = [one.refused, other.refused];
  return more.length + others.length === 0 && first?.entryId === second?.entryId && first?.field === second?.field;
}

/** So many acts of a register can be taken back. */
const mostKept = 100;
const nothing: Done = { back: [], again: [] };

interface Told {
  readonly registerId: string;
  readonly act: DoneAct;
}

declare module '../../data/store.js' {
  interface RootState {
    done: Record<string, Done>;
  }
}

export const doneSlice = registered(
  createSlice({
    name: 'done',
    initialState: {} as Record<string, Done>,
    reducers: {
      /** A new act; what had been taken back cannot be done again after it. */
      did: (all, { payload: { registerId, act } }: PayloadAction<Told>) => {
        const { back } = all[registerId] ?? nothing;
        // A cell that is refused again and again is one thing to take back.
        const before = sameRefusal(back.at(-1), act) ? back.slice(0, -1) : back;
        return { ...all, [registerId]: { back: [...before, act].slice(-mostKept), again: [] } };
      },
      /** The last act was taken back; `act` is what would do it again. */
      tookBack: (all, { payload: { registerId, act } }: PayloadAction<Told>) => {
        const { back, again } = all[registerId] ?? nothing;
        return { ...all, [registerId]: { back: back.slice(0, -1), again: [...again, act] } };
      },
      didAgain: (all, { payload: { registerId, act } }: PayloadAction<Told>) => {
        const { back, again } = all[registerId] ?? nothing;
        return { ...all, [registerId]: { back: [...back, act], again: again.slice(0, -1) } };
      },
      /** An act that cannot be taken back any more is passed over. */
      passedOver: (all, { payload: { registerId, as } }: PayloadAction<{ registerId: string; as: 'undo' | 'redo' }>) => {
        const { back, again } = all[registerId] ?? nothing;
        return { ...all, [registerId]: as === 'undo' ? { back: back.slice(0, -1), again } : { back, again: again.slice(0, -1) } };
      },
    },
  }),
);
export const { did, tookBack, didAgain, passedOver } = doneSlice.actions;
