// Catalogs: how they are composed and kept, how they are shown, and what the judge needs of them.
import {
  ArrayMaxSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsString,
  IsISO8601,
  IsUUID,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';
import { Type } from 'class-transformer';
import {
  catalogOrders,
  comparisons,
  distincts,
  itemColours,
  joins,
  longestName,
  type CatalogPart,
  type CompanionField,
  type Comparison,
  type Distinct,
  type Item,
  type ItemColour,
  type Join,
  type ItemChanges,
  type PackedItems,
} from '@dellum/core';
import { IsText, IsWhole, MayBeNull, MayLack, Nested, NestedByKind } from './decorators.js';
import { markLength } from './marks.js';

const key = 60;
const value = 500;

export class ConditionDto {
  @IsText()
  @Length(1, key, { message: 'Choose the field of the condition.' })
  field!: string;

  @IsIn(comparisons)
  is!: Comparison;

  @IsText()
  @MaxLength(value)
  value!: string;
}

export class FilterDto {
  @IsBoolean()
  all!: boolean;

  @IsArray()
  @ArrayMaxSize(20, { message: 'Use at most 20 conditions.' })
  @Nested(() => ConditionDto, { each: true })
  conditions!: readonly ConditionDto[];
}

/** How a part joins those before it. */
abstract class PartBaseDto {
  @IsIn(joins)
  join!: Join;
}

class TypedPartDto extends PartBaseDto {
  @Equals('typed')
  readonly kind = 'typed';

  @IsArray({ message: 'Type the values of this part.' })
  @ArrayMaxSize(20_000, { message: 'Type at most 20,000 values; keep longer lists on a source sheet.' })
  @IsString({ each: true })
  values!: readonly string[];
}

/** What rows give besides the value. */
abstract class RowsPartDto extends PartBaseDto {
  /** the field that is shown instead of the value */
  @MayBeNull()
  @IsText()
  @MaxLength(key)
  label: string | null = null;

  /** fields that come along */
  @IsArray()
  @ArrayMaxSize(40)
  @IsText({ each: true })
  companions: readonly string[] = [];
}

class RangePartDto extends RowsPartDto {
  @Equals('range')
  readonly kind = 'range';

  @IsUUID(undefined, { message: 'Choose the range of this part.' })
  rangeId!: string;
}

class QueryPartDto extends RowsPartDto {
  @Equals('query')
  readonly kind = 'query';

  @IsUUID(undefined, { message: 'Choose the sheet or list of this part.' })
  registerId!: string;

  @IsText({ message: 'Choose the field that gives the value.' })
  @MaxLength(key)
  value!: string;

  @MayBeNull()
  @Nested(() => FilterDto)
  filter: FilterDto | null = null;
}

class LinkedPartDto extends PartBaseDto {
  @Equals('linked')
  readonly kind = 'linked';

  @IsUUID(undefined, { message: 'Choose the linked source of this part.' })
  sourceId!: string;
}

class CatalogPartDto extends PartBaseDto {
  @Equals('catalog')
  readonly kind = 'catalog';

  @IsUUID(undefined, { message: 'Choose the catalog of this part.' })
  catalogId!: string;
}

class NamedPartDto extends PartBaseDto {
  @Equals('named')
  readonly kind = 'named';

  @IsUUID(undefined, { message: 'Choose the catalog that gives the parents.' })
  catalogId!: string;
}

class KeyedPartDto extends RowsPartDto {
  @Equals('keyed')
  readonly kind = 'keyed';

  @IsUUID(undefined, { message: 'Choose the catalog that gives the parents.' })
  catalogId!: string;

  /** the companion by which the parents are named; null: by their value */
  @MayBeNull()
  @IsText()
  @MaxLength(key)
  by: string | null = null;

  @IsUUID(undefined, { message: 'Choose the sheet or list of this part.' })
  registerId!: string;

  /** the field that names the parent */
  @IsText({ message: 'Choose the field that names the parent.' })
  @MaxLength(key)
  key!: string;

  @IsText({ message: 'Choose the field that gives the value.' })
  @MaxLength(key)
  value!: string;
}

/** A part of a catalog as it is sent: the core's part, with what may be left out. */
export type PartDto = TypedPartDto | RangePartDto | QueryPartDto | LinkedPartDto | CatalogPartDto | NamedPartDto | KeyedPartDto;
export const partDtos = {
  typed: TypedPartDto,
  range: RangePartDto,
  query: QueryPartDto,
  linked: LinkedPartDto,
  catalog: CatalogPartDto,
  named: NamedPartDto,
  keyed: KeyedPartDto,
} as const satisfies { readonly [Kind in CatalogPart['kind']]: new () => Extract<PartDto, { kind: Kind }> };

export class OrderDto {
  @IsIn(catalogOrders)
  by!: (typeof catalogOrders)[number];

  @MayLack()
  @IsText()
  @MaxLength(key)
  field?: string;

  @MayLack()
  @IsIn(['up', 'down'])
  direction?: 'up' | 'down';
}

export class DefinitionDto {
  @IsArray()
  @ArrayMaxSize(50, { message: 'A catalog has at most 50 parts.' })
  @NestedByKind(() => partDtos, { each: true })
  parts!: readonly PartDto[];

  @ValidateIf((_dto, held) => held !== null)
  @Nested(() => FilterDto)
  filter!: FilterDto | null;

  @IsIn(distincts)
  distinct!: Distinct;

  @Nested(() => OrderDto)
  order!: OrderDto;
}

export class DefineCatalogDto extends DefinitionDto {
  /** The mark of the definition as one saw it (`definitionMark`): what somebody else has composed since is not replaced blindly. */
  @MayLack()
  @IsText()
  @MaxLength(markLength)
  seen?: string;
}

const titleWords = { message: `Give it a title of at most ${longestName} characters.` };

export class MakeCatalogDto {
  @IsText()
  @Length(1, longestName, titleWords)
  title!: string;

  @IsText()
  @MaxLength(500)
  note!: string;

  @Nested(() => DefinitionDto)
  definition!: DefinitionDto;
}

export class ChangeCatalogDto {
  @MayLack()
  @IsText()
  @Length(1, longestName, titleWords)
  title?: string;

  @MayLack()
  @IsText()
  @MaxLength(500)
  note?: string;
}

export class StewardsDto {
  @IsArray()
  @ArrayMaxSize(50)
  @IsUUID(undefined, { each: true })
  people!: string[];
}

/** Which item is meant: its parents, outermost first, and its value. */
export class ItemDto {
  @IsArray()
  @ArrayMaxSize(7)
  @IsText({ each: true })
  @MaxLength(value, { each: true })
  path!: string[];

  @IsText()
  @Length(1, value, { message: 'Type a value.' })
  value!: string;
}

export class AddItemDto extends ItemDto {
  /** The range ends at a fixed row: take the new value in all the same. */
  @MayLack()
  @IsBoolean()
  widen?: boolean;
}

export const itemActs = ['correct', 'replace', 'merge', 'retire', 'restore', 'remove', 'move'] as const;

export class ItemActDto extends ItemDto {
  @IsIn(itemActs)
  act!: (typeof itemActs)[number];

  /** correct, replace, merge: what the value becomes. */
  @MayLack()
  @IsText()
  @MaxLength(value)
  to?: string;

  /** move: the sibling above which it goes; without it, last. */
  @MayLack()
  @IsText()
  @MaxLength(value)
  before?: string;
}

const dayWords = { message: 'Type a day of the calendar.' };

/** What the catalog keeps of an item by hand; a member that is null or left out is none. */
export class KeepItemDto extends ItemDto {
  @ValidateIf((_dto, held) => held !== null && held !== undefined)
  @IsText()
  @MaxLength(value)
  label?: string | null;

  @ValidateIf((_dto, held) => held !== null && held !== undefined)
  @IsText()
  @MaxLength(1000, { message: 'Keep the note under 1,000 characters.' })
  note?: string | null;

  @ValidateIf((_dto, held) => held !== null && held !== undefined)
  @IsIn(itemColours)
  colour?: ItemColour | null;

  @ValidateIf((_dto, held) => held !== null && held !== undefined)
  @IsISO8601({ strict: true }, dayWords)
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, dayWords)
  validFrom?: string | null;

  @ValidateIf((_dto, held) => held !== null && held !== undefined)
  @IsISO8601({ strict: true }, dayWords)
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, dayWords)
  validUntil?: string | null;

  @IsArray()
  @ArrayMaxSize(200)
  @IsText({ each: true })
  @MaxLength(value, { each: true })
  otherNames!: string[];
}

