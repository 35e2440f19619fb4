// Figures: entries counted and summed by the values of one or two fields, through links as well, and by time.
import type { Only } from '../arrangements/index.js';
import type { FieldId, RegisterId } from '../registers/index.js';

/** A field of the register itself, or of the entries that one of its fields names. */
export interface FigurePath {
  readonly field: FieldId;
  /** The field of the register that names the other entries, and the register in which they stand; null for its own field. */
  readonly through: { readonly link: FieldId; readonly registerId: RegisterId } | null;
}
export const timeSteps = ['day', 'week', 'month', 'year'] as const;
export type TimeStep = (typeof timeSteps)[number];
export const measures = ['count', 'sum', 'mean', 'least', 'most'] as const;
export type Measure = (typeof measures)[number];
export const charts = ['bars', 'stacked', 'line', 'none'] as const;
export type Chart = (typeof charts)[number];

export interface FigureDefinition {
  readonly registerId: RegisterId;
  /** At most two; the second stands within the first. */
  readonly by: readonly FigurePath[];
  readonly time: { readonly path: FigurePath; readonly step: TimeStep } | null;
  readonly measure: Measure;
  /** What is measured: a field of numbers; null for counting. */
  readonly of: FigurePath | null;
  readonly only: readonly Only[];
  readonly chart: Chart;
}

/** What the entries of one group come to. */
export interface Tally {
  readonly entries: number;
  /** Entries that hold a number in what is measured. */
  readonly measured: number;
  /** Decimal numbers; null where nothing is measured. */
  readonly sum: string | null;
  readonly least: string | null;
  readonly most: string | null;
}
/** The entries that hold these values; '' for blank. The time is the first day of its step. */
export interface FigureGroup extends Tally {
  readonly values: readonly string[];
  readonly time: string | null;
}
