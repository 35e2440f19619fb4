// A house out of files: what is found in them, what is proposed, what was changed by hand, and what came of it.
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';
import { adoptedKinds, tableUses, type AdoptedKind, type HouseProposal, type TableUse } from '@dellum/core';
import { IsText, IsWhole, MayBeNull, MayLack } from './decorators.js';

/** So many files make one proposal, of so many rows together: what one sheet of a workbook can hold. */
export const mostAdoptedFiles = 20;
export const mostAdoptedRows = 1_048_576;
/** One of them may be so large; bytes. */
export const mostAdoptedBytes = 150 * 1024 * 1024;

/** What is asked for when a file is brought. */
export class AdoptFileDto {
  @IsText()
  @MaxLength(200)
  name!: string;

  /** The proposal that it belongs to; a new one without it. */
  @MayLack()
  @IsUUID()
  proposal?: string;
}

const tableIdForm = /^\d{1,4}\.\d{1,5}\.\d{1,5}$/u;
/** Of a list out of the files, or of a catalog of the house. */
const listIdForm = /^(?:\d{1,4}\.\d{1,5}\.\d{1,5}(?:\/\d{1,4})?|house:[\da-f-]{36})$/u;

/** What is changed of a table. */
export class MendTableDto {
  @Matches(tableIdForm)
  table!: string;

  @MayLack()
  @IsBoolean()
  wanted?: boolean;

  @MayLack()
  @IsText()
  @MaxLength(120)
  title?: string;

  @MayLack()
  @IsIn(tableUses)
  use?: TableUse;

  /** The number of the row in which its headings stand, null for none: it is looked at anew. */
  @MayLack()
  @MayBeNull()
  @IsWhole()
  @Min(1)
  @Max(1_048_576)
  heading?: number | null;
}
export class MendColumnDto {
  @Matches(tableIdForm)
  table!: string;

  @IsWhole()
  @Min(0)
  @Max(1000)
  at!: number;

  @MayLack()
  @IsBoolean()
  wanted?: boolean;

  @MayLack()
  @IsText()
  @MaxLength(120)
  heading?: string;

  @MayLack()
  @IsIn(adoptedKinds)
  kind?: AdoptedKind;

  /** Whether it becomes, or joins, a list. */
  @MayLack()
  @IsBoolean()
  list?: boolean;
}
export class MendListDto {
  @Matches(listIdForm)
  list!: string;

  @MayLack()
  @IsBoolean()
  wanted?: boolean;

  @MayLack()
  @IsText()
  @MaxLength(120)
  title?: string;

  /** The list with which it becomes one; null for none. */
  @MayLack()
  @MayBeNull()
  @Matches(listIdForm)
  into?: string | null;
}
export class MendSpellingsDto {
  @Matches(listIdForm)
  list!: string;

  /** The texts that become another value. */
  @IsArray()
  @ArrayMaxSize(1000)
  @IsText({ each: true })
  @MaxLength(1000, { each: true })
  from!: string[];

  /** Null: they stay as they are, and are outside. */
  @MayBeNull()
  @IsText()
  @MaxLength(1000)
  to!: string | null;
}

export type AdoptionState = 'reading' | 'unreadable' | 'ready' | 'applying' | 'applied';

/** The row in which the headings of a table stand, as it was said by hand. */
export interface SaidHeading {
  readonly table: string;
  readonly heading: number | null;
}
/** What was laid, to be taken back as a whole. */
export interface LaidAdoption {
  readonly by: string;
  readonly at: string;
  readonly sheets: readonly string[];
  readonly ranges: readonly string[];
  readonly catalogs: readonly string[];
  /** In its sheets, and in its lists. */
  readonly entries: number;
  readonly rows: number;
  /** The catalogs of the house from which its columns choose, as they were looked at. */
  readonly chosen?: readonly string[];
}
export interface AdoptedFile {
  readonly name: string;
  /** Its size in bytes. */
  readonly bytes: number;
}
/** What came of a proposal that was applied. */
export interface AppliedAdoption {
  readonly by: string;
  readonly at: string;
  readonly sheets: readonly { readonly id: string; readonly title: string; readonly kind: 'entry' | 'source' }[];
  readonly catalogs: readonly { readonly id: string; readonly title: string }[];
  readonly entries: number;
  /** In its lists. */
  readonly rows: number;
  /** At least so many entries were added, changed or deleted since. */
  readonly since: number;
}
export interface AdoptionSummary {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly state: AdoptionState;
  readonly files: readonly AdoptedFile[];
}
export interface AdoptionView extends AdoptionSummary {
  /** Why it could not be read, or applied. */
  readonly why: string | null;
  /** What is not read as it stands, in sentences. */
  readonly said: readonly string[];
  /** While it is ready to be looked at. */
  readonly proposal?: HouseProposal;
  readonly applied?: AppliedAdoption;
  /** While it is read or applied: rows that are done; `total` is null where nobody knows it yet. */
  readonly progress?: { readonly done: number; readonly total: number | null };
}
