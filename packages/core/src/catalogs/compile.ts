// From what the parts of a catalog give to the catalog itself.
import { matchKey } from '../text/index.js';
import type { RangeTaking } from '../ranges/index.js';
import { lookupSteps, type Catalog, type Item, type ItemOrigin, type KeptItem, type LookupStep } from './models.js';

export interface CatalogPart {
  readonly rangeId: string;
  readonly taking: RangeTaking;
}

/** Items in the order of the parts; a value that several parts give stands once, at its first place. Retired items follow. */
export function itemsOf(parts: readonly CatalogPart[], kept: readonly KeptItem[]): Item[] {
  const origins = new Map<string, ItemOrigin[]>();
  for (const { rangeId, taking } of parts) {
    for (const { value, rows } of taking.values) {
      const known = origins.get(value);
      if (known) known.push({ rangeId, rows });
      else origins.set(value, [{ rangeId, rows }]);
    }
  }
  const keptByValue = new Map(kept.map((item) => [item.value, item]));
  const otherNames = (value: string) => keptByValue.get(value)?.otherNames ?? [];
  const offered = [...origins].map(([value, from]): Item => ({ value, label: value, otherNames: otherNames(value), state: 'offered', from }));
  const retired = kept
    .filter((item) => item.retired && !origins.has(item.value))
    .map((item): Item => ({ value: item.value, label: item.value, otherNames: item.otherNames, state: 'retired', from: [] }));
  return [...offered, ...retired];
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

/** Compiles items for looking up. Linear in the number of names. */
export function compileCatalog(id: string, title: string, items: readonly Item[]): Catalog {
  const index = new Map(lookupSteps.map((step) => [step, indexBy(items, spellings[step])] as const));
  return { id, title, items, index };
}
