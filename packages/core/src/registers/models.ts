// A register as the computation sees it, and the acts that change one.
import type { FieldKind } from '../values/index.js';

export type EntryId = string;
export type FieldId = string;
export type RegisterId = string;

/** What an entry holds: text by field. A blank cell has no key. */
export type Cells = Readonly<Record<FieldId, string>>;

export interface Entry {
  readonly id: EntryId;
  readonly cells: Cells;
}

/** A field of a register, by its key. */
export interface RegisterField {
  readonly key: FieldId;
  readonly heading: string;
  readonly kind: FieldKind;
}

/** A register with its entries, as ranges and queries read it. */
export interface RegisterState {
  readonly id: RegisterId;
  readonly heading: string;
  readonly fields: readonly RegisterField[];
  readonly entries: readonly Entry[];
}

/** Sets cells to texts; an empty text makes the cell blank. */
export interface WriteAct {
  readonly act: 'write';
  readonly cells: readonly { readonly entry: EntryId; readonly field: FieldId; readonly text: string }[];
}
/** Puts new entries above the entry `before`, or at the end when it is null. */
export interface InsertAct {
  readonly act: 'insert';
  readonly before: EntryId | null;
  readonly entries: readonly Entry[];
}
export interface DeleteAct {
  readonly act: 'delete';
  readonly entries: readonly EntryId[];
}
/** Takes entries out and puts them, in their order, above `before` (null: at the end). */
export interface MoveAct {
  readonly act: 'move';
  readonly entries: readonly EntryId[];
  readonly before: EntryId | null;
}
/** Brings all entries into alphabetical order of one field; blanks come last; equal texts keep their order. */
export interface SortAct {
  readonly act: 'sort';
  readonly field: FieldId;
  readonly direction: 'up' | 'down';
}
/** Brings the entries into a given order; those it does not name follow in the order they have. */
export interface ArrangeAct {
  readonly act: 'arrange';
  readonly entries: readonly EntryId[];
}
export type Act = WriteAct | InsertAct | DeleteAct | MoveAct | SortAct | ArrangeAct;
