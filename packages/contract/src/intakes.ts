// Intakes: every file of one kind goes into a sheet by itself, and stops only for what is new.
import { IsBoolean, IsUUID, Length, MaxLength } from 'class-validator';
import { longestName } from '@dellum/core';
import { IsText, MayBeNull } from './decorators.js';
import type { ReturnedState } from './returned.js';

/** So many intakes a house may have. */
export const mostIntakes = 30;
/** So many files of an intake wait to be looked at; further ones are not taken before. */
export const mostIntakeFiles = 50;

export class IntakeDto {
  @IsText()
  @Length(1, longestName, { message: `Say what comes in, in at most ${longestName} characters.` })
  name!: string;

  /** The sheet that the rows are entries of. */
  @IsUUID(undefined, { message: 'Choose the sheet.' })
  registerId!: string;

  /** A folder under the root that is given to the house; '' for the root itself, null where no folder is looked at. */
  @MayBeNull()
  @IsText()
  @MaxLength(500)
  folder!: string | null;

  /** Which names of files are meant, with `*` and `?`; '' for all. */
  @IsText()
  @MaxLength(200)
  pattern!: string;

  /** Each file holds the old rows, too, also under another name. */
  @IsBoolean()
  holdsAll!: boolean;
}

/** How a file has come: by a person, out of the folder, by a program. */
export type IntakeWay = 'person' | 'folder' | 'program';

export interface IntakeView extends IntakeDto {
  readonly id: string;
  /** In whose name it stores. */
  readonly by: string;
  readonly at: string;
  /** Since when it takes nothing. */
  readonly off: string | null;
  /** Why no file is taken. */
  readonly failure: string | null;
  /** When a file came last. */
  readonly last: string | null;
  /** Files that wait for somebody to look at them. */
  readonly waits: number;
}

/** A file of an intake. What is stored of one of which something else waits is a file of its own. */
export interface IntakeFileView {
  readonly id: number;
  readonly name: string;
  readonly at: string;
  readonly state: ReturnedState;
  readonly way: IntakeWay;
  /** Who brought it, or which program. */
  readonly by: string;
  /** Rows that were stored of it, or wait. */
  readonly rows: number;
  readonly why: string | null;
  /** The file of which this was stored while the rest waited. */
  readonly partOf: number | null;
  /** What was stored is taken back. */
  readonly takenBack: boolean;
}

/** What a program hears of a file that it sent. */
export interface ProgramFile {
  readonly id: number;
  readonly state: 'reading' | 'unreadable' | 'waits' | 'stored';
  /** Rows that are stored, and those that wait for a person. */
  readonly stored: number;
  readonly waiting: number;
  readonly why: string | null;
}
export interface ProgramIntake {
  readonly id: string;
  readonly name: string;
  readonly registerId: string;
}

/** A file as a program sends it to an intake. */
export class SentFileDto {
  @IsText()
  @Length(1, 200)
  name!: string;
}
