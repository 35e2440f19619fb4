// The lists of the house to which files come: columns that hold their values choose from them, and no second list is made of these.
import { levelsOf, type Item } from '../catalogs/index.js';

export interface HouseList {
  readonly catalogId: string;
  readonly title: string;
  /** What it offers, each value with its parents before it. */
  readonly paths: readonly (readonly string[])[];
  /** What else means a value of its deepest level: its other names, and what is shown for it. */
  readonly names: readonly (readonly [name: string, value: string])[];
}

const idStart = 'house:';
/** Among the lists of a proposal. */
export const houseListId = (catalogId: string): string => `${idStart}${catalogId}`;

/** The catalog of the house that a list of a proposal is; undefined for one that comes out of the files. */
export const catalogOfList = (list: string): string | undefined => (list.startsWith(idStart) ? list.slice(idStart.length) : undefined);

/** A catalog as files are compared with it; what is shown for a value goes before what another one is called besides. */
export function houseList({ id, title }: { readonly id: string; readonly title: string }, items: readonly Item[]): HouseList {
  const deepest = levelsOf(items) - 1;
  const offered = items.filter(({ path, state }) => state === 'offered' && path.length === deepest);
  return {
    catalogId: id,
    title,
    paths: offered.map(({ path, value }) => [...path, value]),
    names: [
      ...offered.flatMap(({ value, otherNames }) => otherNames.map((name) => [name, value] as const)),
      ...offered.flatMap(({ value, label }) => (label === value ? [] : [[label, value] as const])),
    ],
  };
}
