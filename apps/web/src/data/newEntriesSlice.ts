// Entries that are typed anew: the blank row below a sheet, and what was begun there and is not among its pages yet.
// A new entry has its id from its first letter on, so that all that is typed into it belongs to one entry.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { keptInTab } from './keptInTab.js';
import type { EntryView } from '@dellum/contract';
import { registered } from './store.js';

export interface BegunEntry {
  /** As it will be; its version is 0 until the server has it. */
  readonly entry: EntryView;
  /** Requests about it that are not answered. */
  readonly sending: number;
  /** When the last of them was answered (`Date.now()`): pages that are asked for later know of it. */
  readonly answeredAt: number;
}

export interface NewEntries {
  /** The id that the entry typed into the blank row will have. */
  readonly blank: string;
  /** Begun in this browser and not among the pages yet, in order. */
  readonly begun: readonly BegunEntry[];
  /** The new entry that one is still typing: what is done in it is part of its beginning. */
  readonly typing: string | undefined;
}

type All = Readonly<Record<string, NewEntries>>;
type Told<T = unknown> = PayloadAction<{ readonly registerId: string } & T>;

/** What a reload keeps: texts that wait or were refused belong to entries that only this browser knows. */
const kept = (): All =>
  Object.fromEntries(
    Object.entries(keptInTab<All>('newEntries') ?? {}).map(([registerId, own]) => [
      registerId,
      { ...own, typing: undefined, begun: own.begun.map(({ entry }) => ({ entry, sending: 0, answeredAt: 0 })) },
    ]),
  );

const fresh = (): NewEntries => ({ blank: crypto.randomUUID(), begun: [], typing: undefined });

/** Changes one register's new entries, where there are some. */
const inside = (all: All, registerId: string, change: (own: NewEntries) => NewEntries): All =>
  all[registerId] ? { ...all, [registerId]: change(all[registerId]) } : all;

const mapped = (own: NewEntries, id: string, change: (begun: BegunEntry) => BegunEntry): NewEntries => ({
  ...own,
  begun: own.begun.map((one) => (one.entry.id === id ? change(one) : one)),
});

declare module './store.js' {
  interface RootState {
    newEntries: All;
  }
}

export const newEntriesSlice = registered(
  createSlice({
    name: 'newEntries',
    initialState: kept,
    reducers: {
      /** A sheet that takes new entries is open. */
      opened: (all: All, { payload: { registerId } }: Told) => (all[registerId] ? all : { ...all, [registerId]: fresh() }),
      /** The blank row has become an entry; another blank row follows. */
      began: (all: All, { payload: { registerId, entry } }: Told<{ entry: EntryView }>) =>
        inside(all, registerId, (own) => ({
          blank: crypto.randomUUID(),
          begun: [...own.begun, { entry, sending: 0, answeredAt: 0 }],
          typing: entry.id,
        })),
      /** New entries are put above one that is begun itself; they are under way. */
      begunAbove: (all: All, { payload: { registerId, before, entries } }: Told<{ before: string; entries: readonly EntryView[] }>) =>
        inside(all, registerId, (own) => ({
          ...own,
          begun: own.begun.flatMap((one) =>
            one.entry.id === before ? [...entries.map((entry) => ({ entry, sending: 1, answeredAt: 0 })), one] : [one],
          ),
        })),
      /** One types in a new entry, or has left it. */
      typingIn: (all: All, { payload: { registerId, entryId } }: Told<{ entryId: string | undefined }>) =>
        inside(all, registerId, (own) => (own.typing === entryId ? own : { ...own, typing: entryId })),
      sending: (all: All, { payload: { registerId, entryId } }: Told<{ entryId: string }>) =>
        inside(all, registerId, (own) => mapped(own, entryId, (one) => ({ ...one, sending: one.sending + 1 }))),
      answered: {
        prepare: (payload: { readonly registerId: string; readonly entryId: string }) => ({ payload: { ...payload, at: Date.now() } }),
        reducer: (all: All, { payload: { registerId, entryId, at } }: Told<{ entryId: string; at: number }>) =>
          inside(all, registerId, (own) => mapped(own, entryId, (one) => ({ ...one, sending: one.sending - 1, answeredAt: at }))),
      },
      begunChanged: (all: All, { payload: { registerId, entry } }: Told<{ entry: EntryView }>) =>
        inside(all, registerId, (own) => mapped(own, entry.id, (one) => ({ ...one, entry }))),
      /** The pages show them, or they are there no more. */
      dropped: (all: All, { payload: { registerId, ids } }: Told<{ ids: readonly string[] }>) =>
        inside(all, registerId, (own) => ({ ...own, begun: own.begun.filter(({ entry }) => !ids.includes(entry.id)) })),
    },
  }),
  'kept',
);
export const { opened, began, begunAbove, typingIn, sending, answered, begunChanged, dropped } = newEntriesSlice.actions;
