// A standing catalog for a column that wants to be a list: one that has most of its values already.
import { grouped } from '../group.js';
import { lookUp, type Catalog } from '../catalogs/index.js';
import type { Spelling } from './lookAlikes.js';
import type { ProposedValue } from './profile.js';

/** What the column would be over a catalog that is there. */
export interface StandingMatch {
  readonly catalogId: string;
  /** Values of the catalog that the column holds, with the spellings that become each. */
  readonly values: readonly { readonly value: string; readonly spellings: readonly Spelling[] }[];
  /** What the catalog does not have; it would be outside. */
  readonly missing: readonly Spelling[];
}

/** A catalog is proposed when it has at least this share of the entries. */
const leastShare = 0.5;

/** Which value of the catalog each proposed value is, found by any of its spellings; undefined when it has too few of them. */
export function standingMatch(proposed: readonly ProposedValue[], catalog: Catalog): StandingMatch | undefined {
  const is: { value: string; held: readonly Spelling[] }[] = [];
  const missing: Spelling[] = [];
  for (const { value, entries, spellings } of proposed) {
    const own = entries - spellings.reduce((sum, spelling) => sum + spelling.entries, 0);
    const held = [...(own > 0 ? [{ value, entries: own }] : []), ...spellings];
    const found = held
      .map((spelling) => lookUp(catalog, spelling.value))
      .find((one) => one.found === 'item' && one.item.state === 'offered');
    if (found?.found === 'item') is.push({ value: found.item.value, held });
    else missing.push({ value, entries });
  }
  const sum = (spellings: readonly Spelling[]) => spellings.reduce((total, { entries }) => total + entries, 0);
  const has = sum(is.flatMap(({ held }) => held));
  if (has === 0 || has < leastShare * (has + sum(missing))) return undefined;
  return {
    catalogId: catalog.id,
    values: [...grouped(is, ({ value }) => value)].map(([value, own]) => ({
      value,
      spellings: own.flatMap(({ held }) => held).filter((spelling) => spelling.value !== value),
    })),
    missing,
  };
}
