// Files that come back: what of them is read, what is changed in them, and what becomes of it.
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsUUID, Length, Max, MaxLength, Min } from 'class-validator';
import { longestValue, type FieldKind } from '@dellum/core';
import { IsText, IsWhole, MayBeNull, MayLack, Nested } from './decorators.js';
import type { IntakeWay } from './intakes.js';

/** A file may be so large; bytes. */
export const mostFileBytes = 50 * 1024 * 1024;
/** So many rows of a file are compared. */
export const mostRowsBack = 200_000;
/** So many days it is known what a file held that went out to be filled in. */
export const sentKept = 180;

/** What is asked for when a file is brought. */
export class BringFileDto {
  @IsText()
  @MaxLength(200)
  name!: string;

  /** The sheet at which it was brought: for a file that does not say of which it is. */
  @MayLack()
  @IsUUID()
  registerId?: string;
}

/** A column of a file: where it stands, counted from 0, and the field that it is; null for none. */
export class FileColumn {
  @IsWhole()
  @Min(0)
  @Max(1000)
  at!: number;

  @MayBeNull()
  @IsText()
  @MaxLength(60)
  field!: string | null;
}
export class FileColumnsDto {
  @IsUUID()
  registerId!: string;

  @IsArray()
  @ArrayMaxSize(1000)
  @Nested(() => FileColumn, { each: true })
  columns!: FileColumn[];
}

/** Where two changes of a cell meet: what came back, or what stands here. */
export const takings = ['came', 'here'] as const;
export type Taking = (typeof takings)[number];

/** What is decided of one row: of a cell, or whether its entry is deleted. */
export class DecideRowDto {
  @MayLack()
  @IsText()
  @MaxLength(60)
  field?: string;

  @MayLack()
  @IsIn(takings)
  takes?: Taking;

  /** Another text than the one that came. */
  @MayLack()
  @IsText()
  @MaxLength(32_767)
  text?: string;

  /** The same for all refused cells of this field in which the same text came. */
  @MayLack()
  @IsBoolean()
  alike?: boolean;

  /** The value is meant, though the list does not have it. */
  @MayLack()
  @IsBoolean()
  confirmed?: boolean;

  @MayLack()
  @IsBoolean()
  deletes?: boolean;
}

/** What came in a cell is another name of the value that it was mended to. */
export class OtherNameDto {
  @IsText()
  @MaxLength(60)
  field!: string;

  @IsText()
  @Length(1, longestValue)
  name!: string;
}

/** Decides all at once: of cells that were changed in both places, or of entries whose row did not come back. */
export class DecideAllDto {
  @IsIn(['asked', 'missing'])
  what!: 'asked' | 'missing';

  /** For entries whose row did not come back, `came` deletes them. */
  @IsIn(takings)
  takes!: Taking;
}

/** `coming`: its bytes are on their way; `unclear`: it does not say of which sheet it is, or which columns are which fields. */
export type ReturnedState = 'coming' | 'reading' | 'unreadable' | 'unclear' | 'ready' | 'applied';
export type ReturnedRowKind = 'changed' | 'new' | 'missing' | 'deleted';

export interface FileHeading {
  readonly at: number;
  readonly heading: string;
}
export interface RememberedColumn {
  readonly heading: string;
  readonly field: string | null;
}
/** What a column of a file showed when it went out. */
export interface SentColumn {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly labels: readonly (readonly [key: string, label: string])[] | null;
  readonly under: readonly string[];
}

/** A cell of a file that came back otherwise than it went out. */
export interface ReturnedCell {
  readonly field: string;
  /** As it came back, or as it was mended since. */
  readonly text: string;
  /** As it went out, and as it stands here now, as they are shown. */
  readonly was: string;
  readonly shown: string;
  /** What stands here, as it is stored. */
  readonly now: string;
  /** It was changed there and here. */
  readonly asked: boolean;
  readonly takes: Taking;
  readonly confirmed?: boolean;
  readonly refused?: {
    readonly code: string;
    readonly message: string;
    readonly suggestions: readonly string[];
    readonly mayConfirm?: boolean;
  };
}
/** A cell that changes with those that came: cleared, since it does not fit any more, or filled. As shown. */
export interface FollowingCell {
  readonly field: string;
  readonly shown: string;
  readonly becomes: string;
}
export interface ReturnedRow {
  readonly ord: number;
  /** Its number in the file. */
  readonly row: number | null;
  readonly what: ReturnedRowKind;
  readonly entry: string;
  /** What the row begins with, to be known by. */
  readonly about: string;
  readonly cells: readonly ReturnedCell[];
  /** What follows from what came, as it is decided now. */
  readonly follows: readonly FollowingCell[];
  readonly deletes: boolean;
}

export interface ReturnedFileView {
  readonly id: number;
  readonly name: string;
  readonly by: string;
  readonly at: string;
  readonly state: ReturnedState;
  readonly registerId: string | null;
  /** It is known what it held when it went out. */
  readonly known: boolean;
  /** Rows that are read so far. */
  readonly done: number;
  readonly why: string | null;
  readonly said: readonly string[];
  readonly columns: readonly (FileHeading & FileColumn)[];
  readonly counts: ReturnedCounts;
  /** The act that has stored it; null also where nothing in it was new. */
  readonly actId: number | null;
  readonly way: IntakeWay;
  /** The program that sent it. */
  readonly program: string | null;
  /** The intake that has taken it: what fits is stored by itself. */
  readonly intake: { readonly id: string; readonly name: string } | null;
}
export interface ReturnedCounts {
  /** Cells that were changed there alone and are taken, in so many rows. */
  readonly cells: number;
  readonly rows: number;
  /** Cells that were changed there and here, and those of them of which what came is taken. */
  readonly asked: number;
  readonly askedCame: number;
  /** New rows. */
  readonly added: number;
  /** Entries whose row did not come back, and those of them that are to be deleted. */
  readonly missing: number;
  readonly deletes: number;
  /** Rows that were changed there, of entries that were deleted here. */
  readonly deleted: number;
  /** Cells that would be refused, by the code of the judge, the most frequent first. */
  readonly refused: readonly { readonly code: string; readonly cells: number }[];
}
/** What is shown of a file at once. */
export const returnedShown = ['asked', 'refused', 'changed', 'new', 'missing', 'deleted'] as const;
export type ReturnedShown = (typeof returnedShown)[number];
export class ReturnedRowsDto {
  @IsIn(returnedShown)
  show!: ReturnedShown;
}
export interface ReturnedRows {
  readonly rows: readonly ReturnedRow[];
  readonly total: number;
}
