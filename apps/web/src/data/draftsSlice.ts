// What was typed and is not stored: refused, in conflict with somebody else's edit, or waiting for the server.
// Kept for the browser tab, so that nothing typed is lost by leaving a page or reloading it.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Given } from '@dellum/core';
import { keptInTab } from './keptInTab.js';
import { registered } from './store.js';

export interface Draft {
  readonly registerId: string;
  readonly entryId: string;
  readonly field: string;
  /** What was typed, or is shown of what was chosen. */
  readonly text: string;
  /** The value, where it was chosen. */
  readonly chosen?: string;
  readonly state: 'refused' | 'conflict' | 'waiting';
  readonly message: string;
  readonly suggestions: readonly string[];
  /** The value is stored, marked, once one says that it is meant. */
  readonly mayConfirm?: boolean;
  /** The row in which it stood when it was refused, counted from 0. */
  readonly row?: number;
  /** The version to send when the person decides for the draft (`conflict`). */
  readonly version?: number;
  /** It was typed into a list or table: it is stored by an act. */
  readonly ofList?: true;
}

/** What a draft gives for its field. */
export const givenIn = ({ text, chosen }: Pick<Draft, 'text' | 'chosen'>): Given => (chosen === undefined ? { typed: text } : { chosen });

/** What is given where the text of a draft was left as it was, or mended. */
export const mendedBy = (draft: Pick<Draft, 'text' | 'chosen'>, text: string): Given =>
  text === draft.text ? givenIn(draft) : { typed: text };

export const draftKey = (entryId: string, field: string): string => `${entryId}/${field}`;

type Drafts = Record<string, Draft>;

declare module './store.js' {
  interface RootState {
    drafts: Drafts;
  }
}

export const draftsSlice = registered(
  createSlice({
    name: 'drafts',
    initialState: () => keptInTab<Drafts>('drafts') ?? {},
    reducers: {
      drafted: (drafts, { payload }: PayloadAction<Draft>) => {
        drafts[draftKey(payload.entryId, payload.field)] = { ...payload, suggestions: [...payload.suggestions] };
      },
      /** Nothing is kept any more for some entries: they are gone. */
      settledAll: (drafts, { payload }: PayloadAction<readonly string[]>) => {
        for (const [key, { entryId }] of Object.entries(drafts)) if (payload.includes(entryId)) delete drafts[key];
      },
      settled: (drafts, { payload }: PayloadAction<{ entryId: string; field: string }>) => {
        delete drafts[draftKey(payload.entryId, payload.field)];
      },
    },
  }),
  'kept',
);
export const { drafted, settled, settledAll } = draftsSlice.actions;
