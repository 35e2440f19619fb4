// A text that matches a pattern as a whole; the pattern is written by hand, or made from examples.
import { clean, cleanLines } from '../text/index.js';
import { readerOf, type Pattern } from './languages.js';
import type { Judgment, PatternRule, RuleKind } from './models.js';

const compiled = new Map<string, Pattern | string>();
const mostCompiled = 500;

/** The compiled pattern, or in words why it is none; undefined while its language is not known. */
function compile(pattern: string): Pattern | string | undefined {
  const known = compiled.get(pattern);
  if (known !== undefined) return known;
  const read = readerOf('pattern');
  if (!read) return undefined;
  if (compiled.size >= mostCompiled) compiled.clear();
  let made: Pattern | string;
  try {
    made = read(pattern);
  } catch (error) {
    made = (error as Error).message;
  }
  compiled.set(pattern, made);
  return made;
}

/** What is wrong with a pattern, in words, or undefined. */
export function patternFault(pattern: string): string | undefined {
  if (pattern === '') return 'The pattern is empty. Give examples, or write a regular expression.';
  const made = compile(pattern);
  return typeof made === 'string' ? `The pattern cannot be read: ${made}` : undefined;
}

/** One run of characters of one sort; a literal run is one character. */
interface Run {
  readonly sort: string;
  readonly length: number;
}

function sortOf(character: string): string {
  if (/\p{Nd}/u.test(character)) return '[0-9]';
  if (/\p{Lu}/u.test(character)) return /[A-Z]/u.test(character) ? '[A-Z]' : '\\p{Lu}';
  if (/\p{Ll}/u.test(character)) return /[a-z]/u.test(character) ? '[a-z]' : '\\p{Ll}';
  return character.replace(/[\\^$.*+?()[\]{}|/-]/gu, '\\$&');
}

function runsOf(text: string): Run[] {
  const runs: Run[] = [];
  for (const character of text) {
    const sort = sortOf(character);
    const last = runs.at(-1);
    if (last?.sort === sort) runs[runs.length - 1] = { sort, length: last.length + 1 };
    else runs.push({ sort, length: 1 });
  }
  return runs;
}

/**
 * The narrowest pattern of runs (digits, capitals, small letters, signs) that all examples match; undefined when they are
 * not built alike. "AB-12" and "CD-345" give `[A-Z]{2}\-[0-9]{2,3}`.
 */
export function patternOf(examples: readonly string[]): string | undefined {
  const [first, ...others] = examples
    .map(clean)
    .filter((text) => text !== '')
    .map(runsOf);
  if (!first || others.some((runs) => runs.length !== first.length || runs.some(({ sort }, at) => sort !== first[at]!.sort)))
    return undefined;
  const counted = (least: number, most: number) => (least === most ? (least === 1 ? '' : `{${least}}`) : `{${least},${most}}`);
  return first
    .map(({ sort }, at) => {
      const lengths = [first, ...others].map((runs) => runs[at]!.length);
      return sort + counted(Math.min(...lengths), Math.max(...lengths));
    })
    .join('');
}

function matched({ pattern, examples }: PatternRule, text: string, heading: string): Extract<Judgment, { right: false }> | undefined {
  const made = compile(pattern);
  if (!made || typeof made === 'string' || made.matches(text)) return undefined;
  const like = examples.length > 0 ? ` Write it like ${examples[0]!}.` : '';
  return { right: false, code: 'pattern', message: `“${text}” is not written as ${heading} is.${like}` };
}

export const patternRule: RuleKind<PatternRule> = {
  kind: 'pattern',
  language: 'pattern',
  title: 'a text of a certain pattern',
  asNew: { pattern: '', examples: [] },
  fits: ['text'],
  judge(rule, given, { heading }) {
    const value = cleanLines(given.typed ?? given.chosen);
    return matched(rule, value, heading) ?? { right: true, value };
  },
  stands(rule, value, { heading }) {
    const fault = matched(rule, value, heading);
    return fault ? { right: false, code: fault.code, message: fault.message } : { right: true };
  },
  takes: ({ examples, pattern }) => [
    { text: 'a text', edits: 'kind' },
    { text: ' written ' },
    { text: examples.length > 0 ? `like ${examples.slice(0, 2).join(' or ')}` : `as ${pattern}`, edits: 'pattern' },
  ],
  faults({ pattern, examples }) {
    const fault = patternFault(pattern);
    if (fault) return [{ part: 'pattern', message: fault }];
    const made = compile(pattern);
    const odd = examples.find((example) => made && typeof made !== 'string' && !made.matches(example));
    return odd === undefined ? [] : [{ part: 'pattern', message: `The example “${odd}” does not match the pattern.` }];
  },
  checkable: ({ pattern }) => ({ check: { of: 'pattern', pattern }, lost: ['is not compared with its pattern there'] }),
  reads: () => [],
};
