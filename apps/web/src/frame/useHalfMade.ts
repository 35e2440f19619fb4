// Something half-made in a panel, and how to go on with it or drop it.
import { useAppDispatch, useAppSelector } from '../data/store.js';
import { halfMadeSlice, type HalfMade, type Made } from './halfMadeSlice.js';

export interface HalfMadeHere<Value> {
  /** As far as it is made; undefined before it is begun. */
  readonly value: Value | undefined;
  /** The mark of what was there when it was begun, or when one last said that it is to replace what is there. */
  readonly seen: string;
  /** Somebody else has changed what it would replace. */
  readonly isOutdated: boolean;
  set(value: Value): void;
  drop(): void;
  /** It is to replace what is there now. */
  keepMine(): void;
}

/** `mark`: of what it would replace, as it is now. */
export function useHalfMade<Key extends keyof HalfMade>(key: Key, mark: string): HalfMadeHere<Made<Key>> {
  const dispatch = useAppDispatch();
  const begun = useAppSelector((state) => state.halfMade[key]);
  const keep = (made: { readonly seen: string; readonly value: Made<Key> }) =>
    void dispatch(halfMadeSlice.actions.begun({ key, made: made as HalfMade[Key] }));
  const seen = begun?.seen ?? mark;
  const value = begun?.value as Made<Key> | undefined;
  return {
    value,
    seen,
    isOutdated: seen !== mark,
    set: (next) => keep({ seen, value: next }),
    drop: () => void dispatch(halfMadeSlice.actions.begun({ key, made: undefined })),
    keepMine: () => value !== undefined && keep({ seen: mark, value }),
  };
}
