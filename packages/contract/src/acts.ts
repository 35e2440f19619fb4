// Acts on a list of a source sheet, and the slips they may raise.
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsOptional, IsString, IsUUID, MaxLength, ValidateNested } from 'class-validator';
import { answers, type Act, type Answer, type Question, type SourceRange } from '@dellum/core';
import { WriteCellDto } from './build.js';

export const actNames = ['write', 'insert', 'delete', 'move', 'sort'] as const;

/** One act on one register; which members it needs follows from `act`. */
export class ActDto {
  @IsIn(actNames)
  act!: (typeof actNames)[number];

  /** write: the cells to set. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20_000, { message: 'Change at most 20,000 cells at once.' })
  @ValidateNested({ each: true })
  @Type(() => WriteCellDto)
  cells?: WriteCellDto[];

  /** insert: the texts of the new entries, one each, for the field `field`. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20_000, { message: 'Insert at most 20,000 entries at once.' })
  @IsString({ each: true })
  texts?: string[];

  /** insert, sort: the field. */
  @IsOptional()
  @IsString()
  @MaxLength(60)
  field?: string;

  /** delete, move: the entries. */
  @IsOptional()
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20_000)
  @IsUUID(undefined, { each: true })
  entries?: string[];

  /** insert, move: the entry above which they go; without it, the end. */
  @IsOptional()
  @IsUUID()
  before?: string;

  /** sort: the direction. */
  @IsOptional()
  @IsIn(['up', 'down'])
  direction?: 'up' | 'down';
}

export class AnswerDto {
  @IsUUID()
  catalogId!: string;

  @IsString()
  value!: string;

  @IsIn(answers)
  answer!: Answer;
}

export class AnswerSlipDto {
  @IsArray()
  @ArrayMaxSize(20_000)
  @ValidateNested({ each: true })
  @Type(() => AnswerDto)
  answers!: AnswerDto[];
}

/** What is asked for: an act on a register, or a change of the ranges over it. */
export type Proposal = { readonly registerId: string } & (
  | { readonly what: 'act'; readonly act: Act }
  | { readonly what: 'range made' | 'range changed' | 'range deleted'; readonly range: SourceRange }
);

export interface SlipQuestion extends Question {
  readonly catalogId: string;
}
/** A change that touches entries and waits for its answers; nothing of it is live. */
export interface Slip {
  readonly id: string;
  readonly proposal: Proposal;
  readonly questions: readonly SlipQuestion[];
  /** Entries that would come inside. */
  readonly inside: number;
  readonly by: string;
  readonly at: string;
}
/** The outcome of a proposal: done, or waiting for the answers of its slip. */
export interface Outcome {
  readonly slip: Slip | null;
  /** What else is worth knowing, in one sentence: what a sort brought into a range, for instance. */
  readonly notes: readonly string[];
}
