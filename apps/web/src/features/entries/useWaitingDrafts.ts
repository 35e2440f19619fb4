// Stores what waited in entry sheets while the server or its database was away, as soon as it is back.
import { useEffect, useRef } from 'react';
import { useAppDispatch, useAppSelector } from '../../data/store.js';
import { sendEdit } from './sendEdit.js';

export function useWaitingDrafts(): void {
  const dispatch = useAppDispatch();
  const away = useAppSelector((state) => state.live.away !== null);
  const drafts = useAppSelector((state) => state.drafts);
  const sending = useRef(false);
  useEffect(() => {
    const waiting = Object.values(drafts).filter(({ state, ofList }) => state === 'waiting' && !ofList);
    if (away || sending.current || waiting.length === 0) return;
    sending.current = true;
    const sendAll = async () => {
      for (const { registerId, entryId, field, text, version = 0 } of waiting) {
        const draft = await dispatch(sendEdit({ registerId, entryId, field, text, expected: { [field]: text }, before: {}, version }));
        if (draft?.state === 'waiting') break;
      }
    };
    void sendAll().finally(() => {
      sending.current = false;
    });
  }, [away, drafts, dispatch]);
}
