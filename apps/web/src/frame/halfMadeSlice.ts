// What is begun in a panel and not set yet, by what it is for: whoever leaves it and comes back finds it as it was.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { CatalogDefinition, Rule } from '@dellum/core';
import { keptInTab } from '../data/keptInTab.js';
import { registered } from '../data/store.js';

/** A value under way, with the mark of what was there when it was begun. */
interface Begun<Value> {
  readonly seen: string;
  readonly value: Value;
}
/** By what it is for: a field its rule, a catalog how it is composed. */
export interface HalfMade {
  readonly [key: `rule ${string}`]: Begun<Rule>;
  readonly [key: `catalog ${string}`]: Begun<CatalogDefinition>;
}
export type Made<Key extends keyof HalfMade> = HalfMade[Key]['value'];

declare module '../data/store.js' {
  interface RootState {
    halfMade: HalfMade;
  }
}

export const halfMadeSlice = registered(
  createSlice({
    name: 'halfMade',
    initialState: (): HalfMade => keptInTab<HalfMade>('halfMade') ?? {},
    reducers: {
      begun: (all, { payload: { key, made } }: PayloadAction<{ key: keyof HalfMade; made: HalfMade[keyof HalfMade] | undefined }>) => {
        const { [key]: _before, ...others } = all;
        return made === undefined ? others : { ...others, [key]: made };
      },
    },
  }),
  'kept',
);
