// A catalog: the central set of allowed values, as compiled for looking up.
import type { SourceRow } from '../ranges/index.js';

export type ItemState = 'offered' | 'retired';

export interface Item {
  /** What is stored. Two items never share one. */
  readonly value: string;
  /** What is shown. */
  readonly label: string;
  readonly otherNames: readonly string[];
  readonly note?: string;
  readonly state: ItemState;
  /** Where the value comes from: range and rows, the first place first. Empty for what is kept by hand. */
  readonly from: readonly ItemOrigin[];
}
export interface ItemOrigin {
  readonly rangeId: string;
  readonly rows: readonly SourceRow[];
}

/** What a catalog remembers of a value beyond its sources: that it is retired, and its other names. */
export interface KeptItem {
  readonly value: string;
  readonly retired: boolean;
  readonly otherNames: readonly string[];
}

/** How a text was found to mean an item; in order of precedence. */
export const lookupSteps = ['value', 'label', 'other name', 'value differently written', 'label differently written', 'other name differently written'] as const;
export type LookupStep = (typeof lookupSteps)[number];

export type Lookup =
  | { readonly found: 'item'; readonly item: Item; readonly by: LookupStep }
  | { readonly found: 'ambiguous'; readonly items: readonly Item[]; readonly by: LookupStep }
  | { readonly found: 'nothing' };

/** A compiled catalog: items in order, and one index a step. Plain data, built once a version. */
export interface Catalog {
  readonly id: string;
  readonly title: string;
  readonly items: readonly Item[];
  readonly index: ReadonlyMap<LookupStep, ReadonlyMap<string, readonly Item[]>>;
}
