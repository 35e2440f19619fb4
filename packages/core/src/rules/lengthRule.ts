// A text of exactly so many characters, or of a length within bounds. Characters are counted as people see them.
import { cleanLines } from '../text/index.js';
import type { Judgment, LengthRule, RuleKind } from './models.js';

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Grapheme clusters (Unicode UAX #29): é is one character, however it is encoded. */
export const lengthOf = (text: string): number => (/^[ -~]*$/u.test(text) ? text.length : [...graphemes.segment(text)].length);

const characters = (count: number) => `${count} ${count === 1 ? 'character' : 'characters'}`;

function words({ least, most }: Pick<LengthRule, 'least' | 'most'>): string {
  if (least !== null && least === most) return `exactly ${characters(least)}`;
  if (least !== null && most !== null) return `${least} to ${characters(most)}`;
  if (least !== null) return `at least ${characters(least)}`;
  return most === null ? 'any number of characters' : `at most ${characters(most)}`;
}

function measured(rule: LengthRule, text: string, heading: string): Extract<Judgment, { right: false }> | undefined {
  const length = lengthOf(text);
  if ((rule.least === null || length >= rule.least) && (rule.most === null || length <= rule.most)) return undefined;
  return { right: false, code: 'length', message: `${heading} has ${words(rule)}; “${text}” has ${length}.` };
}

export const lengthRule: RuleKind<LengthRule> = {
  kind: 'length',
  title: 'a text of a certain length',
  asNew: { least: null, most: null },
  fits: ['text'],
  judge(rule, given, { heading }) {
    const value = cleanLines(given.typed ?? given.chosen);
    return measured(rule, value, heading) ?? { right: true, value };
  },
  stands(rule, value, { heading }) {
    const fault = measured(rule, value, heading);
    return fault ? { right: false, code: fault.code, message: fault.message } : { right: true };
  },
  takes: (rule) => [{ text: 'a text', edits: 'kind' }, { text: ' that has ' }, { text: words(rule), edits: 'bounds' }],
  faults: ({ least, most }) =>
    least !== null && most !== null && least > most
      ? [{ part: 'bounds', message: 'The least length is more than the most, so no text can be entered.' }]
      : [],
  checkable: ({ least, most }) => ({ check: { of: 'length', least, most }, lost: [] }),
  reads: () => [],
};
