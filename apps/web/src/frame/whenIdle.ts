// What can wait until the page is painted and the browser has nothing more urgent to do.

/** A busy browser is not waited for longer (milliseconds). */
const longest = 600;

/** Does something when the browser is idle; returns how to leave it. */
export function whenIdle(act: () => void): () => void {
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(act, longest / 4);
    return () => clearTimeout(timer);
  }
  const waiting = requestIdleCallback(act, { timeout: longest });
  return () => cancelIdleCallback(waiting);
}
