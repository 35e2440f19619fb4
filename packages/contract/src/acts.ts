// Acts on a list or table of a source sheet, and the slips they may raise.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsUUID, MaxLength, Min } from 'class-validator';
import { answers, type Answer, type Proposal, type Question } from '@dellum/core';
import { WriteCellDto } from './build.js';
import { IsTextRows } from './textRows.js';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';

export const actNames = ['write', 'insert', 'delete', 'move', 'sort'] as const;

/** One act on one register; which members it needs follows from `act`. */
export class ActDto {
  @IsIn(actNames)
  act!: (typeof actNames)[number];

  /** write: the cells to set. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(100_000, { message: 'Change at most 100,000 cells at once.' })
  @Nested(() => WriteCellDto, { each: true })
  cells?: WriteCellDto[];

  /** insert: the fields that the texts of a row are for, in order; none for blank entries. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(200)
  @IsText({ each: true })
  @MaxLength(60, { each: true })
  fields?: string[];

  /** insert: the texts of each new entry; a blank one leaves its cell blank. */
  @MayLack()
  @IsTextRows(50_000, 200)
  rows?: string[][];

  /** sort: the field. */
  @MayLack()
  @IsText()
  @MaxLength(60)
  field?: string;

  /** delete, move: the entries. insert: the ids of the new ones, where whoever makes them goes on with them at once. */
  @MayLack()
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(50_000)
  @IsUUID(undefined, { each: true })
  entries?: string[];

  /** insert, move: the entry above which they go; without it, the end. */
  @MayLack()
  @IsUUID()
  before?: string;

  /** sort: the direction. */
  @MayLack()
  @IsIn(['up', 'down'])
  direction?: 'up' | 'down';
}

/** Some acts on one register that are done together: a pasted block writes over rows and adds others. */
export class ActsDto {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(20)
  @Nested(() => ActDto, { each: true })
  acts!: ActDto[];

  /** The act that these go on with: one block that is sent in parts is one act, and taken back as one. */
  @MayLack()
  @IsWhole()
  @Min(1)
  joins?: number;
}

export class AnswerDto {
  @IsUUID()
  catalogId!: string;

  @IsText()
  value!: string;

  /** The level on which the value stands, as its question says it. */
  @MayLack()
  @IsWhole()
  @Min(0)
  level?: number;

  /** The parents that the value left, where that is what is asked about. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(20)
  @IsText({ each: true })
  path?: string[];

  @IsIn(answers)
  answer!: Answer;
}

export class AnswerSlipDto {
  @IsArray()
  @ArrayMaxSize(20_000)
  @Nested(() => AnswerDto, { each: true })
  answers!: AnswerDto[];
}

export interface SlipQuestion extends Question {
  readonly catalogId: string;
}
/** Entries of a field that come outside. */
export interface TurnedEntries {
  readonly fieldId: string;
  readonly entries: number;
}
/** A change that touches entries and waits for its answers; nothing of it is live. */
export interface Slip {
  readonly id: string;
  readonly proposal: Proposal;
  readonly questions: readonly SlipQuestion[];
  /** Entries that would be outside whatever is answered, by field: they no longer fit under their parents, their day or each other. */
  readonly outside: readonly TurnedEntries[];
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
  /** What was done, so that more can join it; absent while it waits. */
  readonly act?: number;
}

/** What of one's own acts on a source sheet can be taken back, and done again. */
export interface CanAgain {
  readonly undo: boolean;
  readonly redo: boolean;
}
