// Acts whose answers have not come yet: whoever takes back the last act waits for them, or it would be the one before.

const running = new Set<Promise<unknown>>();

/** Notes that an act is under way until its promise settles. */
export function underWay<T>(act: Promise<T>): Promise<T> {
  const noted = act.finally(() => running.delete(noted));
  running.add(noted);
  return noted;
}

/** Resolves when nothing is under way any more. */
export async function allAnswered(): Promise<void> {
  while (running.size > 0) await Promise.allSettled(running);
}
