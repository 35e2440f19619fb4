// The build of a house: its sheets, registers, fields, rules, ranges and catalogs.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsIn, IsString, IsUUID, Length, Max, MaxLength, Min } from 'class-validator';
import {
  fieldKinds,
  longestName,
  markOf,
  rangeEndings,
  rangeShapes,
  type CatalogDefinition,
  type Closing,
  type FieldKind,
  type RangeEnding,
  type RangeShape,
  type Rule,
  type SourceRange,
  type ValuePair,
} from '@dellum/core';
import type { FormName } from './forms.js';
import { SheetGroupDto, type PeopleGroup } from './groups.js';
import { markLength } from './marks.js';
import { FilterDto } from './catalogs.js';
import { GivenDto } from './givenDto.js';
import { IsText, IsWhole, MayBeNull, MayLack, Nested } from './decorators.js';

const titleWords = { message: `Give it a title of at most ${longestName} characters.` };

export class MakeSheetDto {
  @IsIn(['entry', 'source'])
  kind!: 'entry' | 'source';

  @IsText()
  @Length(1, longestName, titleWords)
  title!: string;

  @MayLack()
  @IsText()
  @MaxLength(500)
  note?: string;
}

export class RetitleDto {
  @IsText()
  @Length(1, longestName, titleWords)
  title!: string;
}

/** What an administrator changes of a field. */
export class ChangeFieldDto {
  @MayLack()
  @IsText()
  @Length(1, longestName, titleWords)
  title?: string;

  /** The heading under which it stands in a record; blank for none. */
  @MayLack()
  @IsText()
  @MaxLength(80, { message: 'Keep the heading of a group under 80 characters.' })
  group?: string;
}

/** What an administrator sets of a sheet beside its title. */
export class ChangeSheetDto {
  @MayLack()
  @IsText()
  @Length(1, longestName, titleWords)
  title?: string;

  @MayLack()
  @IsText()
  @MaxLength(500)
  note?: string;

  /** Source sheets: clerks and readers may look at it. */
  @MayLack()
  @IsBoolean()
  shown?: boolean;
}

/** Limits a sheet to groups of people, or opens it to everybody again. */
export class LimitSheetDto {
  @IsBoolean()
  limited!: boolean;

  /** Which groups look at it or enter data; kept also while it is open to everybody. */
  @IsArray()
  @ArrayMaxSize(200)
  @Nested(() => SheetGroupDto, { each: true })
  groups!: SheetGroupDto[];

  /** Whoever looks at it downloads it, too; otherwise administrators alone. It stays as it is when it is left out. */
  @MayLack()
  @IsBoolean()
  downloads?: boolean;
}
export type SheetGroup = Readonly<SheetGroupDto>;

/** So many days after the date in a field. */
export class DaysAfterDto {
  @IsText()
  @MaxLength(60)
  field!: string;

  @IsWhole()
  @Min(0)
  @Max(36_500, { message: 'Choose at most 36,500 days.' })
  days!: number;
}
/** When the entries of a register are closed to all but administrators; both left out for never. */
export class ClosingDto {
  @MayBeNull()
  @Nested(() => FilterDto)
  where!: FilterDto | null;

  @MayBeNull()
  @Nested(() => DaysAfterDto)
  after!: DaysAfterDto | null;
}
/** How many entries would be closed now, of all. */
export interface ClosingTrial {
  readonly closed: number;
  readonly entries: number;
}

/** Puts a sheet, a register or a field before another one, or last. */
export class PlaceDto {
  @MayLack()
  @IsUUID()
  before?: string;
}

/** A new list on a source sheet. */
export class MakeListDto {
  @IsUUID()
  sheetId!: string;

  @IsText()
  @Length(1, longestName, { message: 'Give the list a heading.' })
  heading!: string;

  /** What its values are; text where it is left out. */
  @MayLack()
  @IsIn(fieldKinds, { message: `Choose a kind: ${fieldKinds.join(', ')}.` })
  kind?: FieldKind;
}

/** Lets a field hold values of another kind; what it holds is read anew. */
export class ChangeKindDto {
  @IsIn(fieldKinds, { message: `Choose a kind: ${fieldKinds.join(', ')}.` })
  kind!: FieldKind;
}

/** What a change of kind would do. */
export interface KindTrial {
  readonly held: number;
  /** Entries whose value is none of the new kind; it stays as it is, and outside. */
  readonly unread: number;
  readonly examples: readonly { readonly value: string; readonly entries: number }[];
}

export class MakeFieldDto {
  @IsText()
  @Length(1, longestName, { message: 'Give the field a heading.' })
  heading!: string;

  @IsIn(fieldKinds, { message: `Choose a kind: ${fieldKinds.join(', ')}.` })
  kind!: FieldKind;
}

/** A new table on a source sheet: a register of several fields. */
export class MakeTableDto {
  @IsUUID()
  sheetId!: string;

  @IsText()
  @Length(1, longestName, { message: 'Give the table a heading.' })
  heading!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Give the table at least one field.' })
  @ArrayMaxSize(60)
  @Nested(() => MakeFieldDto, { each: true })
  fields!: MakeFieldDto[];
}

