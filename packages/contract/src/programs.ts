// Other programs: access tokens, and what a program reads, has judged and stores by one.
import { Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsDateString,
  IsIn,
  IsInt,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
  ValidateBy,
} from 'class-validator';
import { longestName, type PlainValue, type VerdictCode } from '@dellum/core';
import type { AnswerFault } from './forms.js';
import { isStorable, IsText, IsWhole, MayLack } from './decorators.js';

const mostChosen = 500;
const lastDay = { message: 'Choose the last day on which it is good.' };

/** One program, and what of the house is its own to know. */
class ForProgram {
  @IsText()
  @Length(1, longestName, { message: `Say which program it is for, in at most ${longestName} characters.` })
  name!: string;

  @IsArray()
  @ArrayMaxSize(mostChosen)
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  catalogs!: string[];

  @IsArray()
  @ArrayMaxSize(mostChosen)
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  registers!: string[];
}

/** What a token opens. */
export class AccessTokenDto extends ForProgram {
  /** It enters data in its registers, too. */
  @IsBoolean()
  writes!: boolean;

  /** The last day on which it is good. */
  @IsDateString({ strict: true }, lastDay)
  @Matches(/^\d{4}-\d{2}-\d{2}$/u, lastDay)
  until!: string;
}

export interface AccessTokenView {
  readonly id: string;
  readonly name: string;
  readonly writes: boolean;
  readonly catalogs: readonly string[];
  readonly registers: readonly string[];
  readonly until: string;
  /** Who made it; null for somebody who is not there any more. */
  readonly by: string | null;
  readonly at: string;
  readonly lastUsed: string | null;
  /** It was ended, or its last day is over. */
  readonly over: boolean;
}
/** Told once. */
export interface MadeToken {
  readonly id: string;
  readonly token: string;
}

/** What is told to an address. */
export class WebhookDto extends ForProgram {
  /** The name of an address that was given to the house where the server was started. */
  @IsText()
  @Length(1, longestName, { message: 'Choose the address that is told.' })
  receiver!: string;
}
export interface WebhookView {
  readonly id: string;
  readonly name: string;
  readonly receiver: string;
  readonly catalogs: readonly string[];
  readonly registers: readonly string[];
  /** Who made it; null for somebody who is not there any more. */
  readonly by: string | null;
  readonly at: string;
  /** Nothing is told any more, since this moment; null while it is. */
  readonly off: string | null;
  /** Since when no message was taken, and what was answered to the last one. */
  readonly failing: { readonly since: string; readonly said: string } | null;
  readonly lastTold: string | null;
}
export interface Webhooks {
  /** The names of the addresses that may be told. */
  readonly receivers: readonly string[];
  readonly webhooks: readonly WebhookView[];
}
/** Told once. */
export interface MadeWebhook {
  readonly id: string;
  /** What messages are signed with, as Standard Webhooks writes it. */
  readonly secret: string;
}
export const webhookMessageKinds = ['changes', 'test'] as const;
export type WebhookMessageKind = (typeof webhookMessageKinds)[number];
export interface WebhookMessageView {
  readonly id: string;
  readonly kind: WebhookMessageKind;
  readonly at: string;
  readonly tries: number;
  readonly state: 'waits' | 'taken' | 'not taken';
  /** When it is sent again; null where it is not. */
  readonly next: string | null;
  /** What was answered last, or why nothing was. */
  readonly said: string | null;
}

/** So many rows at once. */
export const mostRowsChecked = 10_000;
export const mostRowsStored = 1000;

const isPlainValue = (value: unknown): boolean =>
  value === null ||
  typeof value === 'boolean' ||
  typeof value === 'number' ||
  isStorable(value) ||
  (Array.isArray(value) && value.every(isStorable));
const isRow = (row: unknown): boolean =>
  typeof row === 'object' && row !== null && !Array.isArray(row) && Object.values(row).every(isPlainValue);

