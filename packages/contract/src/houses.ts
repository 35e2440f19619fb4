// The house and the way into it.
import 'reflect-metadata';
import { IsOptional, IsString, Length, MaxLength } from 'class-validator';
import type { Locale } from '@dellum/core';
import type { Role } from './roles.js';

export class MakeHouseDto {
  @IsString()
  @Length(1, 120, { message: 'Give the house a name of at most 120 characters.' })
  house!: string;

  @IsString()
  @Length(1, 120, { message: 'Say who you are, in at most 120 characters.' })
  name!: string;

  @IsString()
  @Length(1, 120, { message: 'Choose a sign-in name of at most 120 characters.' })
  signIn!: string;

  @IsString()
  @Length(10, 200, { message: 'Choose a password of at least 10 characters.' })
  password!: string;
}

export class SignInDto {
  @IsOptional()
  @IsString()
  @MaxLength(120)
  house?: string;

  @IsString()
  @Length(1, 120, { message: 'Type your sign-in name.' })
  signIn!: string;

  @IsString()
  @Length(1, 200, { message: 'Type your password.' })
  password!: string;
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
  /** `today` is the house's day (ISO 8601). */
  readonly house: { readonly key: string; readonly name: string; readonly locale: Locale; readonly today: string };
}
