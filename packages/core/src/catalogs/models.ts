// A catalog: the central set of allowed values; how it is composed, and its items as compiled for looking up.
import type { SourceRow } from '../ranges/index.js';
import type { FieldKind } from '../values/index.js';
import type { CatalogPart } from './parts/models.js';
import type { Filter } from './filter.js';

export type ItemState = 'offered' | 'retired';

/** The colours an item can have; each goes with a shape of its own, so that none is told by colour alone. */
export const itemColours = ['olive', 'teal', 'slate', 'damson', 'amber', 'brick', 'moss', 'sky'] as const;
export type ItemColour = (typeof itemColours)[number];

export interface Item {
  /** What is stored. Within one parent two items never share one. */
  readonly value: string;
  /** The values of its parents, outermost first; empty where the catalog has one level. */
  readonly path: readonly string[];
  /** What is shown. */
  readonly label: string;
  readonly otherNames: readonly string[];
  readonly note?: string;
  readonly colour?: ItemColour;
  /** First and last day on which it is offered (ISO 8601); an end left out is open. */
  readonly validFrom?: string;
  readonly validUntil?: string;
  /** Further columns of its row, by the key of their field. */
  readonly companions?: Readonly<Record<string, string>>;
  readonly state: ItemState;
  /** Where the value comes from, the first place first. Empty for what is kept by hand. */
  readonly from: readonly ItemOrigin[];
}

/** A part of the catalog that gives the item, and the rows it stands in there. */
export interface ItemOrigin {
  readonly by: CatalogPart['kind'];
  /** The range, register, linked source or catalog; empty for typed values. */
  readonly id: string;
  readonly rows: readonly SourceRow[];
}

/** What a catalog keeps of a value beyond its sources. */
export interface KeptItem {
  readonly value: string;
  readonly path: readonly string[];
  readonly retired: boolean;
  readonly otherNames: readonly string[];
  readonly label?: string;
  readonly note?: string;
  readonly colour?: ItemColour;
  readonly validFrom?: string;
  readonly validUntil?: string;
}

/** The field of a companion, for its heading and for showing its values. */
export interface CompanionField {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
}

export const catalogOrders = ['kept', 'alphabetical', 'reversed', 'companion', 'used'] as const;
/** So many of the most used values stand first; those after them are too rare for their order to matter. */
export const mostUsedFirst = 500;
export type CatalogOrder =
  | { readonly by: 'kept' | 'alphabetical' | 'reversed' }
  | { readonly by: 'companion'; readonly field: string; readonly direction: 'up' | 'down' }
  /**
   * `first`: the values that entries hold most, as they were counted last; a periodic snapshot, so that the list does not move under one's
   * hands.
   */
  | { readonly by: 'used'; readonly first: readonly string[] };

/** `value`: equal values stand once. `spelling`: values that are the same differently written stand once, too. */
export const distincts = ['value', 'spelling'] as const;
export type Distinct = (typeof distincts)[number];

export interface CatalogDefinition {
  /** In order; each is joined to what stands before it. */
  readonly parts: readonly CatalogPart[];
  readonly filter: Filter | null;
  readonly distinct: Distinct;
  readonly order: CatalogOrder;
}

/** How a text was found to mean an item; in order of precedence. */
export const lookupSteps = [
  'value',
  'label',
  'other name',
  'value differently written',
  'label differently written',
  'other name differently written',
] as const;
export type LookupStep = (typeof lookupSteps)[number];

export type Lookup =
  | { readonly found: 'item'; readonly item: Item; readonly by: LookupStep }
  | { readonly found: 'ambiguous'; readonly items: readonly Item[]; readonly by: LookupStep }
  | { readonly found: 'nothing' };

/** A compiled catalog: the items of its deepest level in order, and one index a step, made when it is first asked for; built once a version. */
export interface Catalog {
  readonly id: string;
  readonly title: string;
  readonly items: readonly Item[];
  /** The items of all levels, parents before children; the same as `items` where there is one level. */
  readonly all: readonly Item[];
  readonly levels: number;
  readonly index: { get(step: LookupStep): ReadonlyMap<string, readonly Item[]> };
  /** What comes along with its items, with headings. */
  readonly companions?: readonly CompanionField[];
}

/** What tells an item apart within its catalog: its parents and its value, joined by U+001F. */
export const itemKey = ({ path, value }: Pick<Item, 'path' | 'value'>): string =>
  path.length === 0 ? value : `${path.join('\u001F')}\u001F${value}`;

/** How many levels the items have. */
export function levelsOf(items: readonly Item[]): number {
  let most = 1;
  for (const { path } of items) if (path.length >= most) most = path.length + 1;
  return most;
}
