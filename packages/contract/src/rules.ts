// The rule of a field as it is sent; which members it needs follows from `kind`. The server makes the core's rule of it.
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  beginnings,
  blankParents,
  comparisons,
  longestName,
  misfits,
  otherValues,
  ruleKinds,
  searches,
  type Comparison,
  type Rule,
  type RuleFault,
  type Trace,
} from '@dellum/core';
import { FilterDto } from './catalogs.js';

const key = 60;
const given = (_dto: unknown, held: unknown) => held !== null && held !== undefined;

export class BeginsDto {
  @IsIn(beginnings)
  with!: (typeof beginnings)[number];

  /** For `value`: as it is typed. */
  @IsString()
  @MaxLength(500)
  value = '';
}

export class DayBoundDto {
  @IsIn(['day', 'today', 'field'])
  of!: 'day' | 'today' | 'field';

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, { message: 'Write the day like 2026-11-24.' })
  day?: string;

  /** Days after it; before, when negative. */
  @IsOptional()
  @IsInt()
  @Min(-40_000)
  @Max(40_000)
  plus?: number;

  @IsOptional()
  @IsString()
  @MaxLength(key)
  field?: string;
}

export class NumberBoundDto {
  @IsIn(['number', 'field'])
  of!: 'number' | 'field';

  @IsOptional()
  @Matches(/^-?(?:0|[1-9]\d*)(?:\.\d+)?$/u, { message: 'Write the bound as a number.' })
  @MaxLength(40)
  number?: string;

  @IsOptional()
  @IsString()
  @MaxLength(key)
  field?: string;
}

export class FittingDto {
  @IsString()
  @MaxLength(key)
  companion!: string;

  @IsIn(comparisons)
  is!: Comparison;

  @IsString()
  @MaxLength(key)
  field!: string;
}

export class BringsDto {
  @IsString()
  @MaxLength(key)
  companion!: string;

  @IsString()
  @MaxLength(key)
  field!: string;
}

export class PickingDto {
  @IsBoolean()
  list = true;

  @IsIn(searches)
  search: (typeof searches)[number] = 'anywhere';

  @IsInt()
  @Min(3)
  @Max(30)
  lines = 8;

  /** Of several values: so many at most. */
  @ValidateIf(given)
  @IsInt()
  @Min(1)
  @Max(100)
  most: number | null = null;
}

/** A new list for a field: its values as they are stored, in their order. */
export class NewListDto {
  /** The name of the list, its range and its catalog; the heading of the field where it is left out. */
  @IsOptional()
  @IsString()
  @Length(1, longestName, { message: `Give the list a title of at most ${longestName} characters.` })
  title?: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'The list needs at least one value.' })
  @ArrayMaxSize(5000, { message: 'A list of more than 5,000 values is better pasted into a source sheet.' })
  @IsString({ each: true })
  @MaxLength(500, { each: true, message: 'A value of a list holds at most 500 characters.' })
  values!: string[];
}

export class RuleDto {
  @IsIn(ruleKinds)
  kind: Rule['kind'] = 'catalog';

  @IsBoolean()
  mayBeBlank!: boolean;

  @IsIn(otherValues)
  others: Rule['others'] = 'refuse';

  @IsString()
  @MaxLength(400, { message: 'Keep the hint under 400 characters.' })
  hint = '';

  /** What stands over the hint. */
  @IsOptional()
  @IsString()
  @MaxLength(60, { message: 'Keep the title of the hint under 60 characters.' })
  hintTitle?: string;

  @IsString()
  @MaxLength(200, { message: 'Keep the refusal text under 200 characters.' })
  refusalText = '';

  @IsOptional()
  @ValidateNested()
  @Type(() => BeginsDto)
  begins?: BeginsDto;

  @IsBoolean()
  noRepeats = false;

  @ValidateIf(given)
  @ValidateNested()
  @Type(() => FilterDto)
  where?: FilterDto | null;

  /** catalog */
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose the catalog that the values come from.' })
  catalogId?: string;

  /** catalog: counted from 0; null for the deepest */
  @ValidateIf(given)
  @IsInt()
  @Min(0)
  @Max(7)
  level?: number | null;

  /** catalog: the fields that hold the parents, outermost first */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(7)
  @IsString({ each: true })
  @MaxLength(key, { each: true })
  parents?: string[];

  @IsOptional()
  @IsIn(blankParents)
  blankParent?: (typeof blankParents)[number];

  @IsOptional()
  @IsIn(misfits)
  misfit?: (typeof misfits)[number];

  @IsOptional()
  @IsBoolean()
  fillsSingle?: boolean;

  /** catalog: the date field whose day decides what is offered */
  @ValidateIf(given)
  @IsString()
  @MaxLength(key)
  day?: string | null;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @ValidateNested({ each: true })
  @Type(() => FittingDto)
  fitting?: FittingDto[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => BringsDto)
  brings?: BringsDto[];

  /** catalog, typed */
  @IsOptional()
  @ValidateNested()
  @Type(() => PickingDto)
  picking?: PickingDto;

  /** typed */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(1000, { message: 'Type at most 1,000 values into a rule; make a catalog of longer lists.' })
  @IsString({ each: true })
  @MaxLength(500, { each: true })
  values?: string[];

  /** date */
  @ValidateIf(given)
  @ValidateNested()
  @Type(() => DayBoundDto)
  from?: DayBoundDto | null;

  @ValidateIf(given)
  @ValidateNested()
  @Type(() => DayBoundDto)
  until?: DayBoundDto | null;

  /** number */
  @ValidateIf(given)
  @ValidateNested()
  @Type(() => NumberBoundDto)
  least?: NumberBoundDto | null;

  @ValidateIf(given)
  @ValidateNested()
  @Type(() => NumberBoundDto)
  most?: NumberBoundDto | null;

  @ValidateIf(given)
  @IsInt()
  @Min(0)
  @Max(20)
  decimals?: number | null;

  /** length */
  @ValidateIf(given)
  @IsInt()
  @Min(0)
  @Max(20_000)
  shortest?: number | null;

  @ValidateIf(given)
  @IsInt()
  @Min(0)
  @Max(20_000)
  longest?: number | null;

  /** pattern */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  pattern?: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(200, { each: true })
  examples?: string[];

  /** expression */
  @IsOptional()
  @IsString()
  @MaxLength(1000, { message: 'Keep the expression under 1,000 characters.' })
  expression?: string;

  /** expression: said where it is not true */
  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'Keep the message under 200 characters.' })
  message?: string;
}

/** What a draft of a rule would find in the entries as they stand. */
export interface RuleTrial {
  readonly held: number;
  readonly outside: number;
  /** The most frequent values that would be outside. */
  readonly examples: readonly { readonly value: string; readonly entries: number }[];
  readonly faults: readonly RuleFault[];
}

/** Asks why a value is offered in a field, or not. */
export class WhyDto {
  @IsString()
  @MaxLength(500)
  text!: string;

  /** The entry in which it is asked; without it the entry counts as blank. */
  @IsOptional()
  @IsUUID()
  entry?: string;
}
export type Why = Trace;
