// A source range: a named stretch of a register's cells (or of several lists), anchored to entries and not to row numbers.
import type { EntryId, FieldId, RegisterId } from '../registers/index.js';

/**
 * Where a stretch starts. `top`: under the heading. `entry`: at that entry. `after`: under that entry; this is what
 * remains when the first entry of a range is deleted and nothing of the range is left below it.
 */
export type RangeStart =
  { readonly at: 'top' } | { readonly at: 'entry'; readonly entry: EntryId } | { readonly at: 'after'; readonly entry: EntryId };

/** How a stretch ends. A fixed end without an entry belongs to a range that was emptied and keeps its place. */
export type RangeEnd = { readonly ends: 'fixed'; readonly entry: EntryId | null } | { readonly ends: 'last' } | { readonly ends: 'gap' };

export const rangeEndings = ['fixed', 'last', 'gap'] as const;
export type RangeEnding = (typeof rangeEndings)[number];

/** How the cells are read: one field; lists whose headings are the parents; levels across fields, repeated downwards. */
export const rangeShapes = ['list', 'headings', 'levels'] as const;
export type RangeShape = (typeof rangeShapes)[number];

/** A piece of one register. */
export interface Stretch {
  readonly registerId: RegisterId;
  /** One field; for `levels` one a level, outermost first. */
  readonly fields: readonly FieldId[];
  readonly start: RangeStart;
  readonly end: RangeEnd;
}

export interface SourceRange {
  readonly id: string;
  readonly name: string;
  readonly shape: RangeShape;
  /** `levels`: a blank cell over a filled one further in means the same as above. */
  readonly inherits: boolean;
  /** One; for `headings` one a list of the sheet, in the order of the lists. */
  readonly stretches: readonly Stretch[];
}

/** Why a cell gives no value to a range. */
export const leftOutWhys = ['blank', 'repeat', 'past the end', 'after the gap', 'wrong kind'] as const;
export type LeftOutWhy = (typeof leftOutWhys)[number];

/** A place in the source: the register, the entry and its ordinal, counted from 0. */
export interface SourceRow {
  readonly register: RegisterId;
  readonly entry: EntryId;
  readonly ordinal: number;
}
export interface RangeValue {
  readonly value: string;
  /** The values of its parents, outermost first; empty in a list. */
  readonly path: readonly string[];
  /** All places that hold the value, the first one first; none for the heading of a list. */
  readonly rows: readonly SourceRow[];
}
export interface LeftOut extends SourceRow {
  readonly why: LeftOutWhy;
  readonly text: string;
}

/** The rows of a stretch that belong to a range now: from `first` up to, not including, `beyond`. Equal when it is empty. */
export interface Extent {
  readonly registerId: RegisterId;
  readonly first: number;
  readonly beyond: number;
  /** Where it must stop: the start of the next range in the same field, or the end of the register. */
  readonly bound: number;
}

/** What a range takes from its registers now. */
export interface RangeTaking {
  /** In a list one value after the other; in `headings` and `levels` every parent before its children, each once. */
  readonly values: readonly RangeValue[];
  readonly leftOut: readonly LeftOut[];
  readonly extents: readonly Extent[];
  /** True when a value typed in the next cell is taken by itself. */
  readonly grows: boolean;
}

/** The one way in which all stretches of a range end. */
export const endingOf = (range: SourceRange): RangeEnding => range.stretches[0]?.end.ends ?? 'last';
/** The stretches of some ranges that lie over one register. */
export const stretchesOver = (ranges: readonly SourceRange[], registerId: RegisterId): Stretch[] =>
  ranges.flatMap(({ stretches }) => stretches.filter((stretch) => stretch.registerId === registerId));
export const liesOver = (range: SourceRange, registerId: RegisterId): boolean =>
  range.stretches.some((stretch) => stretch.registerId === registerId);
