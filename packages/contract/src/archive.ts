// House archives: `house.json` of such a file, and what is said and chosen before one is brought in. Its JSON Schema is made of these
// rules.
import { ArrayMaxSize, Equals, IsArray, IsBoolean, IsIn, IsUUID, Length, Matches, Max, MaxLength, Min } from 'class-validator';
import {
  dateOrders,
  decimalMarks,
  fieldKinds,
  itemColours,
  listMarks,
  longestName,
  rangeShapes,
  waysIn,
  type Collision,
  type FieldKind,
  type ItemColour,
  type Locale,
  type RangeShape,
  type WayIn,
} from '@dellum/core';
import { ClosingDto } from './build.js';
import { DefinitionDto } from './catalogs.js';
import { IsText, IsWhole, MayBeNull, MayLack, Nested, NestedByKind } from './decorators.js';
import { FigureDto } from './figures.js';
import { FormLayoutDto } from './forms.js';
import { SheetGroupDto } from './groups.js';
import { linkedSettings, type LinkedSettings } from './linked.js';
import { roles, type Role } from './roles.js';
import { ruleDtos, type RuleDto } from './rules.js';

/** The part of the archive that says what the house is made of. */
export const houseFile = 'house.json';
/** The version of its form. */
export const archiveVersion = 1;
/** An archive that is brought in by the browser holds so many entries at most; larger ones are brought in where the server runs. */
export const mostArchivedEntries = 50_000;

const key = 60;
const value = 500;
const day = /^\d{4}-\d{2}-\d{2}$/u;

export class ArchivedLocaleDto {
  @Matches(/^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8}){0,4}$/u)
  language!: string;

  @IsIn(decimalMarks)
  decimalMark!: Locale['decimalMark'];

  @IsIn(dateOrders)
  dateOrder!: Locale['dateOrder'];

  @IsWhole()
  @Min(0)
  @Max(99)
  yearPivot!: number;

  @Matches(/^[A-Z]{3}$/u)
  currency!: string;

  @MayLack()
  @IsIn(listMarks)
  listMark?: NonNullable<Locale['listMark']>;

  @MayLack()
  @IsText()
  @MaxLength(60)
  timeZone?: string;

  @MayLack()
  @IsWhole()
  @Min(0)
  @Max(6)
  firstDay?: number;
}

export class ArchivedFieldDto {
  /** Its name within the entries. */
  @Matches(/^[a-z0-9_]{1,60}$/u)
  key!: string;

  @IsText()
  @Length(1, longestName)
  heading!: string;

  @IsIn(fieldKinds)
  kind!: FieldKind;

  @IsWhole()
  @Min(1)
  @Max(5000)
  width!: number;

  /** The heading under which it stands in a record; '' for none. */
  @IsText()
  @MaxLength(80)
  group!: string;

  @MayBeNull()
  @NestedByKind(() => ruleDtos)
  rule!: RuleDto | null;
}

export class ArchivedRegisterDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, longestName)
  title!: string;

  @MayBeNull()
  @Nested(() => ClosingDto)
  closing!: ClosingDto | null;

  @IsArray()
  @ArrayMaxSize(400)
  @Nested(() => ArchivedFieldDto, { each: true })
  fields!: ArchivedFieldDto[];

  /** The part of the archive that holds its entries (JSON Lines); null where they were left out. */
  @MayBeNull()
  @Matches(/^entries\/[\w-]+\.jsonl$/u)
  @MaxLength(120)
  entries!: string | null;
}

export class ArchivedSheetDto {
  @IsUUID()
  id!: string;

  @IsIn(['entry', 'source'])
  kind!: 'entry' | 'source';

  @IsText()
  @Length(1, longestName)
  title!: string;

  @IsText()
  @MaxLength(500)
  note!: string;

  @IsBoolean()
  shown!: boolean;

  @IsBoolean()
  limited!: boolean;

  @IsBoolean()
  downloads!: boolean;

  @IsArray()
  @ArrayMaxSize(200)
  @Nested(() => SheetGroupDto, { each: true })
  groups!: SheetGroupDto[];

  @IsArray()
  @ArrayMaxSize(500)
  @Nested(() => ArchivedRegisterDto, { each: true })
  registers!: ArchivedRegisterDto[];
}

