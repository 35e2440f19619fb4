// Forms: laid out and published by administrators, filled by clerks, or by anybody who was given a link.
import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsDateString, IsIn, IsUUID, Length, Max, MaxLength, Min } from 'class-validator';
import { controls, longestName, sectionColumns, type Control, type FormLayout, type Locale, type VerdictCode } from '@dellum/core';
import type { FieldView } from './build.js';
import { FilterDto } from './catalogs.js';
import { GivenDto } from './givenDto.js';
import { IsText, IsWhole, MayBeNull, MayLack, Nested } from './decorators.js';

const key = 60;
const helpText = () => MaxLength(500, { message: 'Keep the text under 500 characters.' });

export class FormFieldDto {
  @IsText()
  @Length(1, key)
  field!: string;

  @IsText()
  @helpText()
  help!: string;

  @MayBeNull()
  @IsIn(controls)
  control!: Control | null;

  @IsBoolean()
  wide!: boolean;

  /** As one types it, or as it is stored. */
  @MayBeNull()
  @IsText()
  @MaxLength(500)
  begins!: string | null;

  @MayBeNull()
  @Nested(() => FilterDto)
  where!: FilterDto | null;
}

export class FormSectionDto {
  @IsText()
  @Length(1, key)
  id!: string;

  @IsText()
  @MaxLength(120, { message: 'Keep the heading under 120 characters.' })
  heading!: string;

  @IsText()
  @helpText()
  help!: string;

  @IsIn(sectionColumns)
  columns!: (typeof sectionColumns)[number];

  @MayBeNull()
  @Nested(() => FilterDto)
  where!: FilterDto | null;

  @IsArray()
  @ArrayMaxSize(400)
  @Nested(() => FormFieldDto, { each: true })
  fields!: FormFieldDto[];
}

export class FormLayoutDto {
  @IsText()
  @MaxLength(2000, { message: 'Keep the text under 2,000 characters.' })
  intro!: string;

  @IsText()
  @helpText()
  thanks!: string;

  @IsArray()
  @ArrayMaxSize(60, { message: 'Use at most 60 sections.' })
  @ArrayUnique(({ id }: FormSectionDto) => id)
  @Nested(() => FormSectionDto, { each: true })
  sections!: FormSectionDto[];
}

const titleRule = () => Length(1, longestName, { message: `Type a title of at most ${longestName} characters.` });

export class MakeFormDto {
  @IsUUID()
  registerId!: string;

  @IsText()
  @titleRule()
  title!: string;
}

export class LayFormDto {
  @IsText()
  @titleRule()
  title!: string;

  @Nested(() => FormLayoutDto)
  layout!: FormLayoutDto;

  /** The edition of the layout that was changed. */
  @IsWhole()
  edition!: number;
}

export class MakeLinkDto {
  /** When it stops working: a moment (ISO 8601), or a day of the house, to whose end it works. */
  @IsDateString({}, { message: 'Choose the day until which the link works.' })
  expires!: string;

  /** So many entries an hour at most. */
  @IsWhole()
  @Min(1, { message: 'Let at least one entry an hour through.' })
  @Max(10_000, { message: 'At most 10,000 entries an hour.' })
  perHour!: number;
}

export class FormAnswerDto extends GivenDto {
  @IsText()
  @Length(1, key)
  field!: string;

  /** Said to be meant, where the rule asks. */
  @MayLack()
  @IsBoolean()
  confirmed?: boolean;
}

export class FillFormDto {
  /** Made by whoever fills the form, once an entry: sent again, it stores nothing again. */
  @IsUUID()
  submission!: string;

  @IsWhole()
  @Min(1)
  version!: number;

  @IsArray()
  @ArrayMaxSize(400)
  @ArrayUnique(({ field }: FormAnswerDto) => field)
  @Nested(() => FormAnswerDto, { each: true })
  answers!: FormAnswerDto[];
}

/** A form as everybody of the house sees it. */
export interface FormName {
  readonly id: string;
  readonly registerId: string;
  readonly title: string;
  /** The version that is filled now; null while none is. */
  readonly published: number | null;
  /** The fields that it asks, as it is laid out or as it was published, by key. */
  readonly fields: readonly string[];
}
export interface FormLink {
  readonly id: string;
  readonly by: string;
  readonly expires: string;
  readonly perHour: number;
  readonly filled: number;
  readonly closed: boolean;
}
/** A form as it is laid out. */
export interface FormView extends FormName {
  readonly edition: number;
  readonly layout: FormLayout;
  readonly versions: readonly { readonly version: number; readonly at: string; readonly by: string; readonly filled: number }[];
  readonly links: readonly FormLink[];
}
/** All that is needed to fill a form, but for the lists: they come by themselves. */
export interface FillView {
  readonly formId: string;
  readonly version: number;
  readonly title: string;
  readonly layout: FormLayout;
  /** The asked fields, with their rules. */
  readonly fields: readonly FieldView[];
  /** What a new entry holds in fields that the form does not ask, as far as conditions look at it. */
  readonly begins: Readonly<Record<string, string>>;
  readonly catalogs: readonly { readonly id: string; readonly title: string }[];
  readonly house: { readonly name: string; readonly locale: Locale; readonly today: string };
}
/** What is wrong with an answer (`form-refused`). */
export interface AnswerFault {
  readonly field: string;
  readonly code: VerdictCode;
  readonly message: string;
  readonly suggestions: readonly string[];
  readonly mayConfirm?: boolean;
}
/** What was stored. */
export interface Filled {
  readonly entryId: string;
  /** True where it had been stored before. */
  readonly again: boolean;
  readonly cells: Readonly<Record<string, string>>;
}
