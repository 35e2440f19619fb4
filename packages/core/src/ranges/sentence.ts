// A range in one plain sentence.
import type { RangeEnding } from './models.js';

const endings: { readonly [Ends in RangeEnding]: string } = {
  fixed: 'ending at a fixed row',
  last: 'growing to the last filled cell',
  gap: 'growing to the first blank cell',
};
const short: { readonly [Ends in RangeEnding]: string } = { fixed: 'fixed', last: 'grows to the last', gap: 'grows to a gap' };

/** How the range ends, inside a sentence: "growing to the last filled cell". */
export const endingClause = (ends: RangeEnding): string => endings[ends];
/** How the range ends, in two or three words: "grows to the last". */
export const endingInShort = (ends: RangeEnding): string => short[ends];
