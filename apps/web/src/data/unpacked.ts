// The items of a catalog, unpacked once for each answer of the server, with what has changed since.
import { unpackItems, withItemChanges, type Item, type ItemChanges, type PackedItems } from '@dellum/core';
import type { CatalogItems, PackedCatalog } from '@dellum/contract';

/** A catalog as it came whole, and the changes that came after it. */
export interface HeldCatalog extends PackedCatalog {
  readonly changes?: readonly ItemChanges[];
}

const wholes = new WeakMap<PackedItems, readonly Item[]>();
/** By change: each follows one state only. */
const changed = new WeakMap<ItemChanges, readonly Item[]>();
const known = new WeakMap<HeldCatalog, CatalogItems>();

function wholeOf(packed: PackedItems): readonly Item[] {
  const items = wholes.get(packed) ?? unpackItems(packed);
  wholes.set(packed, items);
  return items;
}

function itemsOf({ packed, changes = [] }: HeldCatalog): readonly Item[] {
  const last = changes.findLastIndex((change) => changed.has(change));
  let items = last < 0 ? wholeOf(packed) : changed.get(changes[last]!)!;
  for (const change of changes.slice(last + 1)) {
    items = withItemChanges(items, change);
    changed.set(change, items);
  }
  return items;
}

export function unpacked(catalog: HeldCatalog): CatalogItems {
  const { packed: _packed, changes: _changes, ...members } = catalog;
  const made = known.get(catalog) ?? { ...members, items: itemsOf(catalog) };
  known.set(catalog, made);
  return made;
}
