// Entries of a register.
import { ArrayMaxSize, ArrayNotEmpty, ArrayUnique, IsArray, IsBoolean, IsUUID, Max, MaxLength, Min } from 'class-validator';
import { Type } from 'class-transformer';
import type { CascadePlan, Cells, Verdict } from '@dellum/core';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';
import { GivenDto } from './givenDto.js';

export class PageQueryDto {
  /** Ordinal of the first entry, counted from 0. */
  @Type(() => Number)
  @IsWhole()
  @Min(0)
  @Max(1e9)
  from = 0;

  @Type(() => Number)
  @IsWhole()
  @Min(1)
  @Max(5000)
  count = 200;

  /** A field's key, or `*` for any: only entries whose value is outside there. */
  @MayLack()
  @IsText()
  @MaxLength(60)
  outside?: string;

  /** Only entries that hold `value` in this field; an empty one for blanks. */
  @MayLack()
  @IsText()
  @MaxLength(60)
  field?: string;

  @MayLack()
  @IsText()
  @MaxLength(500)
  value?: string;

  /** The version of one's arrangement: the entries as one has arranged them. */
  @MayLack()
  @Type(() => Number)
  @IsWhole()
  @Min(0)
  arranged?: number;
}

export class PackedEntriesQueryDto {
  /** Ordinal of the first entry, counted from 0. */
  @Type(() => Number)
  @IsWhole()
  @Min(0)
  @Max(1e9)
  from = 0;
}

export class HeldQueryDto {
  @IsText()
  @MaxLength(500)
  value!: string;
}
/** Where entries hold a value, and how many. */
export interface HeldIn {
  readonly fieldId: string;
  readonly entries: number;
}

/** A clerk's edit of one cell. */
export class EditCellDto extends GivenDto {
  @IsText()
  @MaxLength(60)
  field!: string;

  /** The version of the entry that the person saw. */
  @IsWhole()
  @Min(0)
  version!: number;

  /** True when the person has said that the value is meant although the rule does not take it. */
  @MayLack()
  @IsBoolean()
  confirmed?: boolean;
}

/** The first cell of an entry that is not there yet; whoever makes it has named it in the address. */
export class BeginEntryDto extends GivenDto {
  @IsText()
  @MaxLength(60)
  field!: string;

  @MayLack()
  @IsBoolean()
  confirmed?: boolean;
}

export class InsertEntriesDto {
  @MayLack()
  @IsUUID()
  before?: string;

  /** The ids of the new entries, as many as `count`, where whoever makes them goes on with them at once. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(1000)
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  ids?: string[];

  @IsWhole()
  @Min(1)
  @Max(1000)
  count!: number;
}

export class DeleteEntriesDto {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose the entries to delete.' })
  @ArrayMaxSize(20_000, { message: 'Delete at most 20,000 entries at once.' })
  @IsUUID(undefined, { each: true })
  entries!: string[];
}

/** A cell as an act wrote it: the version is that of its entry after the act. */
export class WrittenCellDto {
  @IsUUID()
  entry!: string;

  @IsText()
  @MaxLength(60)
  field!: string;

  @IsWhole()
  @Min(1)
  version!: number;
}

/** Takes back cells that one has written oneself. */
export class TakeBackCellsDto {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20_000, { message: 'Take back at most 20,000 cells at once.' })
  @Nested(() => WrittenCellDto, { each: true })
  cells!: WrittenCellDto[];
}

/** Brings back entries that one has deleted oneself, above `before` or at the end. */
export class RestoreEntriesDto {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20_000)
  @IsUUID(undefined, { each: true })
  entries!: string[];

  @MayLack()
  @IsUUID()
  before?: string;
}

export type WrittenCell = Readonly<WrittenCellDto>;
export interface TakenBack {
  readonly entries: readonly EntryView[];
  readonly written: readonly WrittenCell[];
  /** Cells that somebody has changed since; they stay as they are. */
  readonly changed: number;
}

export interface EntryView {
  readonly id: string;
  readonly version: number;
  readonly cells: Cells;
  /** The form through which it came. */
  readonly form?: { readonly id: string; readonly version: number };
}
export interface EntryPage {
  readonly from: number;
  readonly total: number;
  readonly entries: readonly EntryView[];
}
/** An entry in few bytes: its id, its version, and what it holds in each field; null where that is blank. */
export type PackedEntry = readonly [id: string, version: number, ...texts: (string | null)[]];
/** The entries of a list or a table in their order, as many as come at once. */
export interface PackedEntries {
  readonly total: number;
  /** The keys of the fields, in the order of the texts. */
  readonly fields: readonly string[];
  readonly entries: readonly PackedEntry[];
}
export interface CellOutcome {
  readonly entry: string;
  readonly field: string;
  readonly verdict: Verdict;
}
export interface EditOutcome {
  readonly verdict: Verdict;
  readonly entry: EntryView;
  /** What followed in other fields of the entry: values that no longer fit, and values that were filled in. */
  readonly cleared?: CascadePlan['cleared'];
  readonly kept?: CascadePlan['kept'];
  readonly filled?: CascadePlan['filled'];
  /** The cells that were stored, so that they can be taken back. */
  readonly written?: readonly WrittenCell[];
}
export interface BlockOutcome {
  readonly outcomes: readonly CellOutcome[];
  readonly entries: readonly EntryView[];
  readonly written: readonly WrittenCell[];
}
/** How many entries hold something in a field, and how many of them are outside. */
export interface FieldCount {
  readonly fieldId: string;
  readonly held: number;
  readonly outside: number;
  /** Of those outside, entries that hold nothing where something must stand. */
  readonly blank: number;
}
