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

/** Whether `key` has a request that is not answered. */
export const hasTurns = (key: string): boolean => last.has(key);