/** Where a range lies: one register with its fields, or for `headings` the lists of a sheet. */
export class RangePlaceDto {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose the list or table that the range lies over.' })
  @ArrayMaxSize(200)
  @IsUUID(undefined, { each: true })
  registerIds!: string[];

  /** The fields it reads, outermost first; for `headings` the one field of each list is read. */
  @IsArray()
  @ArrayMaxSize(8, { message: 'A range has at most 8 levels.' })
  @IsText({ each: true })
  @MaxLength(60, { each: true })
  fields!: string[];

  /** The entries whose cells were selected; for `headings` all of each list. */
  @IsArray()
  @ArrayMaxSize(200_000)
  @IsUUID(undefined, { each: true })
  entries!: string[];
}

export class MakeRangeDto {
  /** Judged as a name. */
  @IsString()
  @MaxLength(2000)
  name!: string;

  @IsIn(rangeShapes)
  shape!: RangeShape;

  @IsBoolean()
  inherits!: boolean;

  @Nested(() => RangePlaceDto)
  place!: RangePlaceDto;

  @IsIn(rangeEndings)
  ends!: RangeEnding;
}

export class ChangeRangeDto {
  /** The mark of the range as one saw it (`rangeMark`): what somebody else has changed since is not changed blindly. */
  @MayLack()
  @IsText()
  @MaxLength(markLength)
  seen?: string;

  @MayLack()
  @IsText()
  @MaxLength(2000)
  name?: string;

  @MayLack()
  @IsIn(rangeEndings)
  ends?: RangeEnding;

  @MayLack()
  @IsBoolean()
  inherits?: boolean;

  /** For a fixed end: the entry at which the range ends from now on. */
  @MayLack()
  @IsUUID()
  endEntry?: string;

  /** Lays the range over other cells. */
  @MayLack()
  @Nested(() => RangePlaceDto)
  place?: RangePlaceDto;
}

export const rangeMark = ({ name, shape, inherits, stretches }: SourceRange): string => markOf([name, shape, inherits, stretches]);

/** A cell of a source sheet or a row of a list: it holds what is typed. */
export class WriteCellDto {
  @IsUUID()
  entry!: string;

  @IsText()
  @MaxLength(60)
  field!: string;

  @IsString()
  text!: string;
}

/** A cell of an entry. */
export class GiveCellDto extends GivenDto {
  @IsUUID()
  entry!: string;

  @IsText()
  @MaxLength(60)
  field!: string;
}

/** A pasted block: each cell is judged; what is refused is not stored and comes back. */
export class WriteBlockDto {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20_000, { message: 'Paste at most 20,000 cells at once.' })
  @Nested(() => GiveCellDto, { each: true })
  cells!: GiveCellDto[];
}

export interface FieldView {
  readonly id: string;
  /** Fixed name within the register, used by the API. */
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  /** The heading under which it stands in a record; '' for none. */
  readonly group: string;
  readonly rule: Rule | null;
}
export interface RegisterView {
  readonly id: string;
  readonly sheetId: string;
  readonly title: string;
  readonly fields: readonly FieldView[];
  /** Whoever asks may change what stands in it. */
  readonly enters: boolean;
  /** When its entries are closed to all but administrators; null for never. */
  readonly closing: Closing | null;
}
export interface SheetView {
  readonly id: string;
  readonly kind: 'entry' | 'source';
  readonly title: string;
  readonly note: string;
  /** Source sheets: whether clerks and readers may look at it. */
  readonly shown: boolean;
  /** It is there for groups of people alone, beside the administrators. */
  readonly limited: boolean;
  /** Which groups these are; administrators see them. */
  readonly groups: readonly SheetGroup[];
  /** Whoever looks at it downloads it, too; otherwise administrators alone. */
  readonly downloads: boolean;
  readonly registers: readonly RegisterView[];
}
export type RangeView = SourceRange;
export interface CatalogView {
  readonly id: string;
  readonly key: string;
  readonly title: string;
  readonly note: string;
  readonly version: number;
  readonly definition: CatalogDefinition;
  /** What is kept of how it is composed cannot be read: it offers nothing until it is composed anew. */
  readonly faulty?: true;
  /** Who keeps its values, beside the administrators. */
  readonly stewards: readonly { readonly id: string; readonly name: string }[];
}
/** A linked source by name; how it last went is asked for by itself. */
export interface LinkedName {
  readonly id: string;
  readonly name: string;
}
/** The build as the person who asks may see it: source sheets and ranges are the administrator's. */
export interface BuildView {
  readonly version: number;
  readonly sheets: readonly SheetView[];
  readonly ranges: readonly RangeView[];
  readonly catalogs: readonly CatalogView[];
  readonly linked: readonly LinkedName[];
  readonly forms: readonly FormName[];
  /** Fields whose values name entries of another register that the person may look at. */
  readonly links: readonly FieldLink[];
  /** Values that look alike and are two things; administrators see them. */
  readonly toldApart: readonly ToldApart[];
  /** Groups of people; administrators see them. */
  readonly groups: readonly PeopleGroup[];
}
/** Two values that somebody has told apart. */
export interface ToldApart {
  readonly id: string;
  readonly values: ValuePair;
}
export interface FieldLink {
  readonly fieldId: string;
  readonly registerId: string;
}
