// The rule that somebody has begun for a field.
import type { Rule } from '@dellum/core';
import { useCallback } from 'react';
import { useAppDispatch, useAppSelector } from '../../store.js';
import { ruleDraftsSlice } from './ruleDraftsSlice.js';

/** The rule that is drafted for a field, if any, and how to draft another one, or none. */
export function useRuleDraft(fieldId: string): [Rule | undefined, (rule: Rule | undefined) => void] {
  const dispatch = useAppDispatch();
  const drafted = useAppSelector((state) => state.ruleDrafts[fieldId]);
  return [drafted, useCallback((rule: Rule | undefined) => void dispatch(ruleDraftsSlice.actions.ruleDrafted({ fieldId, rule })), [dispatch, fieldId])];
}
