// The values one may have meant by a text that is in no catalog.
import { looseKey, slips, slipsAllowed } from '../text/index.js';
import type { Catalog, Item } from './models.js';

interface Near {
  readonly item: Item;
  readonly order: number;
  readonly distance: number;
}

function distanceOf(key: string, item: Item): number | undefined {
  const most = slipsAllowed(key.length);
  const distances = [item.label, ...item.otherNames].map((name) => slips(key, looseKey(name), most));
  const distance = Math.min(...distances);
  return distance <= most ? distance : undefined;
}

/**
 * At most three values near the text: by slips relative to its length, the same loose key first; ties by use
 * (`uses` counts the entries that hold a value), then in catalog order. None when nothing is near.
 */
export function nearest(catalog: Catalog, text: string, uses: ReadonlyMap<string, number> = new Map()): string[] {
  const key = looseKey(text);
  if (key === '') return [];
  const near: Near[] = [];
  catalog.items.forEach((item, order) => {
    const distance = item.state === 'offered' ? distanceOf(key, item) : undefined;
    if (distance !== undefined) near.push({ item, order, distance });
  });
  const use = ({ item }: Near) => uses.get(item.value) ?? 0;
  near.sort((a, b) => a.distance - b.distance || use(b) - use(a) || a.order - b.order);
  return near.slice(0, 3).map(({ item }) => item.value);
}
