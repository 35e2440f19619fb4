// Ranges under the items of another catalog: each item has the values of the range that bears its name.
import { levelsOf, type Item } from '../models.js';
import type { NamedPart, PartItem, PartKind, PartSources } from './models.js';
import { asParent } from './parents.js';

/** The list that an item names, by its value or by its label; a range of another shape has parents of its own and is none. */
export function rangeOf(item: Pick<Item, 'value' | 'label'>, sources: Pick<PartSources, 'rangeNamed'>) {
  const range = sources.rangeNamed(item.value) ?? sources.rangeNamed(item.label);
  return range?.shape === 'list' ? range : undefined;
}

export const namedPart: PartKind<NamedPart> = {
  kind: 'named',
  origin: ({ catalogId }) => catalogId,
  reads: ({ catalogId }) => ({ catalogs: [catalogId], parents: catalogId, anyRange: true }),

  items({ catalogId }, sources) {
    const parents = sources.items(catalogId).filter(({ state }) => state === 'offered');
    const deepest = levelsOf(parents) - 1;
    const under = (parent: Item): readonly PartItem[] => {
      const range = rangeOf(parent, sources);
      if (!range) return [];
      return sources
        .taking(range.id)
        .values.map(({ value, rows }) => ({ value, path: [...parent.path, parent.value], rows, origin: { by: 'range', id: range.id } }));
    };
    return parents.flatMap((parent) => [asParent(catalogId, parent), ...(parent.path.length === deepest ? under(parent) : [])]);
  },

  companions: () => [],
  phrase: ({ catalogId }, names) => `the ranges named by ${names.catalog(catalogId)}`,
};
