// The levels of a catalog as choices: what is offered at a level under given parents. One table of tuples serves all of it.
import { compileCatalog, type Catalog, type Item } from '../catalogs/index.js';

const pathKey = (path: readonly string[]): string => path.join('\u001F');

/** The items by their parents, and for each level its values; made once a catalog. */
interface Tuples {
  readonly byPath: ReadonlyMap<string, readonly Item[]>;
  readonly compiled: Map<string, Catalog>;
}
const known = new WeakMap<Catalog, Tuples>();

function tuplesOf(catalog: Catalog): Tuples {
  const made = known.get(catalog);
  if (made) return made;
  const byPath = new Map<string, Item[]>();
  for (const item of catalog.all) {
    const key = pathKey(item.path);
    const siblings = byPath.get(key);
    if (siblings) siblings.push(item);
    else byPath.set(key, [item]);
  }
  const tuples = { byPath, compiled: new Map<string, Catalog>() };
  known.set(catalog, tuples);
  return tuples;
}

/** How many levels the catalog has; 1 for a plain list. */
export const depthOf = (catalog: Catalog): number => catalog.levels;

function compiledOnce(catalog: Catalog, key: string, items: () => readonly Item[]): Catalog {
  const { compiled } = tuplesOf(catalog);
  const made = compiled.get(key);
  if (made) return made;
  const next = compileCatalog(catalog.id, catalog.title, items(), catalog.companions);
  compiled.set(key, next);
  return next;
}

/** All values of one level (counted from 0), each once, whatever its parents. */
export function catalogAtLevel(catalog: Catalog, level: number | null): Catalog {
  if (level === null || level === catalog.levels - 1) return catalog;
  return compiledOnce(catalog, `level ${level}`, () => {
    const seen = new Set<string>();
    // Taken out of the tree: below their level these items have no parents.
    return catalog.all
      .filter(({ path, value }) => path.length === level && !seen.has(value) && seen.add(value))
      .map((item) => ({ ...item, path: [] }));
  });
}

/** The values under these parents, in catalog order; none where no tuple begins so. */
export function catalogUnder(catalog: Catalog, parents: readonly string[]): Catalog {
  const key = pathKey(parents);
  return compiledOnce(catalog, `under ${key}`, () => (tuplesOf(catalog).byPath.get(key) ?? []).map((item) => ({ ...item, path: [] })));
}

/** The values under the parents that are given, in catalog order, each once; a blank parent agrees with any. */
export function catalogAmong(catalog: Catalog, given: readonly string[]): Catalog {
  if (!given.includes('')) return catalogUnder(catalog, given);
  return compiledOnce(catalog, `among ${pathKey(given)}`, () => {
    const seen = new Set<string>();
    return catalog.all
      .filter(({ path, value }) => agrees(path, given) && !seen.has(value) && seen.add(value))
      .map((item) => ({ ...item, path: [] }));
  });
}

const agrees = (path: readonly string[], given: readonly string[]): boolean =>
  path.length === given.length && path.every((parent, at) => given[at] === '' || given[at] === parent);

/** The distinct values of a level among the tuples that agree with the parents, in catalog order. */
export const choices = (catalog: Catalog, parents: readonly string[]): readonly Item[] => catalogUnder(catalog, parents).items;

/** Whether a tuple begins with these values. */
export function hasTuple(catalog: Catalog, values: readonly string[]): boolean {
  const value = values.at(-1);
  return value === undefined || catalogUnder(catalog, values.slice(0, -1)).index.get('value').has(value);
}

/** Whether every parent on a path can still be chosen. */
const isOpenPath = (catalog: Catalog, path: readonly string[]): boolean =>
  path.every(
    (parent, depth) =>
      tuplesOf(catalog)
        .byPath.get(pathKey(path.slice(0, depth)))
        ?.find(({ value }) => value === parent)?.state !== 'retired',
  );

/** The parents under which a value of a level stands, that agree with those which are given (blank ones agree with any). */
export function pathsTo(catalog: Catalog, value: string, given: readonly string[]): (readonly string[])[] {
  return catalog.all
    .filter((item) => item.value === value && item.state === 'offered' && agrees(item.path, given) && isOpenPath(catalog, item.path))
    .map(({ path }) => path);
}
