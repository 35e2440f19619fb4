// What is being typed is left as by the pointer where its editor goes away by itself: its column was deleted, the page changed.
import { useEffect, useRef } from 'react';

/** Calls `leave`, as it was drawn last, once the editor is there no more. */
export function useLeftBehind(leave: () => void): void {
  const latest = useRef(leave);
  const isThere = useRef(false);
  useEffect(() => {
    latest.current = leave;
  });
  useEffect(() => {
    isThere.current = true;
    return () => {
      isThere.current = false;
      // An editor that is only mounted anew, as in development, has not gone.
      queueMicrotask(() => {
        if (!isThere.current) latest.current();
      });
    };
  }, []);
}
