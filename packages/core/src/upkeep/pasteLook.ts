// A look at what a pasted block would bring in, before it comes in.
import { clean, matchKey } from '../text/index.js';
import { lookAlikes } from './lookAlikes.js';
import { withoutApart, type TellsApart } from './toldApart.js';

export interface PasteLook {
  readonly rows: number;
  readonly columns: number;
  readonly blanks: number;
  /** Values of the first column that stand more than once, or are there already. */
  readonly repeats: number;
  readonly alike: readonly (readonly string[])[];
  /** True when the first row looks like headings rather than values. */
  readonly headings: boolean;
}

/** Whether the first row names the columns: it equals the headings, or is text over a column of numbers or days. */
function looksLikeHeadings(block: readonly (readonly string[])[], headings: readonly string[]): boolean {
  const [first, ...rest] = block;
  if (!first || rest.length === 0) return false;
  if (first.some((text, at) => text !== '' && matchKey(text) === matchKey(headings[at] ?? ''))) return true;
  const figures = /^[-−+]?[\d.,/: -]*\d[\d.,/: -]*%?$/u;
  return first.some(
    (text, at) => text !== '' && !figures.test(text) && rest.length >= 3 && rest.every((row) => figures.test(clean(row[at] ?? ''))),
  );
}

/** `there`: what the column holds already. `apart`: which values are known to be two things. */
export function lookAtPaste(
  block: readonly (readonly string[])[],
  headings: readonly string[],
  there: readonly string[],
  apart: TellsApart,
): PasteLook {
  const cleaned = block.map((row) => row.map(clean));
  const values = cleaned.map((row) => row[0] ?? '').filter((value) => value !== '');
  const distinct = new Set(values);
  const known = new Set(there.map(clean));
  const fresh = new Set([...distinct].filter((value) => !known.has(value)));
  const spellings = [...fresh, ...known].map((value) => ({ value, entries: known.has(value) ? 1 : 0 }));
  const groups = withoutApart(lookAlikes(spellings), apart);
  return {
    rows: block.length,
    columns: Math.max(0, ...block.map((row) => row.length)),
    blanks: cleaned.filter((row) => row.every((text) => text === '')).length,
    repeats: values.length - distinct.size + [...distinct].filter((value) => known.has(value)).length,
    alike: groups.map((group) => group.map(({ value }) => value)).filter((group) => group.some((value) => fresh.has(value))),
    headings: looksLikeHeadings(cleaned, headings),
  };
}
