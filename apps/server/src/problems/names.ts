// Names that people give: of sheets, fields, catalogs, linked sources and groups.
import { clean, forbiddenCharacter, matchKey } from '@dellum/core';
import { ProblemError } from './problem.js';

/**
 * A cleaned name that none of the others has, not even with other blanks or case. `input` is the member that holds it; throws `name-unfit`
 * or `name-taken`.
 */
export function freeName(name: string, input: string, taken: readonly string[]): string {
  const fault = (code: 'name-taken' | 'name-unfit', words: string) => new ProblemError(code, words, { faults: { [input]: words } });
  if (forbiddenCharacter(name)) throw fault('name-unfit', 'The name holds a character that cannot be stored. Type it again.');
  const key = matchKey(name);
  if (key === '') throw fault('name-unfit', 'Type a name; this one is blank.');
  const other = taken.find((known) => matchKey(known) === key);
  if (other !== undefined) throw fault('name-taken', `There is “${other}” already. Choose another name.`);
  return clean(name);
}
