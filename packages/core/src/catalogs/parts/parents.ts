// An item of another catalog as the parent of what a part puts under it.
import type { Item } from '../models.js';
import type { PartItem } from './models.js';

/** The item with all it brings along; it still comes from its own catalog. */
export function asParent(catalogId: string, item: Item): PartItem {
  const { value, path, label, companions } = item;
  return {
    value,
    path,
    label,
    rows: item.from.flatMap(({ rows }) => rows),
    item,
    origin: { by: 'catalog', id: catalogId },
    ...(companions && { companions }),
  };
}
