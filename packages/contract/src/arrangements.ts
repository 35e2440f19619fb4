// How a person looks at a register: the arrangement as it is sent and kept.
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, Length, Matches, Max, MaxLength, Min, ValidateIf } from 'class-validator';
import { directions, onlyKinds, type Arrangement, type Only } from '@dellum/core';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';

const key = 60;
const given = (_dto: unknown, held: unknown) => held !== null && held !== undefined;
const boundWords = { message: 'Type a day or a number.' };

export class FieldSortDto {
  @IsText()
  @Length(1, key, { message: 'Choose the field to sort by.' })
  field!: string;

  @IsIn(directions)
  direction!: (typeof directions)[number];
}

/** What is shown of a field; which members it needs follows from `only`. */
export class OnlyDto {
  @IsIn(onlyKinds)
  only!: Only['only'];

  @IsText()
  @Length(1, key, { message: 'Choose the field.' })
  field!: string;

  /** values */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(1000, { message: 'Choose at most 1,000 values.' })
  @IsText({ each: true })
  @MaxLength(500, { each: true })
  values?: string[];

  /** within */
  @ValidateIf(given)
  @Matches(/^(?:\d{4}-\d{2}-\d{2}|-?\d+(?:\.\d+)?)$/u, boundWords)
  @MaxLength(40)
  from?: string | null;

  @ValidateIf(given)
  @Matches(/^(?:\d{4}-\d{2}-\d{2}|-?\d+(?:\.\d+)?)$/u, boundWords)
  @MaxLength(40)
  until?: string | null;

  /** text */
  @MayLack()
  @IsText()
  @MaxLength(200)
  text?: string;
}

export class ShownFieldDto {
  @IsText()
  @Length(1, key)
  field!: string;

  @IsBoolean()
  hidden!: boolean;

  @ValidateIf(given)
  @IsWhole()
  @Min(40)
  @Max(800)
  width!: number | null;
}

/** Which entries are wanted, and in which order. */
export class WantedDto {
  @IsArray()
  @ArrayMaxSize(3, { message: 'Sort by at most three fields.' })
  @Nested(() => FieldSortDto, { each: true })
  sort!: FieldSortDto[];

  @IsArray()
  @ArrayMaxSize(30)
  @Nested(() => OnlyDto, { each: true })
  only!: OnlyDto[];
}

export class ArrangementDto extends WantedDto {
  @IsArray()
  @ArrayMaxSize(400)
  @Nested(() => ShownFieldDto, { each: true })
  fields!: ShownFieldDto[];

  @IsWhole()
  @Min(0)
  @Max(10, { message: 'Keep at most ten fields in view.' })
  inView!: number;

  @ValidateIf(given)
  @IsText()
  @MaxLength(key)
  colouredBy!: string | null;
}

/** What a person has arranged; `version` is raised each time that the entries are arranged anew. */
export interface ArrangementView {
  readonly version: number;
  readonly arrangement: Arrangement;
}

export class ValuesQueryDto {
  @IsText()
  @Length(1, key)
  field!: string;

  /** Only values that contain this text. */
  @MayLack()
  @IsText()
  @MaxLength(200)
  search?: string;
}
/** The values that entries hold in a field, the most frequent first. */
export interface HeldValues {
  readonly values: readonly { readonly value: string; readonly entries: number }[];
  readonly blank: number;
  /** True when there are more values than these. */
  readonly more: boolean;
}
