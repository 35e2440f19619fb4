// What of a file is not read as it stands, in sentences.
import type { Noticed } from './reading/index.js';

/** A count with what is counted. */
export const counted = (count: number, one: string, several: string): string =>
  `${count.toLocaleString('en-GB')} ${count === 1 ? one : several}`;

export function noticedIn({ formulas, errors, beyond, macros, links }: Noticed): string[] {
  return [
    ...(formulas > 0
      ? [`${counted(formulas, 'cell holds a formula; its result was', 'cells hold formulas; their results were')} taken.`]
      : []),
    ...(errors > 0 ? [`${counted(errors, 'cell holds', 'cells hold')} a formula that has failed, and came as what it shows.`] : []),
    ...(beyond > 0 ? [`${counted(beyond, 'cell stands', 'cells stand')} too far to the right to be read.`] : []),
    ...(macros ? ['It holds macros, which are never run here.'] : []),
    ...(links ? ['It points at other files, which were not opened.'] : []),
  ];
}
