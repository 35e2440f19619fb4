// What a cell of a source can hold.
import { forbiddenCharacter, longestValue } from './forbidden.js';

export interface TextFault {
  readonly code: 'forbidden character' | 'length';
  readonly message: string;
}

/** Why a text cannot be a value of a list, or undefined when it can. */
export function sourceTextFault(text: string): TextFault | undefined {
  const character = forbiddenCharacter(text);
  if (character)
    return {
      code: 'forbidden character',
      message: `The text holds the character ${character}, which cannot be stored. Type it again without it.`,
    };
  if (text.length <= longestValue) return undefined;
  return {
    code: 'length',
    message: `The text has ${text.length} characters; a value of a list holds at most ${longestValue}. Shorten it.`,
  };
}