/** Where a stretch of a range starts: under the heading, at an entry, or under one. */
export class ArchivedStartDto {
  @IsIn(['top', 'entry', 'after'])
  at!: 'top' | 'entry' | 'after';

  @MayLack()
  @IsUUID()
  entry?: string;
}
export class ArchivedEndDto {
  @IsIn(['fixed', 'last', 'gap'])
  ends!: 'fixed' | 'last' | 'gap';

  /** fixed: the last entry; null for a range that was emptied */
  @MayLack()
  @MayBeNull()
  @IsUUID()
  entry?: string | null;
}
export class ArchivedStretchDto {
  @IsUUID()
  registerId!: string;

  @IsArray()
  @ArrayMaxSize(8)
  @IsText({ each: true })
  @MaxLength(key, { each: true })
  fields!: string[];

  @Nested(() => ArchivedStartDto)
  start!: ArchivedStartDto;

  @Nested(() => ArchivedEndDto)
  end!: ArchivedEndDto;
}
export class ArchivedRangeDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, longestName)
  name!: string;

  @IsIn(rangeShapes)
  shape!: RangeShape;

  @IsBoolean()
  inherits!: boolean;

  @IsArray()
  @ArrayMaxSize(200)
  @Nested(() => ArchivedStretchDto, { each: true })
  stretches!: ArchivedStretchDto[];
}

/** What a catalog keeps of a value beyond its sources. */
export class ArchivedItemDto {
  @IsText()
  @Length(1, value)
  value!: string;

  @IsArray()
  @ArrayMaxSize(7)
  @IsText({ each: true })
  @MaxLength(value, { each: true })
  path!: string[];

  @IsBoolean()
  retired!: boolean;

  @IsArray()
  @ArrayMaxSize(5000)
  @IsText({ each: true })
  @MaxLength(value, { each: true })
  otherNames!: string[];

  @MayLack()
  @IsText()
  @MaxLength(value)
  label?: string;

  @MayLack()
  @IsText()
  @MaxLength(1000)
  note?: string;

  @MayLack()
  @IsIn(itemColours)
  colour?: ItemColour;

  @MayLack()
  @Matches(day)
  validFrom?: string;

  @MayLack()
  @Matches(day)
  validUntil?: string;
}

export class ArchivedCatalogDto {
  @IsUUID()
  id!: string;

  /** Its name in addresses. */
  @Matches(/^[\p{L}\p{N}_-]{1,120}$/u)
  key!: string;

  @IsText()
  @Length(1, longestName)
  title!: string;

  @IsText()
  @MaxLength(500)
  note!: string;

  @Nested(() => DefinitionDto)
  definition!: DefinitionDto;

  @IsArray()
  @ArrayMaxSize(200_000)
  @Nested(() => ArchivedItemDto, { each: true })
  kept!: ArchivedItemDto[];

  /** Who keeps it, beside the administrators. */
  @IsArray()
  @ArrayMaxSize(50)
  @IsUUID(undefined, { each: true })
  stewards!: string[];
}

export class ArchivedLinkedDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, longestName)
  name!: string;

  @NestedByKind(() => linkedSettings)
  settings!: LinkedSettings;

  @IsWhole()
  @Min(0)
  @Max(10_080)
  every!: number;
}

export class ArchivedFormDto {
  @IsUUID()
  id!: string;

  @IsUUID()
  registerId!: string;

  @IsText()
  @Length(1, longestName)
  title!: string;

  @Nested(() => FormLayoutDto)
  layout!: FormLayoutDto;

  @IsBoolean()
  published!: boolean;
}

export class ArchivedFigureDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, longestName)
  title!: string;

  @Nested(() => FigureDto)
  definition!: FigureDto;
}

export class ArchivedGroupDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, longestName)
  name!: string;

  @IsArray()
  @ArrayMaxSize(5000)
  @IsUUID(undefined, { each: true })
  people!: string[];
}

/** Somebody of the house, without a password: an administrator gives one. */
export class ArchivedPersonDto {
  @IsUUID()
  id!: string;

  @IsText()
  @Length(1, 120)
  name!: string;

  @IsText()
  @Length(1, 120)
  signIn!: string;

  @IsIn(roles)
  role!: Role;
}

export class ArchivedPairDto {
  @IsText()
  @Length(1, value)
  one!: string;

  @IsText()
  @Length(1, value)
  other!: string;
}

