// Rules that are begun and not set: whoever leaves a field and comes back finds them as they were.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Rule } from '@dellum/core';

export const ruleDraftsSlice = createSlice({
  name: 'ruleDrafts',
  initialState: {} as Readonly<Record<string, Rule>>,
  reducers: {
    ruleDrafted: (drafts, { payload: { fieldId, rule } }: PayloadAction<{ fieldId: string; rule: Rule | undefined }>) => {
      const { [fieldId]: _before, ...others } = drafts;
      return rule ? { ...others, [fieldId]: rule } : others;
    },
  },
});
