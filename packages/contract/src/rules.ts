// The rule of a field as it is sent: one shape a kind. The server makes the core's rule of it.
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import {
  beginnings,
  blankParents,
  comparisons,
  longestName,
  misfits,
  otherValues,
  searches,
  type Comparison,
  type Rule,
  type RuleFault,
  type Trace,
} from '@dellum/core';
import { FilterDto } from './catalogs.js';
import { markLength } from './marks.js';
import { IsText, IsWhole, MayBeNull, MayLack, Nested } from './decorators.js';

const key = 60;

export class BeginsDto {
  @IsIn(beginnings)
  with: (typeof beginnings)[number] = 'empty';

  /** For `value`: as it is typed. */
  @IsText()
  @MaxLength(500)
  value = '';
}

export class DayBoundDto {
  @IsIn(['day', 'today', 'field'])
  of!: 'day' | 'today' | 'field';

  @MayLack()
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, { message: 'Write the day like 2026-11-24.' })
  day?: string;

  /** Days after it; before, when negative. */
  @MayLack()
  @IsWhole()
  @Min(-40_000)
  @Max(40_000)
  plus?: number;

  @MayLack()
  @IsText()
  @MaxLength(key)
  field?: string;
}

export class NumberBoundDto {
  @IsIn(['number', 'field'])
  of!: 'number' | 'field';

  @MayLack()
  @Matches(/^-?(?:0|[1-9]\d*)(?:\.\d+)?$/u, { message: 'Write the bound as a number.' })
  @MaxLength(40)
  number?: string;

  @MayLack()
  @IsText()
  @MaxLength(key)
  field?: string;
}

export class FittingDto {
  @IsText()
  @MaxLength(key)
  companion!: string;

  @IsIn(comparisons)
  is!: Comparison;

  @IsText()
  @MaxLength(key)
  field!: string;
}

export class BringsDto {
  @IsText()
  @MaxLength(key)
  companion!: string;

  @IsText()
  @MaxLength(key)
  field!: string;
}

export class PickingDto {
  @IsBoolean()
  list = true;

  @IsIn(searches)
  search: (typeof searches)[number] = 'anywhere';

  @IsWhole()
  @Min(3)
  @Max(30)
  lines = 8;

  /** Of several values: so many at most. */
  @MayBeNull()
  @IsWhole()
  @Min(1)
  @Max(100)
  most: number | null = null;
}

/** A new list for a field: its values as they are stored, in their order. */
export class NewListDto {
  /** The name of the list, its range and its catalog; the heading of the field where it is left out. */
  @MayLack()
  @IsText()
  @Length(1, longestName, { message: `Give the list a title of at most ${longestName} characters.` })
  title?: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'The list needs at least one value.' })
  @ArrayMaxSize(5000, { message: 'A list of more than 5,000 values is better pasted into a source sheet.' })
  @IsText({ each: true })
  @MaxLength(500, { each: true, message: 'A value of a list holds at most 500 characters.' })
  values!: string[];
}

/** What every rule says, whatever it takes. */
abstract class RuleBaseDto {
  @IsBoolean()
  mayBeBlank!: boolean;

  @IsIn(otherValues)
  others: Rule['others'] = 'refuse';

  @IsText()
  @MaxLength(400, { message: 'Keep the hint under 400 characters.' })
  hint = '';

  /** What stands over the hint. */
  @MayLack()
  @IsText()
  @MaxLength(60, { message: 'Keep the title of the hint under 60 characters.' })
  hintTitle?: string;

  @IsText()
  @MaxLength(200, { message: 'Keep the refusal text under 200 characters.' })
  refusalText = '';

  @Nested(() => BeginsDto)
  begins = new BeginsDto();

  @IsBoolean()
  noRepeats = false;

  /** Only administrators change the field. */
  @MayLack()
  @IsBoolean()
  readOnly?: boolean;

  @MayBeNull()
  @Nested(() => FilterDto)
  where: FilterDto | null = null;

  /** The mark of the rule as one saw it (`ruleMark`): one that somebody else has set since is not replaced blindly. */
  @MayLack()
  @IsText()
  @MaxLength(markLength)
  seen?: string;
}

class CatalogRuleDto extends RuleBaseDto {
  @Equals('catalog')
  readonly kind = 'catalog';

  @IsUUID(undefined, { message: 'Choose the catalog that the values come from.' })
  catalogId!: string;

