// A range in one plain sentence.
import { endingOf, type RangeEnding, type RangeShape, type SourceRange } from './models.js';

const endings: { readonly [Ends in RangeEnding]: string } = {
  fixed: 'ending at a fixed row',
  last: 'growing to the last filled cell',
  gap: 'growing to the first blank cell',
};
const short: { readonly [Ends in RangeEnding]: string } = { fixed: 'fixed', last: 'grows to the last', gap: 'grows to a gap' };
const shapes: { readonly [Shape in RangeShape]: string } = {
  list: 'one value a row',
  headings: 'headings and what stands under them',
  levels: 'groups and what they hold, across fields',
};

/** How the range ends, inside a sentence: "growing to the last filled cell". */
export const endingClause = (ends: RangeEnding): string => endings[ends];
/** How the range ends, in two or three words: "grows to the last". */
export const endingInShort = (ends: RangeEnding): string => short[ends];
/** How the cells are read: "groups and what they hold, across fields". */
export const shapeInShort = (shape: RangeShape): string => shapes[shape];

/** What a range takes, in one sentence. `fields` names the headings it reads, `from` where it starts. */
export function rangeSentence(range: SourceRange, fields: readonly string[], from: string): string {
  const ending = endingClause(endingOf(range));
  const inherited = range.inherits ? '; a blank group means the same as above' : '';
  switch (range.shape) {
    case 'list':
      return `Values of ${fields[0] ?? 'a field that is gone'} from ${from}, ${ending}; blanks skipped, repeats taken once.`;
    case 'headings':
      return `The headings ${fields.join(', ')} and what stands under each, ${ending}; blanks skipped.`;
    case 'levels':
      return `Groups from ${fields.join(' › ')}, from ${from}, ${ending}; a group stands once${inherited}.`;
  }
}