/** `house.json` of a house archive. */
export class HouseArchiveDto {
  /** The version of this form. */
  @Equals(archiveVersion)
  version!: number;

  /** The name of the house. */
  @IsText()
  @Length(1, longestName)
  name!: string;

  /** When it was written. */
  @Matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/u)
  at!: string;

  @Nested(() => ArchivedLocaleDto)
  locale!: ArchivedLocaleDto;

  @IsArray()
  @ArrayMaxSize(1000)
  @Nested(() => ArchivedSheetDto, { each: true })
  sheets!: ArchivedSheetDto[];

  @IsArray()
  @ArrayMaxSize(5000)
  @Nested(() => ArchivedRangeDto, { each: true })
  ranges!: ArchivedRangeDto[];

  @IsArray()
  @ArrayMaxSize(2000)
  @Nested(() => ArchivedCatalogDto, { each: true })
  catalogs!: ArchivedCatalogDto[];

  @IsArray()
  @ArrayMaxSize(500)
  @Nested(() => ArchivedLinkedDto, { each: true })
  linked!: ArchivedLinkedDto[];

  @IsArray()
  @ArrayMaxSize(1000)
  @Nested(() => ArchivedFormDto, { each: true })
  forms!: ArchivedFormDto[];

  @IsArray()
  @ArrayMaxSize(1000)
  @Nested(() => ArchivedFigureDto, { each: true })
  figures!: ArchivedFigureDto[];

  @IsArray()
  @ArrayMaxSize(1000)
  @Nested(() => ArchivedGroupDto, { each: true })
  groups!: ArchivedGroupDto[];

  @IsArray()
  @ArrayMaxSize(20_000)
  @Nested(() => ArchivedPersonDto, { each: true })
  people!: ArchivedPersonDto[];

  /** Values that look alike and are two things. */
  @IsArray()
  @ArrayMaxSize(20_000)
  @Nested(() => ArchivedPairDto, { each: true })
  toldApart!: ArchivedPairDto[];
}

/** What of the house goes out. */
export class ArchiveOutDto {
  /** With what stands in its entry sheets; without, it is a template for another office. */
  @IsIn(['yes', 'no'])
  entries!: 'yes' | 'no';

  /** With its people, without their passwords. */
  @IsIn(['yes', 'no'])
  people!: 'yes' | 'no';
}

/** How something of the archive whose name is taken comes in. */
export class ChosenWayDto {
  @IsUUID()
  id!: string;

  @IsIn(waysIn)
  way!: WayIn;
}
export class BringArchiveDto {
  /** The archive as it was looked at. */
  @IsUUID()
  look!: string;

  @IsArray()
  @ArrayMaxSize(5000)
  @Nested(() => ChosenWayDto, { each: true })
  ways!: ChosenWayDto[];
}
/** A template that ships with this server. */
export class TemplateDto {
  @Matches(/^[\w-]{1,60}$/u)
  template!: string;
}

/** How much of each there is. */
export interface ArchiveCounts {
  readonly sheets: number;
  readonly lists: number;
  readonly ranges: number;
  readonly catalogs: number;
  readonly linked: number;
  readonly forms: number;
  readonly figures: number;
  readonly groups: number;
  readonly people: number;
  /** In its lists. */
  readonly rows: number;
  /** In its entry sheets. */
  readonly entries: number;
}
/** An archive that was looked at; nothing of it is stored in the house. It is kept for an hour. */
/** What a file is that brings parts of a house. */
export type ArchiveKind = 'archive' | 'concepts' | 'schema';
export interface ArchiveLook {
  readonly look: string;
  readonly of: ArchiveKind;
  /** The name of the house that it was made of, or what its concepts or its sheet are called. */
  readonly name: string;
  /** When it was written; null where that is not said. */
  readonly at: string | null;
  readonly counts: ArchiveCounts;
  /** What bears a name that is taken here. */
  readonly collisions: readonly Collision[];
  /** What is to be known before, in sentences. */
  readonly said: readonly string[];
}
export interface ArchiveBrought {
  readonly counts: ArchiveCounts;
  /** Sheets that came in, by their titles here. */
  readonly sheets: readonly { readonly id: string; readonly title: string }[];
}
export interface Template {
  readonly key: string;
  readonly name: string;
  readonly counts: ArchiveCounts;
}
