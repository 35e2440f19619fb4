// Compiling the items of a catalog for looking up.
import { matchKey } from '../text/index.js';
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

/**
 * The indexes of some items. Most lookups end at the first step, and what stands is judged by it alone: the others, which compare spellings,
 * are made where one gets as far.
 */
function indexesOf(items: readonly Item[]): Catalog['index'] {
  const made = new Map<LookupStep, Map<string, Item[]>>();
  return {
    get(step) {
      const known = made.get(step) ?? indexBy(items, spellings[step]);
      made.set(step, known);
      return known;
    },
  };
}

/** Compiles the items of the deepest level for looking up. Linear in the number of names. */
export function compileCatalog(id: string, title: string, all: readonly Item[], companions?: readonly CompanionField[]): Catalog {
  const levels = levelsOf(all);
  const items = itemsAtLevel(all, levels - 1);
  return { id, title, items, all, levels, index: indexesOf(items), ...(companions && { companions }) };
}
