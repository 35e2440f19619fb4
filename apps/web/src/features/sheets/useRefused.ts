// The drafts of a sheet that were refused.
import { useAppSelector } from '../../data/store.js';
import type { Draft } from '../../data/draftsSlice.js';

export const useRefused = (registerId: string): readonly Draft[] =>
  Object.values(useAppSelector((state) => state.drafts)).filter((draft) => draft.registerId === registerId && draft.state === 'refused');