/** All items of a catalog, for the judge and the picker. */
export interface CatalogItems {
  readonly id: string;
  readonly title: string;
  readonly version: number;
  /** Every parent before its children. */
  readonly items: readonly Item[];
  readonly companions: readonly CompanionField[];
}
/** The same in columns, for the web application: fewer bytes, and fewer objects to keep. */
export interface PackedCatalog extends Omit<CatalogItems, 'items'> {
  readonly packed: PackedItems;
}
/** What has changed of a catalog since a version that a browser holds, one step after the other. */
export interface ChangedCatalog extends Omit<CatalogItems, 'items' | 'companions'> {
  readonly since: number;
  readonly steps: readonly ItemChanges[];
}
export class PackedQueryDto {
  /** The version that one holds: only what has changed since is asked for, where it is known. */
  @MayLack()
  @Type(() => Number)
  @IsWhole()
  @Min(0)
  since?: number;
}
/** Entries that hold each value, all bound fields together. */
export interface CatalogUse {
  readonly entries: Readonly<Record<string, number>>;
}
/** What a definition would offer, before it is set. */
export interface DefinitionTrial {
  readonly offered: number;
  readonly levels: number;
  readonly first: readonly string[];
  readonly companions: readonly CompanionField[];
}
/** The lineage strip: source → catalog → fields → entries. */
export interface Lineage {
  readonly ranges: readonly {
    readonly id: string;
    readonly name: string;
    readonly sheetId: string;
    readonly sheetTitle: string;
    readonly ends: string;
    readonly taken: number;
  }[];
  /** Sources of the catalog that are no ranges, in words. */
  readonly others: readonly { readonly words: string; readonly to: string }[];
  readonly catalogs: readonly { readonly id: string; readonly title: string; readonly offered: number; readonly retired: number }[];
  readonly fields: readonly {
    readonly id: string;
    readonly heading: string;
    readonly sheetId: string;
    readonly sheetTitle: string;
    readonly registerId: string;
    readonly key: string;
    readonly held: number;
    readonly outside: number;
  }[];
  readonly carries: readonly CarryView[];
}
/** A correction that the rows are still following; readers see the new spelling already. */
export interface CarryView {
  readonly id: string;
  readonly fieldId: string;
  readonly from: string;
  readonly to: string;
  readonly done: number;
  readonly total: number;
}
/** One change of a catalog, the newest first. */
export interface CatalogChange {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly words: readonly string[];
  /** The act to take back; null where it has been, or cannot be. */
  readonly act: number | null;
}
