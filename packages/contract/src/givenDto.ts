// What is given for a field, as it is checked.
import { IsString, MaxLength, ValidateBy, ValidateIf } from 'class-validator';
import { longestText } from '@dellum/core';
import { MayLack } from './decorators.js';
import type { GivenMembers } from './given.js';

/** One of both, not both. */
export class GivenDto implements GivenMembers {
  /** What was typed, as it was typed. Left out where a value was chosen. */
  @ValidateIf(({ chosen }: GivenDto) => chosen === undefined)
  @IsString()
  text?: string;

  /** The value that was chosen, as it is stored. Left out where a text was typed. */
  @MayLack()
  @IsString()
  @MaxLength(longestText, { message: 'The value is too long.' })
  @ValidateBy({
    name: 'isAlone',
    validator: {
      validate: (_chosen, about) => (about?.object as GivenDto).text === undefined,
      defaultMessage: () => 'Send the text that was typed, or the value that was chosen, not both.',
    },
  })
  chosen?: string;
}
