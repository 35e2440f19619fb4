// The orders of a catalog. All are stable and total; within a tree, siblings are ordered among themselves.
import { Decimal } from 'decimal.js';
import { alphabetical } from '../text/index.js';
import { mostUsedFirst, type CatalogOrder, type Item } from './models.js';

const plainNumber = /^-?\d+(?:\.\d+)?$/u;

/** Compares two companions: numbers by size, anything else as people sort; what is missing comes last. */
function byCompanion(field: string, direction: 'up' | 'down', language: string): (a: Item, b: Item) => number {
  const text = alphabetical(language);
  const sign = direction === 'up' ? 1 : -1;
  return (a, b) => {
    const [left, right] = [a.companions?.[field], b.companions?.[field]];
    if (left === undefined || right === undefined) return Number(left === undefined) - Number(right === undefined);
    return (
      sign * (plainNumber.test(left) && plainNumber.test(right) ? new Decimal(left).comparedTo(new Decimal(right)) : text(left, right))
    );
  };
}

/** Most used first; those that no snapshot names follow as they are kept. */
function byUse(first: readonly string[]): (a: Item, b: Item) => number {
  const ranks = new Map(first.map((value, rank) => [value, rank]));
  const rank = ({ value }: Item) => ranks.get(value) ?? first.length;
  return (a, b) => rank(a) - rank(b);
}

/** The values that most entries hold, the most used first; equal use in the order in which they were counted. */
export const mostUsed = (uses: ReadonlyMap<string, number>): string[] =>
  [...uses]
    .filter(([, entries]) => entries > 0)
    .sort((a, b) => b[1] - a[1])
    .slice(0, mostUsedFirst)
    .map(([value]) => value);

function comparing(order: CatalogOrder, language: string): ((a: Item, b: Item) => number) | undefined {
  if (order.by === 'kept') return undefined;
  if (order.by === 'used') return byUse(order.first);
  if (order.by === 'companion') return byCompanion(order.field, order.direction, language);
  const text = alphabetical(language);
  return order.by === 'alphabetical' ? (a, b) => text(a.label, b.label) : (a, b) => text(b.label, a.label);
}

/** The items in the order that the catalog wants; children stay under their parents. */
export function ordered(items: readonly Item[], order: CatalogOrder, language: string): readonly Item[] {
  const compare = comparing(order, language);
  if (!compare) return items;
  const byParent = new Map<string, Item[]>();
  for (const item of items) {
    const parent = item.path.join('\u001F');
    const siblings = byParent.get(parent);
    if (siblings) siblings.push(item);
    else byParent.set(parent, [item]);
  }
  if (byParent.size <= 1) return [...items].sort(compare);
  const result: Item[] = [];
  const lay = (parent: string) => {
    const siblings = byParent.get(parent);
    if (!siblings) return;
    byParent.delete(parent);
    for (const item of siblings.sort(compare)) {
      result.push(item);
      lay(parent === '' ? item.value : `${parent}\u001F${item.value}`);
    }
  };
  lay('');
  // Children whose parent is not an item itself keep their place at the end.
  for (const parent of [...byParent.keys()]) lay(parent);
  return result;
}

const phrases: { readonly [By in CatalogOrder['by']]: string } = {
  kept: 'in the order of their sources',
  alphabetical: 'in alphabetical order',
  reversed: 'in reversed alphabetical order',
  companion: 'ordered by',
  used: 'the most used first',
};

/** The order in words: "in alphabetical order". */
export function orderClause(order: CatalogOrder, nameOf: (field: string) => string): string {
  if (order.by !== 'companion') return phrases[order.by];
  return `${phrases.companion} ${nameOf(order.field)}${order.direction === 'down' ? ', greatest first' : ''}`;
}
