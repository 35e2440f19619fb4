// Linked sources: values from outside the registers.
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsIn, Length, Max, MaxLength, Min } from 'class-validator';
import { longestName } from '@dellum/core';
import { IsText, IsWhole, MayLack, NestedByKind } from './decorators.js';

export const linkedKinds = ['text file', 'csv file', 'folder', 'database', 'service', 'computed'] as const;
export type LinkedKind = (typeof linkedKinds)[number];
/** How the bytes of a file are read; `told apart` finds out by itself and asks where it cannot. */
export const encodings = ['told apart', 'utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof encodings)[number];

/** Which columns of a table, or paths within each element of a list, are taken. */
class TakenSettingsDto {
  /** Of the value. */
  @MayLack()
  @IsText()
  @MaxLength(200)
  value?: string;

  /** Of what is shown; blank for none. */
  @MayLack()
  @IsText()
  @MaxLength(200)
  label?: string;

  /** Of what comes along. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(40)
  @IsText({ each: true })
  companions?: string[];
}

export class TextFileSettingsDto {
  @IsIn(['text file'])
  kind!: 'text file';

  /** The path under the configured root. */
  @MayLack()
  @IsText()
  @MaxLength(500)
  path?: string;

  @MayLack()
  @IsIn(encodings)
  encoding?: Encoding;
}

export class CsvFileSettingsDto extends TakenSettingsDto {
  @IsIn(['csv file'])
  kind!: 'csv file';

  /** The path under the configured root. */
  @MayLack()
  @IsText()
  @MaxLength(500)
  path?: string;

  @MayLack()
  @IsIn(encodings)
  encoding?: Encoding;
}

export class FolderSettingsDto {
  @IsIn(['folder'])
  kind!: 'folder';

  /** The path under the configured root. */
  @MayLack()
  @IsText()
  @MaxLength(500)
  path?: string;

  /** For names, such as `*.pdf`. */
  @MayLack()
  @IsText()
  @MaxLength(200)
  pattern?: string;

  /** Names with their ending. */
  @MayLack()
  @IsBoolean()
  endings?: boolean;
}

export class DatabaseSettingsDto extends TakenSettingsDto {
  @IsIn(['database'])
  kind!: 'database';

  /** The name of a configured connection. */
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
}

export class ServiceSettingsDto extends TakenSettingsDto {
  @IsIn(['service'])
  kind!: 'service';

  /** The name of a configured service. */
  @MayLack()
  @IsText()
  @MaxLength(120)
  connection?: string;

  /** Its address, under that of the service. */
  @MayLack()
  @IsText()
  @MaxLength(1000)
  address?: string;

  /** The path to the list in the answer; blank when the answer is the list. */
  @MayLack()
  @IsText()
  @MaxLength(200)
  list?: string;
}

export class ComputedSettingsDto {
  @IsIn(['computed'])
  kind!: 'computed';

  @MayLack()
  @IsText()
  @MaxLength(4000)
  expression?: string;

  /** The catalogs it may use, by their keys. */
  @MayLack()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayNotEmpty({ message: 'Choose at least one catalog that the expression is over.' })
  @IsText({ each: true })
  catalogs?: string[];
}

/** Where a linked source reads. What is not chosen yet is left out; whoever reads it says what is missing. */
export type LinkedSettings =
  TextFileSettingsDto | CsvFileSettingsDto | FolderSettingsDto | DatabaseSettingsDto | ServiceSettingsDto | ComputedSettingsDto;
export type LinkedSettingsOf<Kind extends LinkedKind> = Extract<LinkedSettings, { kind: Kind }>;

export const linkedSettings: { readonly [Kind in LinkedKind]: new () => LinkedSettingsOf<Kind> } = {
  'text file': TextFileSettingsDto,
  'csv file': CsvFileSettingsDto,
  folder: FolderSettingsDto,
  database: DatabaseSettingsDto,
  service: ServiceSettingsDto,
  computed: ComputedSettingsDto,
};

export class MakeLinkedDto {
  @IsText()
  @Length(1, longestName, { message: `Give it a name of at most ${longestName} characters.` })
  name!: string;

  @NestedByKind(() => linkedSettings)
  settings!: LinkedSettings;

  /** Minutes between refreshes; 0 for on demand only. */
  @IsWhole()
  @Min(0)
  @Max(10_080)
  every!: number;
}

/** Looks at what a source would give, before it is kept. */
export class TryLinkedDto {
  @NestedByKind(() => linkedSettings)
  settings!: LinkedSettings;
}

export interface LinkedView {
  readonly id: string;
  readonly name: string;
  readonly settings: LinkedSettings;
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
