// What is begun in a panel and not set yet, by what it is for: whoever leaves it and comes back finds it as it was.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { CatalogDefinition, Rule } from '@dellum/core';

/** By what it is for: a field its rule, a catalog with its version how it is composed. */
export interface HalfMade {
  readonly [key: `rule ${string}`]: Rule;
  readonly [key: `catalog ${string}`]: CatalogDefinition;
}

export const halfMadeSlice = createSlice({
  name: 'halfMade',
  initialState: {} as HalfMade,
  reducers: {
    begun: (all, { payload: { key, value } }: PayloadAction<{ key: keyof HalfMade; value: HalfMade[keyof HalfMade] | undefined }>) => {
      const { [key]: _before, ...others } = all;
      return value === undefined ? others : { ...others, [key]: value };
    },
  },
});
