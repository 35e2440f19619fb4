// Stores what waited in entry sheets while the server or its database was away, as soon as it is back.
import { useCallback } from 'react';
import type { Draft } from '../../data/draftsSlice.js';
import { useAppDispatch, type AppDispatch, type RootState } from '../../data/store.js';
import { useWaitingTexts } from '../../data/useWaitingTexts.js';
import { sendEdit } from './sendEdit.js';

const isOfSheet = ({ ofList }: Draft): boolean => ofList !== true;

const sendAll = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  const waiting = Object.values(getState().drafts).filter((draft) => isOfSheet(draft) && draft.state === 'waiting');
  for (const { registerId, entryId, field, text, version = 0 } of waiting) {
    const draft = await dispatch(sendEdit({ registerId, entryId, field, text, expected: { [field]: text }, before: {}, version }));
    if (draft?.state === 'waiting') break;
  }
};

export function useWaitingDrafts(): void {
  const dispatch = useAppDispatch();
  const send = useCallback(() => dispatch(sendAll()), [dispatch]);
  useWaitingTexts(isOfSheet, send);
}
