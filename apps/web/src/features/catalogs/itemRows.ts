// Which items of a catalog stand in its table: all, those of open groups, or those that were searched for.
import { itemKey, itemsAtLevel, levelsOf, search, searchIndex, type Item, type SearchIndex, type Span } from '@dellum/core';
import type { CatalogItems } from '@dellum/contract';

export interface ItemRow {
  readonly item: Item;
  readonly spans: readonly Span[];
  /** How many children a group has; undefined for what can be chosen. */
  readonly children: number | undefined;
}

const indexes = new WeakMap<CatalogItems, SearchIndex>();

/** Searches retired items, too: the page shows what the picker does not. */
function indexOf(items: CatalogItems): SearchIndex {
  const known = indexes.get(items);
  if (known) return known;
  const made = searchIndex({
    items: itemsAtLevel(items.items).map((item) => (item.state === 'offered' ? item : { ...item, state: 'offered' as const })),
  });
  indexes.set(items, made);
  return made;
}

const mostFound = 2000;

export function itemRows(items: CatalogItems, query: string, open: ReadonlySet<string>): { rows: readonly ItemRow[]; found: number } {
  if (query.trim() !== '') {
    const states = new Map(items.items.map((item) => [itemKey(item), item.state]));
    const { matches, total } = search(indexOf(items), query, mostFound);
    return {
      rows: matches.map(({ item, spans }) => ({
        item: { ...item, state: states.get(itemKey(item)) ?? item.state },
        spans,
        children: undefined,
      })),
      found: total,
    };
  }
  if (levelsOf(items.items) === 1)
    return { rows: items.items.map((item) => ({ item, spans: [], children: undefined })), found: items.items.length };
  const children = new Map<string, number>();
  for (const { path } of items.items) if (path.length > 0) children.set(path.join('\u001F'), (children.get(path.join('\u001F')) ?? 0) + 1);
  const shown = items.items.filter(({ path }) => path.every((_, level) => open.has(path.slice(0, level + 1).join('\u001F'))));
  return { rows: shown.map((item) => ({ item, spans: [], children: children.get(itemKey(item)) })), found: items.items.length };
}
