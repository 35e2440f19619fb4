// Compiling the items of a catalog for looking up.
import { matchKey } from '../text/index.js';
import { levelsOf, lookupSteps, type Catalog, type CompanionField, type Item, type LookupStep } from './models.js';

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
    for (const key of new Set(keysOf(item))) {
      const known = index.get(key);
      if (known) known.push(item);
      else index.set(key, [item]);
    }
  }
  return index;
}

/** Compiles the items of the deepest level for looking up. Linear in the number of names. */
export function compileCatalog(id: string, title: string, all: readonly Item[], companions?: readonly CompanionField[]): Catalog {
  const levels = levelsOf(all);
  const items = itemsAtLevel(all, levels - 1);
  const index = new Map(lookupSteps.map((step) => [step, indexBy(items, spellings[step])] as const));
  return { id, title, items, all, levels, index, ...(companions && { companions }) };
}
