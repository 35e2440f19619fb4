// What is begun in a panel and not set yet, by what it is for: whoever leaves it and comes back finds it as it was.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { CatalogDefinition, Rule } from '@dellum/core';
import { keptInTab } from '../data/keptInTab.js';
import { registered } from '../data/store.js';

/** By what it is for: a field its rule, a catalog with its version how it is composed. */
export interface HalfMade {
  readonly [key: `rule ${string}`]: Rule;
  readonly [key: `catalog ${string}`]: CatalogDefinition;
}

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
      begun: (all, { payload: { key, value } }: PayloadAction<{ key: keyof HalfMade; value: HalfMade[keyof HalfMade] | undefined }>) => {
        const { [key]: _before, ...others } = all;
        return value === undefined ? others : { ...others, [key]: value };
      },
    },
  }),
  'kept',
);
