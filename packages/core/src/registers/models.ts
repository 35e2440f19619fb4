// A register as the computation sees it, and the acts that change one.

export type EntryId = string;
export type FieldId = string;

/** What an entry holds: text by field. A blank cell has no key. */
export type Cells = Readonly<Record<FieldId, string>>;

export interface Entry {
  readonly id: EntryId;
  readonly cells: Cells;
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
export type Act = WriteAct | InsertAct | DeleteAct | MoveAct | SortAct;
