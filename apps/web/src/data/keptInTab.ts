// What a reload of the browser tab must not lose is kept in the tab's own storage.
import type { Store } from '@reduxjs/toolkit';

const keyOf = (name: string) => `dellum.${name}`;

/** What the tab has kept under a name, or nothing where it kept nothing that can be read. */
export function keptInTab<T>(name: string): T | undefined {
  try {
    return (JSON.parse(sessionStorage.getItem(keyOf(name)) ?? 'null') as T) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Forgets all that the tab has kept: whoever signs in next begins with nothing. The page is to be loaded anew. */
export function forgetKept(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(keyOf(''))) sessionStorage.removeItem(key);
}

const owner = keyOf('person');

/**
 * Whether what the tab has kept is this person's, who keeps in it from now on; what another one left is forgotten, and the page to be
 * loaded anew.
 */
export function isKeptFor(personId: string): boolean {
  const before = sessionStorage.getItem(owner);
  if (before !== null && before !== personId) forgetKept();
  sessionStorage.setItem(owner, personId);
  return before === null || before === personId;
}

/** Writes a part of the store to the tab's storage whenever it changes. */
export function keepInTab<Name extends string>(store: Store<Record<Name, unknown>>, name: Name): void {
  let last = store.getState()[name];
  store.subscribe(() => {
    const now = store.getState()[name];
    if (now === last) return;
    last = now;
    sessionStorage.setItem(keyOf(name), JSON.stringify(now));
  });
}
