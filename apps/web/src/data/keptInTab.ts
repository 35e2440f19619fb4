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
