// How a person looks at a register: the arrangement as it is sent and kept.
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { directions, onlyKinds, type Arrangement, type Only } from '@dellum/core';

const key = 60;
const given = (_dto: unknown, held: unknown) => held !== null && held !== undefined;
const boundWords = { message: 'Type a day or a number.' };

export class FieldSortDto {
  @IsString()
  @Length(1, key, { message: 'Choose the field to sort by.' })
  field!: string;

  @IsIn(directions)
  direction!: (typeof directions)[number];
}

/** What is shown of a field; which members it needs follows from `only`. */
export class OnlyDto {
  @IsIn(onlyKinds)
  only!: Only['only'];

  @IsString()
  @Length(1, key, { message: 'Choose the field.' })
  field!: string;

  /** values */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(1000, { message: 'Choose at most 1,000 values.' })
  @IsString({ each: true })
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
  @IsOptional()
  @IsString()
  @MaxLength(200)
  text?: string;
}

export class ShownFieldDto {
  @IsString()
  @Length(1, key)
  field!: string;

  @IsBoolean()
  hidden!: boolean;

  @ValidateIf(given)
  @IsInt()
  @Min(40)
  @Max(800)
  width!: number | null;
}

/** Which entries are wanted, and in which order. */
export class WantedDto {
  @IsArray()
  @ArrayMaxSize(3, { message: 'Sort by at most three fields.' })
  @ValidateNested({ each: true })
  @Type(() => FieldSortDto)
  sort!: FieldSortDto[];

  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => OnlyDto)
  only!: OnlyDto[];
}

export class ArrangementDto extends WantedDto {
  @IsArray()
  @ArrayMaxSize(400)
  @ValidateNested({ each: true })
  @Type(() => ShownFieldDto)
  fields!: ShownFieldDto[];

  @IsInt()
  @Min(0)
  @Max(10, { message: 'Keep at most ten fields in view.' })
  inView!: number;

  @ValidateIf(given)
  @IsString()
  @MaxLength(key)
  colouredBy!: string | null;
}

/** What a person has arranged; `version` is raised each time that the entries are arranged anew. */
export interface ArrangementView {
  readonly version: number;
  readonly arrangement: Arrangement;
}

export class ValuesQueryDto {
  @IsString()
  @Length(1, key)
  field!: string;

  /** Only values that contain this text. */
  @IsOptional()
  @IsString()
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
