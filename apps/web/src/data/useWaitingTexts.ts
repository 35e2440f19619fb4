// What waits while the server or its database is away is sent as soon as it is back, in rounds: what begins to wait while one is under way
// is of the next one. What a round has left waiting is not tried again before the server was away once more.
import { useEffect, useRef, useState } from 'react';
import { draftKey, type Draft } from './draftsSlice.js';
import { useAppSelector } from './store.js';

/** `which`: the drafts that are meant, always the same function; `send`: sends what waits of them now. */
export function useWaitingTexts(which: (draft: Draft) => boolean, send: () => Promise<void>): void {
  const away = useAppSelector((state) => state.live.away !== null);
  const waiting = useAppSelector((state) =>
    Object.values(state.drafts)
      .flatMap((draft) => (draft.state === 'waiting' && which(draft) ? `${draftKey(draft.entryId, draft.field)} ${draft.text}` : []))
      .join('\n'),
  );
  const [round, setRound] = useState(0);
  const tried = useRef('');
  const sending = useRef(false);
  useEffect(() => {
    if (away) tried.current = '';
    if (away || sending.current || waiting === tried.current) return;
    tried.current = waiting;
    if (waiting === '') return;
    sending.current = true;
    void send().finally(() => {
      sending.current = false;
      setRound((done) => done + 1);
    });
  }, [away, waiting, round, send]);
}