  /** counted from 0; null for the one below the parents, or the deepest */
  @MayBeNull()
  @IsWhole()
  @Min(0)
  @Max(7)
  level: number | null = null;

  /** the fields that hold the parents, outermost first */
  @IsArray()
  @ArrayMaxSize(7)
  @IsText({ each: true })
  @MaxLength(key, { each: true })
  parents: readonly string[] = [];

  @IsIn(blankParents)
  blankParent: (typeof blankParents)[number] = 'nothing';

  @IsIn(misfits)
  misfit: (typeof misfits)[number] = 'clear';

  @IsBoolean()
  fillsSingle = false;

  /** the date field whose day decides what is offered */
  @MayBeNull()
  @IsText()
  @MaxLength(key)
  day: string | null = null;

  @IsArray()
  @ArrayMaxSize(10)
  @Nested(() => FittingDto, { each: true })
  fitting: readonly FittingDto[] = [];

  @IsArray()
  @ArrayMaxSize(20)
  @Nested(() => BringsDto, { each: true })
  brings: readonly BringsDto[] = [];

  @Nested(() => PickingDto)
  picking = new PickingDto();
}

class TypedRuleDto extends RuleBaseDto {
  @Equals('typed')
  readonly kind = 'typed';

  @IsArray()
  @ArrayMaxSize(1000, { message: 'Type at most 1,000 values into a rule; make a catalog of longer lists.' })
  @IsText({ each: true })
  @MaxLength(500, { each: true })
  values: readonly string[] = [];

  @Nested(() => PickingDto)
  picking = new PickingDto();
}

class DateRuleDto extends RuleBaseDto {
  @Equals('date')
  readonly kind = 'date';

  @MayBeNull()
  @Nested(() => DayBoundDto)
  from: DayBoundDto | null = null;

  @MayBeNull()
  @Nested(() => DayBoundDto)
  until: DayBoundDto | null = null;
}

class NumberRuleDto extends RuleBaseDto {
  @Equals('number')
  readonly kind = 'number';

  @MayBeNull()
  @Nested(() => NumberBoundDto)
  least: NumberBoundDto | null = null;

  @MayBeNull()
  @Nested(() => NumberBoundDto)
  most: NumberBoundDto | null = null;

  @MayBeNull()
  @IsWhole()
  @Min(0)
  @Max(20)
  decimals: number | null = null;
}

class LengthRuleDto extends RuleBaseDto {
  @Equals('length')
  readonly kind = 'length';

  @MayBeNull()
  @IsWhole()
  @Min(0)
  @Max(20_000)
  least: number | null = null;

  @MayBeNull()
  @IsWhole()
  @Min(0)
  @Max(20_000)
  most: number | null = null;
}

class PatternRuleDto extends RuleBaseDto {
  @Equals('pattern')
  readonly kind = 'pattern';

  @IsText()
  @MaxLength(500)
  pattern = '';

  @IsArray()
  @ArrayMaxSize(20)
  @IsText({ each: true })
  @MaxLength(200, { each: true })
  examples: readonly string[] = [];
}

class ExpressionRuleDto extends RuleBaseDto {
  @Equals('expression')
  readonly kind = 'expression';

  @IsText()
  @MaxLength(1000, { message: 'Keep the expression under 1,000 characters.' })
  expression = '';

  /** said where it is not true */
  @IsText()
  @MaxLength(200, { message: 'Keep the message under 200 characters.' })
  message = '';
}

class PlainRuleDto extends RuleBaseDto {
  @Equals('plain')
  readonly kind = 'plain';
}

/** A rule as it is sent: the core's rule, with what may be left out. */
export type RuleDto =
  CatalogRuleDto | TypedRuleDto | DateRuleDto | NumberRuleDto | LengthRuleDto | PatternRuleDto | ExpressionRuleDto | PlainRuleDto;
export const ruleDtos = {
  catalog: CatalogRuleDto,
  typed: TypedRuleDto,
  date: DateRuleDto,
  number: NumberRuleDto,
  length: LengthRuleDto,
  pattern: PatternRuleDto,
  expression: ExpressionRuleDto,
  plain: PlainRuleDto,
} as const satisfies { readonly [Kind in Rule['kind']]: new () => Extract<RuleDto, { kind: Kind }> };

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
  @IsText()
  @MaxLength(500)
  text!: string;

  /** The entry in which it is asked; without it the entry counts as blank. */
  @MayLack()
  @IsUUID()
  entry?: string;
}
export type Why = Trace;
