// What is read from a file, whatever its format: sheets one after another, each in rows.
import type { CameBack, FileCheck, FileName } from '@dellum/core';

export interface ReadRow {
  /** Counted from 1. */
  readonly number: number;
  /** By column, counted from 0; blank ones are not there. */
  readonly cells: ReadonlyMap<number, CameBack>;
}
export type Piece =
  | { readonly piece: 'sheet'; readonly title: string; readonly hidden: boolean }
  /** Rows of the sheet before; those that hold nothing are not there. */
  | { readonly piece: 'rows'; readonly rows: readonly ReadRow[] }
  /** What cells of the sheet before are checked against. */
  | { readonly piece: 'checks'; readonly checks: readonly FileCheck[] };

/** What is not read as it stands, and is said. */
export interface Noticed {
  /** Cells with formulas, of which the stored result is taken. */
  formulas: number;
  /** Cells whose formula has failed. */
  errors: number;
  /** Cells too far to the right to be read. */
  beyond: number;
  macros: boolean;
  links: boolean;
}
export const nothingNoticed = (): Noticed => ({ formulas: 0, errors: 0, beyond: 0, macros: false, links: false });
/** Begins to count anew. */
export const countAnew = (noticed: Noticed): void => void Object.assign(noticed, { formulas: 0, errors: 0, beyond: 0 });

export interface OpenedFile {
  /** What cells are called in it. */
  readonly names?: readonly FileName[];
  /** Sheet by sheet, from the beginning each time it is asked. */
  pieces(): AsyncIterable<Piece>;
  /** What was noticed in the pieces that were read last. */
  readonly noticed: Noticed;
}

/** A file that cannot be read: what it is, and what to do, in a sentence. */
export class UnreadableFile extends Error {}

/** So many checks of a sheet are read. */
export const mostChecks = 1000;
/** So many columns of a sheet are read. */
export const mostColumns = 1000;
/** A text of more characters than this is no cell. */
export const longestText = 1_000_000;
/** So many texts are held at once; characters. */
export const mostText = 60_000_000;
/** A part of a file that becomes larger than this is not read; bytes. */
export const largestPart = 1_000_000_000;
/** What is larger than `suspicious` bytes and was packed more than so many times smaller is made to do harm. */
export const mostPacked = 100;
export const suspicious = 20_000_000;
