// The rows of lists that a file makes, as what is laid into their registers.
import type { Cells } from '@dellum/core';
import type { Incoming } from './houseArchive.js';

/** `ids`: by register, ids for its rows, the same each time. */
export const listRows = (rows: ReadonlyMap<string, readonly Cells[]>, ids: (registerId: string) => () => string): Incoming['entries'] =>
  async function* (registerId) {
    await Promise.resolve();
    const idOf = ids(registerId);
    yield (rows.get(registerId) ?? []).map((cells) => ({ id: idOf(), cells }));
  };
