// Groups of people: who looks at a sheet and who enters data in it is said by them.
import { ArrayMaxSize, IsArray, IsBoolean, IsUUID, Length } from 'class-validator';
import { longestName } from '@dellum/core';
import { IsText } from './decorators.js';

export class GroupDto {
  @IsText()
  @Length(1, longestName, { message: `Give the group a name of at most ${longestName} characters.` })
  name!: string;

  /** Who belongs to it. */
  @IsArray()
  @ArrayMaxSize(5_000, { message: 'A group has at most 5,000 people.' })
  @IsUUID(undefined, { each: true })
  people!: string[];
}

/** What a group may do on a sheet. */
export class SheetGroupDto {
  @IsUUID()
  groupId!: string;

  /** Its people enter data; otherwise they look only. */
  @IsBoolean()
  enters!: boolean;
}

export interface PeopleGroup {
  readonly id: string;
  readonly name: string;
  readonly people: readonly string[];
}
