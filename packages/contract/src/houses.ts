// The house and the way into it.
import { IsIn, Length, Matches, Max, MaxLength, Min } from 'class-validator';
import { dateOrders, decimalMarks, listMarks, type Locale } from '@dellum/core';
import type { Role } from './roles.js';
import { IsText, IsWhole, MayLack } from './decorators.js';

export class MakeHouseDto {
  @IsText()
  @Length(1, 120, { message: 'Give the house a name of at most 120 characters.' })
  house!: string;

  @IsText()
  @Length(1, 120, { message: 'Say who you are, in at most 120 characters.' })
  name!: string;

  @IsText()
  @Length(1, 120, { message: 'Choose a sign-in name of at most 120 characters.' })
  signIn!: string;

  @IsText()
  @Length(10, 200, { message: 'Choose a password of at least 10 characters.' })
  password!: string;
}

/** Changes how the house is called and how it writes dates, numbers and amounts. What is stored stays as it is. */
export class ChangeHouseDto {
  @MayLack()
  @IsText()
  @Length(1, 120, { message: 'Give the house a name of at most 120 characters.' })
  name?: string;

  /** BCP 47. */
  @MayLack()
  @Matches(/^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8}){0,4}$/u, { message: 'Choose a language.' })
  language?: string;

  @MayLack()
  @IsIn(dateOrders, { message: 'Choose an order of day, month and year.' })
  dateOrder?: Locale['dateOrder'];

  @MayLack()
  @IsIn(decimalMarks, { message: 'Choose a decimal sign.' })
  decimalMark?: Locale['decimalMark'];

  @MayLack()
  @IsIn(listMarks, { message: 'Choose a sign between values.' })
  listMark?: NonNullable<Locale['listMark']>;

  /** ISO 4217. */
  @MayLack()
  @Matches(/^[A-Z]{3}$/u, { message: 'Choose a currency.' })
  currency?: string;

  @MayLack()
  @IsText()
  @MaxLength(60)
  timeZone?: string;

  /** 0 for Sunday. */
  @MayLack()
  @IsWhole()
  @Min(0)
  @Max(6)
  firstDay?: number;
}

export class SignInDto {
  @MayLack()
  @IsText()
  @MaxLength(120)
  house?: string;

  @IsText()
  @Length(1, 120, { message: 'Type your sign-in name.' })
  signIn!: string;

  @IsText()
  @Length(1, 200, { message: 'Type your password.' })
  password!: string;

  /** Of whoever has a second factor: six digits of the app, or a code on paper. */
  @MayLack()
  @IsText()
  @MaxLength(20)
  code?: string;
}

/** What the sign-in page needs to know of the instance. */
export interface Threshold {
  /** True while no house exists: the first page makes one. */
  readonly empty: boolean;
  /** The house of this sign-in page, where there is only one or the address names it. */
  readonly house: { readonly key: string; readonly name: string } | null;
  /** Demo accounts, shown on the demo's sign-in page only. */
  readonly demoAccounts: readonly { readonly name: string; readonly role: Role; readonly signIn: string; readonly password: string }[];
}

/** Who is signed in, and where. */
export interface Me {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** One must set up a second factor before anything else. */
  readonly needsFactor?: true;
  /** `today` is the house's day (ISO 8601). */
  readonly house: { readonly key: string; readonly name: string; readonly locale: Locale; readonly today: string; readonly demo: boolean };
}
