// What somebody without an account gets of a catalog: the values that the form offers, and nothing else of it.
import { packItems, type CatalogRule, type CompanionField, type Item, type PackedItems } from '@dellum/core';
import type { Composed } from '../compiled/compiled.service.js';

/** Values and labels down to the level that the rules take, with the companions that they compare or bring along. */
export function openList(
  { items, companions }: Composed,
  rules: readonly CatalogRule[],
): { packed: PackedItems; companions: readonly CompanionField[] } {
  const deepest = rules.some(({ level }) => level === null) ? Infinity : Math.max(...rules.map(({ level }) => level!));
  const needed = new Set(rules.flatMap(({ fitting, brings }) => [...fitting, ...brings].map(({ companion }) => companion)));
  const known = companions.filter(({ key }) => needed.has(key));
  const shown = items
    .filter(({ state, path }) => state === 'offered' && path.length <= deepest)
    .map(({ value, path, label, state, validFrom, validUntil, companions: own }): Item => ({
      value,
      path,
      label,
      state,
      otherNames: [],
      from: [],
      ...(validFrom && { validFrom }),
      ...(validUntil && { validUntil }),
      ...(own &&
        known.length > 0 && {
          companions: Object.fromEntries(known.flatMap(({ key }) => (own[key] === undefined ? [] : [[key, own[key]]]))),
        }),
    }));
  return { packed: packItems(shown, known), companions: known };
}
