// Linked sources: values from outside the registers.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsIn, Length, Max, MaxLength, Min } from 'class-validator';
import { longestName } from '@dellum/core';
import { IsText, IsWhole, MayLack, Nested } from './decorators.js';

export const linkedKinds = ['text file', 'csv file', 'folder', 'database', 'service', 'computed'] as const;
export type LinkedKind = (typeof linkedKinds)[number];
/** How the bytes of a file are read; `told apart` finds out by itself and asks where it cannot. */
export const encodings = ['told apart', 'utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof encodings)[number];

/** Where a linked source reads; which members it needs follows from `kind`. */
export class LinkedSettingsDto {
  @IsIn(linkedKinds)
  kind!: LinkedKind;

  /** text file, csv file, folder: the path under the configured root */
  @MayLack()
  @IsText()
  @MaxLength(500)
  path?: string;

  /** text file, csv file */
  @MayLack()
  @IsIn(encodings)
  encoding?: Encoding;

  /** folder: a pattern for names, such as `*.pdf` */
  @MayLack()
  @IsText()
  @MaxLength(200)
  pattern?: string;

  /** folder: names with their ending */
  @MayLack()
  @IsBoolean()
  endings?: boolean;

  /** csv file, database, service: the column, or the path in the answer, of the value */
  @MayLack()
  @IsText()
  @MaxLength(200)
  value?: string;

  /** csv file, database, service: of the label; blank for none */
  @MayLack()
  @IsText()
  @MaxLength(200)
  label?: string;

  /** csv file, database: columns that come along */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(40)
  @IsText({ each: true })
  companions?: string[];

  /** database: the name of a configured connection */
  @MayLack()
  @IsText()
  @MaxLength(120)
  connection?: string;

  @MayLack()
  @IsText()
  @MaxLength(120)
  schema?: string;

  @MayLack()
  @IsText()
  @MaxLength(120)
  table?: string;

  /** service: its address */
  @MayLack()
  @IsText()
  @MaxLength(1000)
  address?: string;

  /** service: the path to the list in the answer; blank when the answer is the list */
  @MayLack()
  @IsText()
  @MaxLength(200)
  list?: string;

  /** computed: the expression */
  @MayLack()
  @IsText()
  @MaxLength(4000)
  expression?: string;

  /** computed: catalogs it may use, by their keys */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayNotEmpty({ message: 'Choose at least one catalog that the expression is over.' })
  @IsText({ each: true })
  catalogs?: string[];
}

export class MakeLinkedDto {
  @IsText()
  @Length(1, longestName, { message: `Give it a name of at most ${longestName} characters.` })
  name!: string;

  @Nested(() => LinkedSettingsDto)
  settings!: LinkedSettingsDto;

  /** Minutes between refreshes; 0 for on demand only. */
  @IsWhole()
  @Min(0)
  @Max(10_080)
  every!: number;
}

/** Looks at what a source would give, before it is kept. */
export class TryLinkedDto {
  @Nested(() => LinkedSettingsDto)
  settings!: LinkedSettingsDto;
}

export interface LinkedView {
  readonly id: string;
  readonly name: string;
  readonly settings: LinkedSettingsDto;
  readonly every: number;
  readonly values: number;
  readonly lastGood: string | null;
  readonly lastTried: string | null;
  /** Why the last refresh failed; null when it went well. */
  readonly failure: string | null;
  /** True while what a refresh brought waits on its slip. */
  readonly waiting: boolean;
}
export interface LinkedTrial {
  readonly values: number;
  readonly first: readonly { readonly value: string; readonly label?: string }[];
  /** Columns that can be chosen. */
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}
/** What can be reached from here, as it was configured. */
export interface Reachable {
  readonly root: string | null;
  readonly files: readonly string[];
  readonly folders: readonly string[];
  readonly connections: readonly string[];
  readonly services: readonly string[];
}
export interface DatabaseTables {
  readonly tables: readonly { readonly schema: string; readonly table: string; readonly columns: readonly string[] }[];
}
