// Saying what happened, and running a request so that its failure is said.
import { useCallback } from 'react';
import { flushSync } from 'react-dom';
import { useNavigate } from 'react-router';
import { problemWords } from '../data/problem.js';
import { useAppDispatch } from '../data/store.js';
import { noticed } from './noticesSlice.js';

export function useNotice() {
  const dispatch = useAppDispatch();
  return useCallback((tone: 'done' | 'refused', text: string) => void dispatch(noticed(tone, text)), [dispatch]);
}

/**
 * Goes to a page and says there what led to it. The words come with the page, never before it: what one reads of the new thing
 * must not stand over the buttons of the old one.
 */
export function useArrive() {
  const navigate = useNavigate();
  const notice = useNotice();
  return useCallback(
    (to: string, words: string, { replace = false } = {}) => {
      flushSync(() => void navigate(to, { replace }));
      notice('done', words);
    },
    [navigate, notice],
  );
}

/** Runs a request; a failure becomes a notice and the result is undefined. */
export function useTry() {
  const notice = useNotice();
  return useCallback(
    async <T>(request: Promise<T>): Promise<T | undefined> => {
      try {
        return await request;
      } catch (error) {
        notice('refused', problemWords(error));
        return undefined;
      }
    },
    [notice],
  );
}
