// Records: the entries of a register looked for, one entry with its links, and the history of its fields.
import { Max, MaxLength, Min } from 'class-validator';
import { WantedDto } from './arrangements.js';
import type { EntryView } from './entries.js';
import { IsText, IsWhole, MayLack } from './decorators.js';

/** Which entries are looked for, and how they are ordered. */
export class SoughtDto extends WantedDto {
  /** Words that all stand somewhere in the entry, in any case. */
  @MayLack()
  @IsText()
  @MaxLength(200, { message: 'Search for at most 200 characters.' })
  search?: string;
}

/** A part of what is looked for. */
export class RecordsQueryDto extends SoughtDto {
  @IsWhole()
  @Min(0)
  from!: number;

  @IsWhole()
  @Min(1)
  @Max(500)
  count!: number;
}

/** Of which field a change is taken back: one act may have written into several. */
export class ChangeBackDto {
  @IsText()
  @MaxLength(60)
  field!: string;
}

/** An entry that a field of this one names. */
export interface LinkOut {
  readonly field: string;
  readonly registerId: string;
  readonly entryId: string;
}
/** Entries elsewhere that name this one in a field; of many the first ones. */
export interface LinkHere {
  readonly registerId: string;
  readonly fieldId: string;
  readonly total: number;
  readonly entries: readonly EntryView[];
}
export interface RecordView {
  readonly entry: EntryView;
  readonly out: readonly LinkOut[];
  readonly here: readonly LinkHere[];
}

/** One change of an entry, the newest first in a history. */
export interface EntryChange {
  /** The act that wrote it; several fields may have been written by one. */
  readonly id: number;
  readonly at: string;
  readonly by: string;
  /** `followed`: the field followed a correction of the value that it held. */
  readonly act: 'made' | 'written' | 'followed' | 'deleted' | 'brought back';
  /** written, followed: the field, and its values as they are stored; blank is ''. */
  readonly field: string | null;
  readonly from: string;
  readonly to: string;
  /** Whether the field still holds what was written then, so that it can be taken back. */
  readonly standing: boolean;
}
