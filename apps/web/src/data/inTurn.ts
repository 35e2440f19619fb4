// Requests about one thing, sent one after another: two that are under way at once may reach the server in either order.

const last = new Map<string, Promise<unknown>>();

/** Runs `act` when all that were asked for under this key before it have been answered. */
export async function inTurn<T>(key: string, act: () => Promise<T>): Promise<T> {
  const before = last.get(key);
  const mine = before ? before.then(act, act) : act();
  last.set(key, mine);
  try {
    return await mine;
  } finally {
    if (last.get(key) === mine) last.delete(key);
  }
}

/** Resolves when nothing whose key begins so is under way any more. */
export async function turnsDone(prefix: string): Promise<void> {
  for (;;) {
    const under = [...last].flatMap(([key, turn]) => (key.startsWith(prefix) ? [turn] : []));
    if (under.length === 0) return;
    await Promise.allSettled(under);
  }
}

/** Under which the acts on a list or table go one after another. */
export const actsTurn = (registerId = ''): string => `acts ${registerId}`;

/** Whether `key` has a request that is not answered. */
export const hasTurns = (key: string): boolean => last.has(key);
