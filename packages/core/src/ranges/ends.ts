// The three ways a range ends. Each finds the first ordinal that no longer belongs to the range.
import type { RangeEnd, RangeEnding } from './models.js';

export interface EndKind {
  readonly ends: RangeEnding;
  /** What the way of ending is called, and what it means, where one chooses it. */
  readonly title: string;
  readonly meaning: string;
  readonly grows: boolean;
  /**
   * `filled[ordinal]` says whether the cell holds something; the stretch may reach from `first` up to `bound`
   * (the start of the next range in the same field, or the end of the register).
   */
  beyond(filled: (ordinal: number) => boolean, first: number, bound: number, endOrdinal: number | undefined): number;
}

/** Ends at an entry that was chosen. Inserting inside widens it. */
export const fixedEnd: EndKind = {
  ends: 'fixed',
  title: 'Fixed',
  meaning: 'ends at a row you choose',
  grows: false,
  beyond: (_filled, first, _bound, endOrdinal) => (endOrdinal === undefined ? first : Math.max(first, endOrdinal + 1)),
};

/** Grows to the last filled cell before the next range. */
export const lastEnd: EndKind = {
  ends: 'last',
  title: 'Grows to the last',
  meaning: 'whatever is added below is taken',
  grows: true,
  beyond(filled, first, bound) {
    let beyond = bound;
    while (beyond > first && !filled(beyond - 1)) beyond--;
    return beyond;
  },
};

/** Grows to the cell before the first blank one. */
export const gapEnd: EndKind = {
  ends: 'gap',
  title: 'Grows to a gap',
  meaning: 'stops at the first blank cell',
  grows: true,
  beyond(filled, first, bound) {
    let beyond = first;
    while (beyond < bound && filled(beyond)) beyond++;
    return beyond;
  },
};

const kinds: { readonly [Ends in RangeEnding]: EndKind } = { fixed: fixedEnd, last: lastEnd, gap: gapEnd };
export const endKind = (end: RangeEnd | RangeEnding): EndKind => kinds[typeof end === 'string' ? end : end.ends];
