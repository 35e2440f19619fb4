// A source range: a named stretch of a register's cells, anchored to entries and not to row numbers.
import type { EntryId, FieldId } from '../registers/index.js';

/**
 * Where a range starts. `top`: under the heading. `entry`: at that entry. `after`: under that entry; this is what
 * remains when the first entry of a range is deleted and nothing of the range is left below it.
 */
export type RangeStart =
  | { readonly at: 'top' }
  | { readonly at: 'entry'; readonly entry: EntryId }
  | { readonly at: 'after'; readonly entry: EntryId };

/** How a range ends. A fixed end without an entry belongs to a range that was emptied and keeps its place. */
export type RangeEnd =
  | { readonly ends: 'fixed'; readonly entry: EntryId | null }
  | { readonly ends: 'last' }
  | { readonly ends: 'gap' };

export const rangeEndings = ['fixed', 'last', 'gap'] as const;
export type RangeEnding = (typeof rangeEndings)[number];

export interface SourceRange {
  readonly id: string;
  readonly name: string;
  readonly field: FieldId;
  readonly start: RangeStart;
  readonly end: RangeEnd;
}

/** Why a cell gives no value to a range. */
export type LeftOutWhy = 'blank' | 'repeat' | 'past the end' | 'after the gap';

/** A place in the source: the entry and its ordinal, counted from 0. */
export interface SourceRow {
  readonly entry: EntryId;
  readonly ordinal: number;
}
export interface RangeValue {
  readonly value: string;
  /** All places that hold the value, the first one first. */
  readonly rows: readonly SourceRow[];
}
export interface LeftOut extends SourceRow {
  readonly why: LeftOutWhy;
  readonly text: string;
}

/** What a range takes from its register now. */
export interface RangeTaking {
  readonly values: readonly RangeValue[];
  readonly leftOut: readonly LeftOut[];
  /** Ordinals of the stretch: from `first` up to, not including, `beyond`. Equal when the range is empty. */
  readonly first: number;
  readonly beyond: number;
  /** True when a value typed in the next cell is taken by itself. */
  readonly grows: boolean;
}
