// An arrangement: how one person looks at a register. It moves nobody else's entries and changes none.
import type { FieldId } from '../registers/index.js';

export const directions = ['up', 'down'] as const;
export interface FieldSort {
  readonly field: FieldId;
  readonly direction: (typeof directions)[number];
}

/** Only entries whose field holds one of these values (an empty one for blank). */
export interface OnlyValues {
  readonly only: 'values';
  readonly field: FieldId;
  readonly values: readonly string[];
}
/** Only entries whose field is outside. */
export interface OnlyOutside {
  readonly only: 'outside';
  readonly field: FieldId;
}
/** Only entries whose field lies within two bounds, both included; an end left out (null) is open. Days or numbers, as they are stored. */
export interface OnlyWithin {
  readonly only: 'within';
  readonly field: FieldId;
  readonly from: string | null;
  readonly until: string | null;
}
/** Only entries whose field contains a text, in any case. */
export interface OnlyText {
  readonly only: 'text';
  readonly field: FieldId;
  readonly text: string;
}
export type Only = OnlyValues | OnlyOutside | OnlyWithin | OnlyText;
export const onlyKinds = ['values', 'outside', 'within', 'text'] as const satisfies readonly Only['only'][];

/** How one field is shown. */
export interface ShownField {
  readonly field: FieldId;
  readonly hidden: boolean;
  /** Pixels; null for the width that the sheet gives it. */
  readonly width: number | null;
}

export interface Arrangement {
  /** The first decides; entries that are equal in all of them stay as the register keeps them. Blanks come last. */
  readonly sort: readonly FieldSort[];
  /** All of them hold; a field is in at most one. */
  readonly only: readonly Only[];
  /** Fields in the order in which they are shown; those that are not named follow as the register has them. */
  readonly fields: readonly ShownField[];
  /** So many of the shown fields stay in view when one scrolls sideways. */
  readonly inView: number;
  /** The field whose colour the whole entry takes; null for none. */
  readonly colouredBy: FieldId | null;
}