const AreRows =
  (most: number): PropertyDecorator =>
  (target, property) => {
    // As they were sent: a row is no object of a class.
    Transform(({ obj }: { obj: Record<string | symbol, unknown> }) => obj[property])(target, property);
    IsArray()(target, property);
    ArrayMaxSize(most, { message: `Send at most ${most.toLocaleString('en-GB')} rows at once.` })(target, property);
    ValidateBy(
      {
        name: 'areRows',
        validator: {
          validate: isRow,
          defaultMessage: () =>
            'Each row is an object of values by the keys of fields: texts, numbers, true, false, null or lists of texts.',
        },
      },
      { each: true },
    )(target, property);
  };

/** A row of another program: values by the keys of fields. */
export type PlainRow = Readonly<Record<string, unknown>>;

export class CheckRowsDto {
  @AreRows(mostRowsChecked)
  rows!: PlainRow[];

  /** Values that Dellum would ask about are meant. */
  @MayLack()
  @IsBoolean()
  confirmed?: boolean;
}
export class StoreRowsDto {
  @AreRows(mostRowsStored)
  rows!: PlainRow[];

  @MayLack()
  @IsBoolean()
  confirmed?: boolean;
}

/** What is wrong with a value of a row; a key may be that of no field. */
export type RowFault = Omit<AnswerFault, 'code'> & { readonly code: VerdictCode | 'no such field' };
export interface JudgedRow {
  /** Counted from 0. */
  readonly row: number;
  readonly taken: boolean;
  /** The entry as it is stored, or would be. */
  readonly cells: Readonly<Record<string, PlainValue>>;
  readonly faults: readonly RowFault[];
  /** The entry that was stored. */
  readonly entry?: string;
}
export interface JudgedRows {
  readonly taken: number;
  readonly refused: number;
  readonly rows: readonly JudgedRow[];
}

export interface ProgramCatalog {
  readonly key: string;
  readonly title: string;
  readonly version: number;
  readonly levels: number;
}
export interface ProgramRegister {
  readonly key: string;
  readonly title: string;
  /** Whether the token may store entries there. */
  readonly writes: boolean;
}
export interface ProgramValue {
  readonly value: string;
  readonly label: string;
  /** The values above it, outermost first. */
  readonly under: readonly string[];
  readonly otherNames: readonly string[];
  readonly note?: string;
  readonly validFrom?: string;
  readonly validUntil?: string;
  readonly retired: boolean;
  readonly companions: Readonly<Record<string, string>>;
}
export interface ProgramValues {
  readonly catalog: ProgramCatalog;
  readonly values: readonly ProgramValue[];
}
/** What changed since a number; `anew`: too long ago to say, read everything again. */
export interface ProgramChanges {
  readonly now: number;
  readonly anew: boolean;
  readonly catalogs: readonly { readonly key: string; readonly version: number }[];
  readonly registers: readonly string[];
}

/** What of a catalog is asked for. */
export class ProgramValuesDto {
  /** What is offered on this day (ISO 8601); today when it is left out. */
  @MayLack()
  @IsDateString({ strict: true }, { message: 'Write the day as 2026-11-05.' })
  @Length(10, 10, { message: 'Write the day as 2026-11-05.' })
  on?: string;

  /** Only what stands directly under these values, outermost first; once for each. */
  @MayLack()
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? [value] : value))
  @IsArray()
  @ArrayMaxSize(20)
  @IsText({ each: true })
  under?: string[];

  /** `true` for what is retired or not valid on the day, too. */
  @MayLack()
  @IsIn(['true', 'false'], { message: 'Write true or false.' })
  all?: 'true' | 'false';
}
export class ChangesQueryDto {
  /** The number of the last answer; 0 to begin with. */
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(Number.MAX_SAFE_INTEGER)
  since = 0;

  /** So many seconds the answer may wait for something to change. */
  @Type(() => Number)
  @IsWhole()
  @Min(0)
  @Max(25)
  wait = 0;
}
