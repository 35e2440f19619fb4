// Requests of clerks for values that a catalog does not have yet, and what the steward answers.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsUUID, MaxLength } from 'class-validator';
import { IsText, MayLack } from './decorators.js';

export type RequestState = 'waiting' | 'accepted' | 'mapped' | 'declined';

/** Like requests of a catalog under the same parents, the most frequent spelling first. */
export interface RequestGroup {
  readonly catalogId: string;
  readonly path: readonly string[];
  readonly spellings: readonly { readonly value: string; readonly entries: number }[];
  readonly by: readonly string[];
  readonly since: string;
  /** Where the entries wait. */
  readonly fields: readonly string[];
  /** The value that the catalog has already and that may be meant. */
  readonly proposed: string | null;
}

/** The state of a request, for the entry in which it was made. */
export interface RequestAtEntry {
  readonly entryId: string;
  readonly field: string;
  readonly value: string;
  readonly state: RequestState;
  /** What the steward said with it. */
  readonly word: string;
  readonly by: string | null;
}

/** A request as whoever made it sees it, answered or not. */
export interface OwnRequest extends RequestAtEntry {
  readonly id: string;
  readonly registerId: string;
  readonly at: string;
  /** The value that it became. */
  readonly answer: string | null;
}

export const requestAnswers = ['accepted', 'mapped', 'declined'] as const satisfies readonly RequestState[];
export class AnswerRequestDto {
  @IsUUID()
  catalogId!: string;

  @IsArray()
  @ArrayMaxSize(7)
  @IsText({ each: true })
  @MaxLength(500, { each: true })
  path!: string[];

  /** The spellings that are answered. */
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(200)
  @IsText({ each: true })
  @MaxLength(500, { each: true })
  values!: string[];

  @IsIn(requestAnswers)
  answer!: (typeof requestAnswers)[number];

  /** accepted: as it is spelled right; mapped: the value that is meant. */
  @MayLack()
  @IsText()
  @MaxLength(500)
  to?: string;

  /** declined: why. */
  @MayLack()
  @IsText()
  @MaxLength(300, { message: 'Keep the word under 300 characters.' })
  word?: string;
}
export interface RequestCount {
  readonly waiting: number;
}
