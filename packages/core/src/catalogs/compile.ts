// Compiling the items of a catalog for looking up.
import { matchKey } from '../text/index.js';
import type { ItemChanges } from './changes.js';
import { levelsOf, type Catalog, type CompanionField, type Item, type LookupStep } from './models.js';

/**
 * The items of one level (counted from 0, the deepest when left out); a value under several parents stands once, offered where it is
 * anywhere.
 */
export function itemsAtLevel(items: readonly Item[], level = levelsOf(items) - 1): readonly Item[] {
  if (level === 0 && items.every(({ path }) => path.length === 0)) return items;
  const byValue = new Map<string, Item>();
  for (const item of items) {
    if (
      item.path.length === level &&
      (!byValue.has(item.value) || (item.state === 'offered' && byValue.get(item.value)!.state === 'retired'))
    )
      byValue.set(item.value, item);
  }
  return [...byValue.values()];
}

const spellings: { readonly [Step in LookupStep]: (item: Item) => readonly string[] } = {
  value: (item) => [item.value],
  label: (item) => [item.label],
  'other name': (item) => item.otherNames,
  'value differently written': (item) => [matchKey(item.value)],
  'label differently written': (item) => [matchKey(item.label)],
  'other name differently written': (item) => item.otherNames.map(matchKey),
};

function indexBy(items: readonly Item[], keysOf: (item: Item) => readonly string[]): Map<string, Item[]> {
  const index = new Map<string, Item[]>();
  for (const item of items) {
    const keys = keysOf(item);
    for (const key of keys.length > 1 ? new Set(keys) : keys) {
      const known = index.get(key);
      if (known) known.push(item);
      else index.set(key, [item]);
    }
  }
  return index;
}

type Index = Map<string, readonly Item[]>;

/** The index of the items after some changes, from that of the items before: an index is copied, and only what changed is spelled out. */
function indexAfter(before: Index, step: LookupStep, gone: readonly Item[], items: readonly Item[], { put }: ItemChanges): Index {
  const index = new Map(before);
  const keysOf = spellings[step];
  for (const item of gone)
    for (const key of keysOf(item)) {
      // Without levels no two items share a value.
      const left = index.get(key)?.filter(({ value }) => value !== item.value) ?? [];
      if (left.length > 0) index.set(key, left);
      else index.delete(key);
    }
  for (const [place] of put) {
    const item = items[place]!;
    for (const key of new Set(keysOf(item))) {
      // Of several the first in the catalog goes first.
      const known = index.get(key);
      index.set(key, known ? items.filter((one) => keysOf(one).includes(key)) : [item]);
    }
  }
  return index;
}

const madeOf = new WeakMap<Catalog['index'], ReadonlyMap<LookupStep, Index>>();

/**
 * The indexes of some items. Most lookups end at the first step, and what stands is judged by it alone: the others, which compare spellings,
 * are made where one gets as far.
 */
function indexesOf(items: readonly Item[], made = new Map<LookupStep, Index>()): Catalog['index'] {
  const indexes: Catalog['index'] = {
    get(step) {
      const known = made.get(step) ?? indexBy(items, spellings[step]);
      made.set(step, known);
      return known;
    },
  };
  madeOf.set(indexes, made);
  return indexes;
}

/** Compiles the items of the deepest level for looking up. Linear in the number of names. */
export function compileCatalog(id: string, title: string, all: readonly Item[], companions?: readonly CompanionField[]): Catalog {
  const levels = levelsOf(all);
  const items = itemsAtLevel(all, levels - 1);
  return { id, title, items, all, levels, index: indexesOf(items), ...(companions && { companions }) };
}

/**
 * The catalog after some changes of its items, from the one before them. What is found in it is equal to what `compileCatalog` finds, but for
 * the rows that an item which has not changed comes from; `all` and `items` tell these. Costs a copy of each index that was made, not
 * spelling out all names.
 */
export function recompileCatalog(
  before: Catalog,
  title: string,
  all: readonly Item[],
  companions: readonly CompanionField[],
  changes: ItemChanges,
): Catalog {
  const { id } = before;
  // With levels a value under several parents stands once, for reasons that no single change tells.
  if (before.levels > 1 || levelsOf(all) > 1) return compileCatalog(id, title, all, companions);
  const gone = changes.removed.map((place) => before.items[place]!);
  const made = new Map(
    [...(madeOf.get(before.index) ?? [])].map(([step, index]) => [step, indexAfter(index, step, gone, all, changes)] as const),
  );
  return { id, title, items: all, all, levels: 1, index: indexesOf(all, made), companions };
}
