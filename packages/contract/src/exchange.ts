// Downloads: what of a sheet goes into a file, in which format; made by a job and kept for a week.
import { IsBoolean, IsIn } from 'class-validator';
import { MayLack, Nested } from './decorators.js';
import { SoughtDto } from './records.js';

/** The formats of files, each an open standard. */
export const downloadFormats = ['workbook', 'opendocument', 'csv', 'tables', 'json lines'] as const;
export type DownloadFormat = (typeof downloadFormats)[number];

export class DownloadDto {
  @IsIn(downloadFormats)
  format!: DownloadFormat;

  /** True for the entries and fields as the person has arranged them; false for all of them. */
  @IsBoolean()
  arranged!: boolean;

  /** Only entries that are looked for, in their order; whatever is arranged. */
  @MayLack()
  @Nested(() => SoughtDto)
  found?: SoughtDto;

  /** workbooks, csv: true for what is shown, false for the values that are stored */
  @IsBoolean()
  labels!: boolean;

  /** csv: texts that a calculating program would take for formulas begin with an apostrophe */
  @IsBoolean()
  guarded = false;

  /** workbooks: it is filled in and brought back, so each row says which entry it is */
  @IsBoolean()
  comesBack = false;
}

/** The formats in which the values of a catalog go out. */
export const valueFormatNames = ['csv', 'turtle', 'jsonld', 'json'] as const;
export type ValueFormatName = (typeof valueFormatNames)[number];
export class CatalogFileDto {
  @IsIn(valueFormatNames)
  format!: ValueFormatName;

  /** `true` for what is retired or not valid today, too. */
  @MayLack()
  @IsIn(['true', 'false'])
  all?: 'true' | 'false';

  /** csv, `true`: texts that a calculating program would take for formulas begin with an apostrophe. */
  @MayLack()
  @IsIn(['true', 'false'])
  guarded?: 'true' | 'false';
}

export type DownloadState = 'under way' | 'done';
export interface DownloadView {
  readonly id: number;
  readonly registerId: string;
  /** What the file is called. */
  readonly name: string;
  readonly format: DownloadFormat;
  readonly by: string;
  readonly at: string;
  readonly state: DownloadState;
  /** Entries that are written, of so many. */
  readonly done: number;
  readonly total: number;
  readonly bytes: number;
}
/** So many days a file is kept. */
export const downloadKept = 7;
