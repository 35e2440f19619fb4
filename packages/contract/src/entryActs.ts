// Acts on blocks of an entry sheet that reach further than what is on screen: done as a job, taken back as one act.
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsUUID, Length, MaxLength, Min } from 'class-validator';
import type { BlockAct, ActOutcome } from '@dellum/core';
import { mostCells } from './reaches.js';
import { IsTextRows } from './textRows.js';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';

const key = 60;
export const blockActNames = ['clear', 'fill', 'replace', 'paste', 'delete', 'back'] as const satisfies readonly BlockAct['does'][];

/** Keys of fields of one register. */
const AreFieldKeys: PropertyDecorator = (target, property) => {
  for (const decorate of [IsArray(), ArrayMaxSize(400), IsText({ each: true }), MaxLength(key, { each: true })]) decorate(target, property);
};

/** Some fields of the entries from one to another, both included, in the order in which the person sees them. */
export class BlockDto {
  @AreFieldKeys
  fields!: string[];

  /** Left out: from the first entry on. */
  @MayLack()
  @IsUUID()
  first?: string;

  /** Left out: to the last entry. */
  @MayLack()
  @IsUUID()
  last?: string;

  /** True where the entries are shown as the person has arranged them. */
  @IsBoolean()
  arranged!: boolean;
}

export class SearchDto {
  @IsText()
  @Length(1, 500, { message: 'Type what is to be found.' })
  find!: string;

  @IsBoolean()
  whole!: boolean;

  @IsBoolean()
  exact!: boolean;
}

/** What is to be done; which members it needs follows from `does`. */
export class EntryActDto {
  @IsIn(blockActNames)
  does!: (typeof blockActNames)[number];

  /** all but back; without it, the whole register */
  @MayLack()
  @Nested(() => BlockDto)
  block?: BlockDto;

  /** fill */
  @MayLack()
  @IsIn(['same', 'series'])
  how?: 'same' | 'series';

  /** replace */
  @MayLack()
  @Nested(() => SearchDto)
  search?: SearchDto;

  /** replace */
  @MayLack()
  @IsText()
  @MaxLength(500)
  by?: string;

  /** without a block: the fields */
  @MayLack()
  @AreFieldKeys
  fields?: string[];

  /** paste: the texts of each row; more rows than the block has become new entries at the end */
  @MayLack()
  @IsTextRows(mostCells, 400)
  texts?: string[][];

  /** paste: below the last entry, all rows becoming new ones; `fields` says which */
  @MayLack()
  @IsBoolean()
  below?: boolean;

  /** back */
  @MayLack()
  @IsWhole()
  @Min(1)
  of?: number;
}

export type EntryActState = 'under way' | 'done';
export interface EntryActView {
  readonly id: number;
  readonly registerId: string;
  readonly does: BlockAct['does'];
  readonly state: EntryActState;
  /** Entries that are done, of so many. */
  readonly done: number;
  readonly total: number;
  readonly outcome: ActOutcome;
}

/** Asks where a text is found. */
export class FindDto {
  @Nested(() => SearchDto)
  search!: SearchDto;

  @AreFieldKeys
  fields!: string[];

  /** The entry after which the next one is sought; without it, from the top. */
  @MayLack()
  @IsUUID()
  after?: string;

  @IsBoolean()
  arranged!: boolean;
}
export interface Found {
  readonly cells: number;
  /** By field, what is found there and how often: the most frequent first. */
  readonly fields: readonly {
    readonly field: string;
    readonly cells: number;
    readonly values: readonly { readonly value: string; readonly entries: number }[];
  }[];
  /** The next entry that holds it; after the last one, the first again. */
  readonly next: { readonly entry: string; readonly field: string; readonly row: number } | null;
}

/** The sum of a block, computed exactly. */
export interface BlockSum {
  readonly entries: number;
  readonly cells: number;
  readonly filled: number;
  /** Of the numbers among them, as canonical decimals; null where there are none. */
  readonly numbers: {
    readonly count: number;
    readonly sum: string;
    readonly mean: string;
    readonly least: string;
    readonly most: string;
  } | null;
}
