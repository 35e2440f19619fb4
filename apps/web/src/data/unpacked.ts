// The items of a catalog, unpacked once for each answer of the server.
import { unpackItems } from '@dellum/core';
import type { CatalogItems, PackedCatalog } from '@dellum/contract';

const known = new WeakMap<PackedCatalog, CatalogItems>();

export function unpacked(catalog: PackedCatalog): CatalogItems {
  const { packed, ...members } = catalog;
  const made = known.get(catalog) ?? { ...members, items: unpackItems(packed) };
  known.set(catalog, made);
  return made;
}
