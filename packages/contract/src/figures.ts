// Figures: what is counted, how far the counting is, and figures that are kept under a name.
import { ArrayMaxSize, IsArray, IsIn, IsUUID, Length, MaxLength } from 'class-validator';
import {
  charts,
  longestValue,
  longestName,
  measures,
  timeSteps,
  type Chart,
  type FigureDefinition,
  type FigureGroup,
  type Measure,
  type Only,
  type TimeStep,
} from '@dellum/core';
import { OnlyDto } from './arrangements.js';
import type { Problem } from './problems.js';
import { IsText, MayBeNull, MayLack, Nested } from './decorators.js';

const key = 60;

export class ThroughDto {
  @IsText()
  @Length(1, key)
  link!: string;

  @IsUUID()
  registerId!: string;
}
export class FigurePathDto {
  @IsText()
  @Length(1, key, { message: 'Choose the field.' })
  field!: string;

  /** The field that names entries of another register, of which the field is. */
  @MayBeNull()
  @Nested(() => ThroughDto)
  through!: ThroughDto | null;
}
export class FigureTimeDto {
  @Nested(() => FigurePathDto)
  path!: FigurePathDto;

  @IsIn(timeSteps)
  step!: TimeStep;
}
export class FigureDto {
  @IsUUID()
  registerId!: string;

  @IsArray()
  @ArrayMaxSize(2, { message: 'Group by two fields at most.' })
  @Nested(() => FigurePathDto, { each: true })
  by!: FigurePathDto[];

  @MayBeNull()
  @Nested(() => FigureTimeDto)
  time!: FigureTimeDto | null;

  @IsIn(measures)
  measure!: Measure;

  /** What is summed; nothing for counting. */
  @MayBeNull()
  @Nested(() => FigurePathDto)
  of!: FigurePathDto | null;

  @IsArray()
  @ArrayMaxSize(20)
  @Nested(() => OnlyDto, { each: true })
  only!: OnlyDto[];

  @IsIn(charts)
  chart!: Chart;
}
export class KeepFigureDto {
  @IsText()
  @Length(1, longestName, { message: `Type a title of at most ${longestName} characters.` })
  title!: string;

  @Nested(() => FigureDto)
  definition!: FigureDto;
}
/** A group of a figure, whose entries are looked for. */
export class FigureEntriesDto {
  @Nested(() => FigureDto)
  definition!: FigureDto;

  /** The values of the group, as many of the grouping fields as are meant; '' for blank. */
  @IsArray()
  @ArrayMaxSize(2)
  @IsText({ each: true })
  @MaxLength(longestValue, { each: true })
  values!: string[];

  /** The first day of its step of time, '' for blank; left out for all times. */
  @MayLack()
  @IsText()
  @MaxLength(10)
  time?: string;
}

export interface FigureView {
  readonly id: string;
  readonly title: string;
  readonly definition: FigureDefinition;
  readonly by: string;
  /** Whether the person who asks may change it, or delete it. */
  readonly mine: boolean;
}
/** What the stream of a figure says, a line of JSON each. */
export type FigureLineView =
  | { readonly done: number; readonly total: number }
  | { readonly groups: readonly FigureGroup[]; readonly entries: number; readonly took: number }
  | { readonly problem: Problem };
/** The conditions under which the entries of a group are found. */
export interface FigureEntries {
  readonly only: readonly Only[];
}
