// Upkeep: what wants mending, with its cure.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsUUID, Length, MaxLength, Min } from 'class-validator';
import {
  fieldKinds,
  findingKinds,
  longestName,
  longestValue,
  type ColumnProfile,
  type ExaminedRange,
  type FieldKind,
  type FindingKind,
  type LookAlike,
  type Orphans,
  type ParentFinding,
  type RangeFinding,
  type Redefined,
  type StandingMatch,
} from '@dellum/core';
import { IsTextRows } from './textRows.js';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';

/** A pasted table has so many rows and fields at most. */
export const mostRowsOfTable = 10_000;
export const mostFieldsOfTable = 60;

/** Asks for the cure of a finding; the server finds it anew, so that what is mended is of now. */
export class CureDto {
  @IsUUID()
  rangeId!: string;

  @IsIn(findingKinds)
  kind!: FindingKind;

  /** The words of the finding, which tell it from others of its kind. */
  @IsText()
  @MaxLength(5000)
  words!: string;
}

/** Asks for the cure of a parent that almost matches. */
export class CureParentDto {
  /** The words of the finding, which tell it from others of its catalog. */
  @IsText()
  @MaxLength(5000)
  words!: string;
}

/** Says that two values that look alike are two things. */
export class TellApartDto {
  @IsText()
  @Length(1, longestValue)
  one!: string;

  @IsText()
  @Length(1, longestValue)
  other!: string;
}

export class TakeBackDto {
  @IsWhole()
  @Min(1)
  act!: number;
}

/** A range on the Ranges page. */
export type RangeLine = ExaminedRange;

/** What a change of a range would do, before it is done; of long lists of values the first ones are shown. */
export interface RangeLook extends Redefined {
  readonly counts: { readonly comesIn: number; readonly goesOut: number; readonly respelled: number };
  /** Entries that hold what goes or is respelled; the slip will ask about them. */
  readonly entries: number;
}

export interface CatalogAlikes {
  readonly catalogId: string;
  readonly groups: readonly LookAlike[];
}
/** Look-alikes between two catalogs: one thing kept in two places under two spellings. */
export interface AlikeBetween {
  readonly values: readonly { readonly catalogId: string; readonly value: string }[];
}
export interface Unused {
  readonly catalogId: string;
  /** As they are shown. */
  readonly values: readonly string[];
}
export class GatheredValueDto {
  @IsText()
  @MaxLength(500)
  value!: string;

  /** Other spellings of it that entries hold; they follow. */
  @IsArray()
  @ArrayMaxSize(200)
  @IsText({ each: true })
  @MaxLength(20_000, { each: true })
  spellings!: string[];
}

/** Makes a column a list: its values become a growing list with a catalog, entries follow the mapping, the field is bound. */
export class GatherDto {
  /** A catalog that is there and takes the place of a new list; all values must be its own. */
  @MayLack()
  @IsUUID()
  catalogId?: string;

  @IsText()
  @Length(1, longestName, { message: `Give the list a title of at most ${longestName} characters.` })
  title!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'The list needs at least one value.' })
  @ArrayMaxSize(5000, { message: 'A list of more than 5,000 values is better pasted into a source sheet.' })
  @Nested(() => GatheredValueDto, { each: true })
  values!: GatheredValueDto[];
}
/** A pasted table: its headings, then its rows. */
export class TextRowsDto {
  @IsTextRows(mostRowsOfTable, mostFieldsOfTable)
  rows!: string[][];
}
export class FieldFromRowsDto {
  @IsText()
  @Length(1, longestName, { message: 'Give the field a heading.' })
  heading!: string;

  @IsIn(fieldKinds)
  kind!: FieldKind;

  /** The catalog that it is bound to. */
  @MayLack()
  @IsUUID()
  catalogId?: string;
}
/** Makes a sheet of a pasted table: `rows` are without the headings. */
export class MakeFromRowsDto {
  @IsText()
  @Length(1, longestName, { message: `Give it a title of at most ${longestName} characters.` })
  title!: string;

  @IsText()
  @MaxLength(500)
  note!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Paste a table with at least one heading.' })
  @ArrayMaxSize(mostFieldsOfTable)
  @Nested(() => FieldFromRowsDto, { each: true })
  fields!: FieldFromRowsDto[];

  @IsTextRows(mostRowsOfTable, mostFieldsOfTable)
  rows!: string[][];
}
/** A field that a pasted table could have. */
export interface ProposedFieldView {
  readonly heading: string;
  readonly kind: FieldKind;
  readonly filled: number;
  /** Cells that the kind does not read; they would stay as they are written. */
  readonly unread: number;
  readonly distinct: number;
  readonly wantsToBeList: boolean;
  /** The catalog that has most of its values. */
  readonly catalogId: string | null;
}

/** The profile of a column, with the catalogs that have most of its values already, the best first. */
export interface ColumnView extends ColumnProfile {
  readonly standing: readonly StandingMatch[];
}
/** A column that was made a list and can be what it was. */
export interface Gathered {
  readonly at: string;
  readonly by: string;
  readonly spellings: number;
  /** Entries still follow; until they have, nothing is taken back. */
  readonly following: boolean;
}
/** What taking it back left standing: a list that is used elsewhere by now. */
export interface GatherTakenBack {
  readonly kept: readonly string[];
}

/** A column that wants to be a list. */
export interface WantsToBeList {
  readonly fieldId: string;
  readonly distinct: number;
  readonly entries: number;
}

export interface Upkeep {
  /** What takes long to find is of before the last change, and is looked for anew; the live stream tells when it is found. */
  readonly lookingAgain: boolean;
  readonly findings: readonly RangeFinding[];
  /** Names of parents that almost match. */
  readonly parents: readonly ParentFinding[];
  /** Rows whose parent does not exist. */
  readonly orphans: readonly Orphans[];
  /** Catalogs of which nobody can read how they are composed. */
  readonly faulty: readonly { readonly catalogId: string; readonly title: string }[];
  /** Linked sources that could not be read when they were read last. */
  readonly failing: readonly { readonly sourceId: string; readonly name: string; readonly failure: string }[];
  /** Webhooks whose messages are not taken; `off`: nothing is sent any more. */
  readonly untold: readonly { readonly webhookId: string; readonly name: string; readonly said: string; readonly off: boolean }[];
  /** Intakes of which something waits, or that take nothing. */
  readonly intakes: readonly {
    readonly intakeId: string;
    readonly name: string;
    readonly waits: number;
    readonly failure: string | null;
  }[];
  readonly alikes: readonly CatalogAlikes[];
  readonly between: readonly AlikeBetween[];
  readonly unused: readonly Unused[];
  /** Catalogs that offer nothing, with why. */
  readonly empty: readonly { readonly catalogId: string; readonly words: string }[];
  readonly outside: readonly { readonly fieldId: string; readonly entries: number }[];
  readonly columns: readonly WantsToBeList[];
}
