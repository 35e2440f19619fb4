// What is searched of a catalog, prepared once a version: all texts in one, and the rows that hold each letter and each pair of letters.
import { foldCase } from '../text/index.js';
import type { Catalog, Item } from './models.js';
import { isOffered } from './validity.js';

/** Where a word was found in a shown text, in UTF-16 code units. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** All texts of a catalog end to end, an item a row: its label first, then its other names, its value, note and companions. */
export interface SearchIndex {
  readonly items: readonly Item[];
  readonly text: string;
  /** Where each row begins in the text; one more for its end. */
  readonly offsets: Uint32Array;
  /** So many code units of each row are the label. */
  readonly labels: Uint32Array;
  /** 1 where a word begins. */
  readonly starts: Uint8Array;
  /** By row, for each code unit of the folded label where its character stands in the label; none where all are the same. */
  readonly origins: ReadonlyMap<number, readonly Span[]>;
  /** Undefined for short texts, which are looked through faster. */
  readonly letters: Letters | undefined;
}

/** Where letters stand. Letters beyond ASCII share symbols; whoever asks for them compares the text itself. */
export interface Letters {
  /** The code units of the text. */
  readonly codes: Uint16Array;
  /** By symbol of ASCII: the rows that hold it, in order, and how well it stands there at best. */
  readonly singles: Postings;
  /** The same by pair of symbols. */
  readonly pairs: Postings;
}

/** Rows and ranks by key, one key after the other. */
export interface Postings extends Found {
  /** By key, where its own begin; one more for the end. */
  readonly begins: Uint32Array;
}

/** The rows that hold a word, in order, and how well it stands in each at best. */
export interface Found {
  readonly rows: Uint32Array;
  readonly ranks: Uint32Array;
}

/** Parts the texts of an item from one another; no text that can be typed holds it. */
export const apart = '\u0001';
const ofApart = 1;
const ofRow = 10;
const ofReturn = 13;
const ofBlank = 32;

/** Words found inside other words count this much more than any place. */
const innerWeight = 2 ** 14;
/** Words found beside the label only come after all that are found in it. */
const besideWeight = 2 ** 20;

/** Farther places are told from one another no more. */
export const farthestPlace = innerWeight - 1;

/** How well a word stands at a place of its own text (label, name, note): less is better. */
export const rankOf = (place: number, isStart: boolean, beside: boolean): number =>
  Math.min(place, farthestPlace) + (isStart ? 0 : innerWeight) + (beside ? besideWeight : 0);
/** Whether a rank is of the start of a word. */
export const isStartRank = (rank: number): boolean => rank % besideWeight < innerWeight;
export const isBesideRank = (rank: number): boolean => rank >= besideWeight;
/** The place of a rank in its own text; undefined where it is far. */
export const placeOfRank = (rank: number): number | undefined => (rank % innerWeight === farthestPlace ? undefined : rank % innerWeight);

/** A text without case and accents, and for each of its code units where its character stands in the original; undefined where all are the same. */
interface Folded {
  readonly text: string;
  readonly origin: readonly Span[] | undefined;
}

const accents = /\p{M}/gu;
const ascii = /^[ -~]*$/u;

/** A text as it is compared. */
export function fold(text: string): Folded {
  if (ascii.test(text)) return { text: text.toLowerCase(), origin: undefined };
  let folded = '';
  const origin: Span[] = [];
  let at = 0;
  for (const codePoint of text) {
    const plain = foldCase(codePoint.normalize('NFKD')).replace(accents, '');
    folded += plain;
    for (let unit = 0; unit < plain.length; unit++) origin.push({ start: at, end: at + codePoint.length });
    at += codePoint.length;
  }
  return { text: folded, origin };
}

const letterOrDigit = /^[\p{L}\p{N}]/u;
const lineEnd = /^[\n\r\u2028\u2029]/u;
const asciiSymbols = 128;
const isWordAscii = Uint8Array.from({ length: asciiSymbols }, (_, code) => (letterOrDigit.test(String.fromCharCode(code)) ? 1 : 0));

/** Marks the starts of words, and the start of each text, which may be a sign. */
function startsOf(text: string, codes: Uint16Array): Uint8Array {
  const starts = new Uint8Array(codes.length + 1);
  let wasWord = false;
  let begins = true;
  for (let at = 0; at < codes.length; at++) {
    const code = codes[at]!;
    if (code < asciiSymbols) {
      const isWord = isWordAscii[code] === 1;
      if (isWord ? !wasWord : begins && code !== ofRow && code !== ofReturn) starts[at] = 1;
      wasWord = isWord;
      begins = code === ofRow || code === ofApart;
    } else {
      const character = String.fromCodePoint(text.codePointAt(at)!);
      const isWord = letterOrDigit.test(character);
      if (isWord ? !wasWord : begins && !lineEnd.test(character)) starts[at] = 1;
      wasWord = isWord;
      begins = false;
      if (character.length > 1) at++;
    }
  }
  return starts;
}

/** What is searched of an item. */
interface Row {
  readonly text: string;
  readonly label: number;
  readonly origin: readonly Span[] | undefined;
}

function rowOf({ label, value, otherNames, note, companions }: Item): Row {
  const own = fold(label);
  let text = own.text;
  for (const name of otherNames) text += apart + fold(name).text;
  if (value !== label) text += apart + fold(value).text;
  if (note !== undefined) text += apart + fold(note).text;
  for (const companion of Object.values(companions ?? {})) text += apart + fold(companion).text;
  return { text, label: own.text.length, origin: own.origin };
}

