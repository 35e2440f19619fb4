// A filter: which entries of a register, or which items of a catalog, are wanted.
import { Decimal } from 'decimal.js';
import { byCodeUnits, clean, matchKey } from '../text/index.js';
import type { FieldKind } from '../values/index.js';

export const comparisons = ['is', 'is not', 'contains', 'starts with', 'at least', 'at most', 'is blank', 'is filled'] as const;
export type Comparison = (typeof comparisons)[number];

export interface Condition {
  /** The key of a field; for items also `value`, `label` or `note`. */
  readonly field: string;
  readonly is: Comparison;
  /** Compared with; nothing for blank and filled. */
  readonly value: string;
}
export interface Filter {
  /** True: all conditions hold. False: one is enough. */
  readonly all: boolean;
  readonly conditions: readonly Condition[];
}

const ofAnyKind = ['is', 'is not', 'is blank', 'is filled'] as const;
const ofMeasures = ['is', 'is not', 'at least', 'at most', 'is blank', 'is filled'] as const;

/** How values of a kind are compared: amounts and days by their size, texts by their letters, too. */
export const comparisonsFor = (kind: FieldKind): readonly Comparison[] =>
  kind === 'yes/no' ? ofAnyKind : kind === 'text' || kind === 'several values' ? comparisons : ofMeasures;

/** Whether a comparison wants something to compare with. */
export const comparesWith = (is: Comparison): boolean => is !== 'is blank' && is !== 'is filled';

const plainNumber = /^-?\d+(?:\.\d+)?$/u;

/** Numbers by size, exactly; everything else (days among them) by its code points. */
function compare(a: string, b: string): number {
  if (plainNumber.test(a) && plainNumber.test(b)) return new Decimal(a).comparedTo(new Decimal(b));
  return byCodeUnits(a, b);
}

const tests: { readonly [Is in Comparison]: (held: string, wanted: string) => boolean } = {
  is: (held, wanted) => held !== '' && (matchKey(held) === matchKey(wanted) || compare(held, wanted) === 0),
  'is not': (held, wanted) => matchKey(held) !== matchKey(wanted),
  contains: (held, wanted) => matchKey(held).includes(matchKey(wanted)),
  'starts with': (held, wanted) => matchKey(held).startsWith(matchKey(wanted)),
  'at least': (held, wanted) => held !== '' && compare(held, wanted) >= 0,
  'at most': (held, wanted) => held !== '' && compare(held, wanted) <= 0,
  'is blank': (held) => held === '',
  'is filled': (held) => held !== '',
};

/** Whether one text compares so with another, as a filter compares them. */
export const compareTexts = (is: Comparison, held: string, wanted: string): boolean => tests[is](clean(held), clean(wanted));

/** Whether something passes the filter; `textOf` gives what it holds in a field, an empty text for nothing. */
export function passes(filter: Filter | null, textOf: (field: string) => string): boolean {
  if (!filter || filter.conditions.length === 0) return true;
  const holds = ({ field, is, value }: Condition) => tests[is](clean(textOf(field)), clean(value));
  return filter.all ? filter.conditions.every(holds) : filter.conditions.some(holds);
}

/** The filter in words: "class is tug and length is at least 20"; `shown` writes what a field is compared with as people do. */
export function filterClause(
  filter: Filter,
  nameOf: (field: string) => string,
  shown: (field: string, value: string) => string = (_field, value) => value,
): string {
  const words = filter.conditions.map(({ field, is, value }) => {
    const verb = is === 'at least' || is === 'at most' ? `is ${is}` : is;
    return comparesWith(is) ? `${nameOf(field)} ${verb} “${shown(field, value)}”` : `${nameOf(field)} ${verb}`;
  });
  return words.join(filter.all ? ' and ' : ' or ');
}
