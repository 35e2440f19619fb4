// Stores what waited in entry sheets while the server or its database was away, as soon as it is back.
import { useCallback } from 'react';
import { draftKey, givenIn, type Draft } from '../../data/draftsSlice.js';
import { useAppDispatch, type AppDispatch, type RootState } from '../../data/store.js';
import { useWaitingTexts } from '../../data/useWaitingTexts.js';
import { sendEdit } from './sendEdit.js';

const isOfSheet = ({ ofList }: Draft): boolean => ofList !== true;

/** Cell after cell, each with what waits in it in the moment in which its turn comes: one types on meanwhile. */
const sendAll = () => async (dispatch: AppDispatch, getState: () => RootState) => {
  for (const key of Object.values(getState().drafts).map(({ entryId, field }) => draftKey(entryId, field))) {
    const waiting = getState().drafts[key];
    if (!waiting || !isOfSheet(waiting) || waiting.state !== 'waiting') continue;
    const { registerId, entryId, field, text, chosen = text, version = 0 } = waiting;
    const edit = { registerId, entryId, field, text, given: givenIn(waiting), expected: { [field]: chosen }, before: {}, version };
    const draft = await dispatch(sendEdit(edit));
    if (draft?.state === 'waiting') break;
  }
};

export function useWaitingDrafts(): void {
  const dispatch = useAppDispatch();
  const send = useCallback(() => dispatch(sendAll()), [dispatch]);
  useWaitingTexts(isOfSheet, send);
}