/** Texts from so many code units on are searched by pairs of letters. */
const lettersFrom = 2 ** 12;
const symbols = 256;

const symbolOf = (code: number): number => (code < asciiSymbols ? code : asciiSymbols + (code & (asciiSymbols - 1)));
/** A key that no place has. */
const noKey = 0;
const parts = (code: number): boolean => code === ofBlank || code === ofRow || code === ofApart;
/** The pair of symbols of two code units; no key where a word cannot hold both. */
const pairOf = (first: number, second: number): number =>
  parts(first) || parts(second) ? noKey : symbolOf(first) * symbols + symbolOf(second);

type Texts = Pick<SearchIndex, 'offsets' | 'labels' | 'starts'>;

/**
 * The rows that hold each key, in order, with the best rank it has there: a counting sort of all places by key. `keys`: by place of the text,
 * each below `count`.
 */
function postingsOf(keys: Uint16Array, codes: Uint16Array, { offsets, labels, starts }: Texts, count: number): Postings {
  // Whether a row has been met with a key is told by the row that was met last.
  const last = new Int32Array(count).fill(-1);
  const begins = new Uint32Array(count + 1);
  for (let row = 0, at = 0; row < labels.length; row++)
    for (const end = offsets[row + 1]!; at < end && at < keys.length; at++) {
      const key = keys[at]!;
      if (key === noKey || last[key] === row) continue;
      last[key] = row;
      begins[key + 1]!++;
    }
  for (let key = 0; key < count; key++) begins[key + 1]! += begins[key]!;
  const [rows, ranks] = [new Uint32Array(begins[count]!), new Uint32Array(begins[count]!)];
  const next = begins.slice(0, -1);
  last.fill(-1);
  for (let row = 0, at = 0; row < labels.length; row++) {
    const [end, label] = [offsets[row + 1]!, offsets[row]! + labels[row]!];
    for (let own = at; at < end && at < keys.length; at++) {
      if (codes[at] === ofApart) own = at + 1;
      const key = keys[at]!;
      if (key === noKey) continue;
      const rank = rankOf(at - own, starts[at] === 1, at >= label);
      if (last[key] !== row) {
        last[key] = row;
        rows[next[key]!] = row;
        ranks[next[key]!++] = rank;
      } else if (rank < ranks[next[key]! - 1]!) ranks[next[key]! - 1] = rank;
    }
  }
  return { begins, rows, ranks };
}

function lettersOf(codes: Uint16Array, texts: Texts): Letters {
  const singles = codes.map((code) => (code < asciiSymbols ? code : noKey));
  const pairs = new Uint16Array(codes.length);
  for (let at = 1; at < codes.length; at++) pairs[at - 1] = pairOf(codes[at - 1]!, codes[at]!);
  return { codes, singles: postingsOf(singles, codes, texts, asciiSymbols), pairs: postingsOf(pairs, codes, texts, symbols * symbols) };
}

const foundIn = ({ begins, rows, ranks }: Postings, key: number): Found => ({
  rows: rows.subarray(begins[key], begins[key + 1]),
  ranks: ranks.subarray(begins[key], begins[key + 1]),
});

function codesOf(text: string): Uint16Array {
  const codes = new Uint16Array(text.length);
  for (let at = 0; at < codes.length; at++) codes[at] = text.charCodeAt(at);
  return codes;
}

/** An index of given rows; `quick`: by letters, where the text is long. */
export function indexOfRows(items: readonly Item[], rows: readonly Row[], quick: boolean): SearchIndex {
  const offsets = new Uint32Array(rows.length + 1);
  const labels = new Uint32Array(rows.length);
  const origins = new Map<number, readonly Span[]>();
  rows.forEach(({ text, label, origin }, at) => {
    offsets[at + 1] = offsets[at]! + text.length + 1;
    labels[at] = label;
    if (origin) origins.set(at, origin);
  });
  const text = rows.map((row) => row.text).join('\n');
  const codes = codesOf(text);
  const plain = { items, text, offsets, labels, starts: startsOf(text, codes), origins };
  return { ...plain, letters: quick && text.length >= lettersFrom ? lettersOf(codes, plain) : undefined };
}

/** Prepares the items that a catalog offers on a day (any day when it is left out) for searching; done once a version. */
export function searchIndex({ items: all }: Pick<Catalog, 'items'>, day?: string): SearchIndex {
  const items = all.filter((item) => isOffered(item, day));
  return indexOfRows(items, items.map(rowOf), true);
}

const isAscii = (code: number): boolean => code < asciiSymbols;

/** The rows of a word of one or two letters that were found beforehand; undefined where they are to be looked for. */
export function foundBefore({ singles, pairs }: Letters, word: string): Found | undefined {
  const [first, second] = [word.charCodeAt(0), word.charCodeAt(1)];
  if (word.length === 1 && isAscii(first)) return foundIn(singles, first);
  return word.length === 2 && isAscii(first) && isAscii(second) ? foundIn(pairs, pairOf(first, second)) : undefined;
}

/** The rows that hold the rarest pair of letters of a word of two or more. */
export function rowsOfRarest({ pairs }: Letters, word: string): Uint32Array {
  const { begins } = pairs;
  let [from, to] = [0, Infinity];
  for (let unit = 0; unit + 1 < word.length; unit++) {
    const pair = pairOf(word.charCodeAt(unit), word.charCodeAt(unit + 1));
    const [first, end] = [begins[pair]!, begins[pair + 1]!];
    if (end - first < to - from) [from, to] = [first, end];
  }
  return pairs.rows.subarray(from, to);
}
