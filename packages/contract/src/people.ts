// People of a house.
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, Length } from 'class-validator';
import { roles, type Role } from './roles.js';
import { IsText, MayLack } from './decorators.js';

const nameWords = { message: 'Type a name of at most 120 characters.' };
const roleWords = { message: `Choose a role: ${roles.join(', ')}.` };
const passwordWords = { message: 'Choose a password of at least 10 characters.' };

export class AddPersonDto {
  @IsText()
  @Length(1, 120, nameWords)
  name!: string;

  @IsText()
  @Length(1, 120, { message: 'Choose a sign-in name of at most 120 characters.' })
  signIn!: string;

  @IsIn(roles, roleWords)
  role!: Role;

  @IsText()
  @Length(10, 200, passwordWords)
  password!: string;
}

export class ChangePersonDto {
  @MayLack()
  @IsText()
  @Length(1, 120, nameWords)
  name?: string;

  @MayLack()
  @IsIn(roles, roleWords)
  role?: Role;
}

/** Puts somebody out of the house, or lets them in again. */
export class AdmitDto {
  @IsBoolean()
  admitted!: boolean;
}

/** One's own password, changed by whoever knows it. */
export class ChangePasswordDto {
  @IsText()
  @Length(1, 200, { message: 'Type the password you have now.' })
  current!: string;

  @IsText()
  @Length(10, 200, passwordWords)
  password!: string;
}

/** A browser in which one is signed in. */
export interface SessionView {
  readonly id: string;
  /** This very browser. */
  readonly here: boolean;
  readonly begunAt: string;
  readonly lastSeen: string;
  /** What the browser says it is, and its address. */
  readonly from: string;
}

/** One's own password, asked for before what matters. */
export class OwnPasswordDto {
  @IsText()
  @Length(1, 200, { message: 'Type the password you have now.' })
  password!: string;
}

export class FactorCodeDto {
  /** Six digits of the app. */
  @IsText()
  @Length(1, 20, { message: 'Type the six digits that your app shows.' })
  code!: string;
}

/** The roles that need a second factor. */
export class FactorRolesDto {
  @IsArray()
  @ArrayMaxSize(roles.length)
  @IsIn(roles, { each: true, ...roleWords })
  roles!: Role[];
}

/** One's own second factor. */
export interface FactorView {
  /** Since when one has it; null for none. */
  readonly since: string | null;
  /** How many codes on paper are left. */
  readonly codesLeft: number;
  /** The house asks one's role for it. */
  readonly required: boolean;
}
/** A secret for an app: to be typed (base 32), or as the address that a picture holds. Told once. */
export interface NewFactor {
  readonly secret: string;
  readonly address: string;
}
/** Codes for paper, each for one sign-in. Told once. */
export interface RecoveryCodes {
  readonly codes: readonly string[];
}

export class ResetPasswordDto {
  @IsText()
  @Length(10, 200, passwordWords)
  password!: string;
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly signIn: string;
  readonly role: Role;
  /** How many browsers are signed in now. */
  readonly sessions: number;
  readonly lastSeen: string | null;
  /** Since when the person is out of the house; null for those who may enter it. */
  readonly outSince: string | null;
  /** Signs in with a second factor. */
  readonly factor: boolean;
}
