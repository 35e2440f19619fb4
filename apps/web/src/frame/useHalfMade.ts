// Something half-made in a panel, and how to go on with it or drop it.
import { useCallback } from 'react';
import { useAppDispatch, useAppSelector } from '../data/store.js';
import { halfMadeSlice, type HalfMade } from './halfMadeSlice.js';

export function useHalfMade<Key extends keyof HalfMade>(key: Key): [HalfMade[Key] | undefined, (value: HalfMade[Key] | undefined) => void] {
  const dispatch = useAppDispatch();
  const value = useAppSelector((state): HalfMade[Key] | undefined => state.halfMade[key]);
  return [
    value,
    useCallback((next: HalfMade[Key] | undefined) => void dispatch(halfMadeSlice.actions.begun({ key, value: next })), [dispatch, key]),
  ];
}
