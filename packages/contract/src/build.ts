// The build of a house: its sheets, registers, fields, rules, ranges and catalogs.
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsIn, IsOptional, IsString, IsUUID, Length, MaxLength, ValidateNested } from 'class-validator';
import { fieldKinds, longestName, otherValues, rangeEndings, type FieldKind, type OtherValues, type RangeEnding, type Rule, type SourceRange } from '@dellum/core';

const titleWords = { message: `Give it a title of at most ${longestName} characters.` };

export class MakeSheetDto {
  @IsIn(['entry', 'source'])
  kind!: 'entry' | 'source';

  @IsString()
  @Length(1, longestName, titleWords)
  title!: string;

  @IsOptional()
  @IsString()
  @MaxLength(500)
  note?: string;
}

export class RetitleDto {
  @IsString()
  @Length(1, longestName, titleWords)
  title!: string;
}

/** A new list on a source sheet. */
export class MakeListDto {
  @IsUUID()
  sheetId!: string;

  @IsString()
  @Length(1, longestName, { message: 'Give the list a heading.' })
  heading!: string;
}

export class MakeFieldDto {
  @IsString()
  @Length(1, longestName, { message: 'Give the field a heading.' })
  heading!: string;

  @IsIn(fieldKinds, { message: `Choose a kind: ${fieldKinds.join(', ')}.` })
  kind!: FieldKind;
}

export class RuleDto {
  @IsUUID(undefined, { message: 'Choose the catalog that the values come from.' })
  catalogId!: string;

  @IsBoolean()
  mayBeBlank!: boolean;

  @IsIn(otherValues)
  others!: OtherValues;

  @IsString()
  @MaxLength(200, { message: 'Keep the hint under 200 characters.' })
  hint!: string;

  @IsString()
  @MaxLength(200, { message: 'Keep the refusal text under 200 characters.' })
  refusalText!: string;
}

export class MakeRangeDto {
  @IsString()
  @MaxLength(2000)
  name!: string;

  @IsUUID()
  registerId!: string;

  @IsString()
  @MaxLength(60)
  field!: string;

  /** The entries whose cells were selected. */
  @IsArray()
  @ArrayMaxSize(200_000)
  @IsUUID(undefined, { each: true })
  entries!: string[];

  @IsIn(rangeEndings)
  ends!: RangeEnding;
}

export class ChangeRangeDto {
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  name?: string;

  @IsOptional()
  @IsIn(rangeEndings)
  ends?: RangeEnding;

  /** For a fixed end: the entry at which the range ends from now on. */
  @IsOptional()
  @IsUUID()
  endEntry?: string;
}

export class MakeCatalogDto {
  @IsString()
  @Length(1, longestName, titleWords)
  title!: string;

  @IsString()
  @MaxLength(500)
  note!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one range that feeds the catalog.' })
  @ArrayMaxSize(50)
  @IsUUID(undefined, { each: true })
  rangeIds!: string[];
}

export class ChangeCatalogDto {
  @IsOptional()
  @IsString()
  @Length(1, longestName, titleWords)
  title?: string;

  @IsOptional()
  @IsString()
  @MaxLength(500)
  note?: string;
}

export class WriteCellDto {
  @IsUUID()
  entry!: string;

  @IsString()
  @MaxLength(60)
  field!: string;

  @IsString()
  text!: string;
}

/** A pasted block: each cell is judged; what is refused is not stored and comes back. */
export class WriteBlockDto {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20_000, { message: 'Paste at most 20,000 cells at once.' })
  @ValidateNested({ each: true })
  @Type(() => WriteCellDto)
  cells!: WriteCellDto[];
}

export interface FieldView {
  readonly id: string;
  /** Fixed name within the register, used by the API. */
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  readonly rule: Rule | null;
}
export interface RegisterView {
  readonly id: string;
  readonly sheetId: string;
  readonly title: string;
  readonly fields: readonly FieldView[];
}
export interface SheetView {
  readonly id: string;
  readonly kind: 'entry' | 'source';
  readonly title: string;
  readonly note: string;
  readonly registers: readonly RegisterView[];
}
export interface RangeView extends SourceRange {
  readonly registerId: string;
}
export interface CatalogView {
  readonly id: string;
  readonly key: string;
  readonly title: string;
  readonly note: string;
  readonly version: number;
  /** The ranges that feed it, in order. */
  readonly rangeIds: readonly string[];
}
/** The build as the person who asks may see it: source sheets and ranges are the administrator's. */
export interface BuildView {
  readonly version: number;
  readonly sheets: readonly SheetView[];
  readonly ranges: readonly RangeView[];
  readonly catalogs: readonly CatalogView[];
}
/** What a draft of a rule would find in the entries as they stand. */
export interface RuleTrial {
  readonly held: number;
  readonly outside: number;
  /** The most frequent values that would be outside. */
  readonly examples: readonly { readonly value: string; readonly entries: number }[];
}
