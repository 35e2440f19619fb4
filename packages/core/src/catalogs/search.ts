// Searching a catalog while one types: several words in any order, anywhere in the text.
import { clean, foldCase } from '../text/index.js';
import type { Catalog, Item } from './models.js';
import { isOffered } from './validity.js';

/** Where a word was found in a shown text, in UTF-16 code units. */
export interface Span {
  readonly start: number;
  readonly end: number;
}
export interface Match {
  readonly item: Item;
  /** Spans of the label to highlight; empty when the words were found elsewhere. */
  readonly spans: readonly Span[];
  /** The other name that was found, when the label does not hold the words. */
  readonly otherName?: string;
}
export interface Matches {
  readonly matches: readonly Match[];
  /** How many items match in all; `matches` may hold fewer. */
  readonly total: number;
}

/** A text without case and accents, and for each of its code units where its character stands in the original; undefined where all are the same. */
interface Folded {
  readonly text: string;
  readonly origin: readonly Span[] | undefined;
}

const accents = /\p{M}/gu;
const ascii = /^[ -~]*$/u;

function fold(text: string): Folded {
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

/** Parts the texts of an item from one another; no text that can be typed holds it. */
const apart = '\u0001';

/** What is searched of an item: its label first, then its other names, then its value, note and companions. */
interface Row {
  readonly text: string;
  readonly origin: readonly Span[] | undefined;
  /** So many code units are the label. */
  readonly label: number;
}

/**
 * All texts of a catalog end to end, an item a row. One search through a long text is many times faster than one search
 * each through many short ones.
 */
export interface SearchIndex {
  readonly items: readonly Item[];
  readonly rows: readonly Row[];
  readonly text: string;
  /** Where each row begins in the text; one more for its end. */
  readonly offsets: Int32Array;
  /** 1 where a word begins. */
  readonly starts: Uint8Array;
}

/** The start of a word; and the start of a text, which may be a sign. */
const wordStart = /(?<![\p{L}\p{N}])[\p{L}\p{N}]|(?<=^|[\n\u0001])./gu;

function indexOf(items: readonly Item[], rows: readonly Row[]): SearchIndex {
  const offsets = new Int32Array(rows.length + 1);
  rows.forEach((row, at) => {
    offsets[at + 1] = offsets[at]! + row.text.length + 1;
  });
  const text = rows.map((row) => row.text).join('\n');
  const starts = new Uint8Array(text.length + 1);
  for (const { index } of text.matchAll(wordStart)) starts[index] = 1;
  return { items, rows, text, offsets, starts };
}

function rowOf({ label, value, otherNames, note, companions }: Item): Row {
  const own = fold(label);
  const more = [
    ...otherNames,
    ...(value === label ? [] : [value]),
    ...(note === undefined ? [] : [note]),
    ...Object.values(companions ?? {}),
  ];
  return { text: [own.text, ...more.map((text) => fold(text).text)].join(apart), origin: own.origin, label: own.text.length };
}

/** Prepares the items that a catalog offers on a day (any day when it is left out) for searching; done once a version. */
export function searchIndex({ items: all }: Pick<Catalog, 'items'>, day?: string): SearchIndex {
  const items = all.filter((item) => isOffered(item, day));
  return indexOf(items, items.map(rowOf));
}

/** Words found inside other words count this much more than any place. */
const innerWeight = 2 ** 14;
/** Words found beside the label only come after all that are found in it. */
const besideWeight = 2 ** 20;
/** Rows are told apart by their order below this. */
const orders = 2 ** 21;

interface Found {
  /** Where it stands in its own text: the label, a name, the note. */
  readonly at: number;
  readonly isStart: boolean;
  readonly beside: boolean;
}

/** The best place of a word in a row: in the label before elsewhere, the start of a word before any place, then the first in its own text. */
function placeIn({ offsets, starts, rows }: SearchIndex, row: number, word: string, from = 0): Found | undefined {
  const { text, label } = rows[row]!;
  let best: Found | undefined;
  for (let at = text.indexOf(word, from); at >= 0; at = text.indexOf(word, at + 1)) {
    const beside = at + word.length > label;
    if (best && beside && !best.beside) break;
    // An other name that begins with the word says more than a note that has it somewhere.
    const place = beside ? at - text.lastIndexOf(apart, at) - 1 : at;
    const found = { at: place, isStart: starts[offsets[row]! + at] === 1, beside };
    if (found.isStart && (!beside || place === 0)) return found;
    if (!best || rankOf(found) < rankOf(best)) best = found;
  }
  return best;
}

const rankOf = ({ at, isStart, beside }: Found): number =>
  Math.min(at, innerWeight - 1) + (isStart ? 0 : innerWeight) + (beside ? besideWeight : 0);

/** Hands every row that holds the word to `meet`, with how well it stands there. Walks through the text once. */
function eachRowWith(index: SearchIndex, word: string, meet: (row: number, found: Found) => void): void {
  const { text, offsets, rows, starts } = index;
  let row = 0;
  let at = text.indexOf(word);
  while (at >= 0) {
    while (offsets[row + 1]! <= at) row++;
    const place = at - offsets[row]!;
    // Most words are found at the start of a label; nothing can stand better there.
    const first = starts[at] === 1 && place + word.length <= rows[row]!.label;
    meet(row, first ? { at: place, isStart: true, beside: false } : placeIn(index, row, word, place)!);
    at = text.indexOf(word, offsets[row + 1]!);
  }
}

/** Keeps the smallest numbers it is given, in order; nearly all are turned away by one comparison. */
class Smallest {
  private readonly kept: number[] = [];
  constructor(private readonly most: number) {}
  offer(number: number): void {
    const { kept, most } = this;
    if (kept.length === most && number >= kept[most - 1]!) return;
    let at = kept.length === most ? most - 1 : kept.length;
    while (at > 0 && kept[at - 1]! > number) {
      kept[at] = kept[at - 1]!;
      at--;
    }
    kept[at] = number;
  }
  numbers(): readonly number[] {
    return this.kept;
  }
}

function matchOf(index: SearchIndex, row: number, words: readonly string[]): Match {
  const { origin } = index.rows[row]!;
  const item = index.items[row]!;
  const places = words.map((word) => ({ word, found: placeIn(index, row, word) }));
  const inLabel = places.flatMap(({ word, found }) => {
    if (!found || found.beside) return [];
    const end = found.at + word.length;
    return [origin ? { start: origin[found.at]!.start, end: origin[end - 1]!.end } : { start: found.at, end }];
  });
  const missing = places.filter(({ found }) => found?.beside).map(({ word }) => word);
  const otherName =
    missing.length === 0 ? undefined : item.otherNames.find((name) => missing.every((word) => fold(name).text.includes(word)));
  // A name that holds all of it says more than what the label has of it.
  const byName = otherName !== undefined && words.every((word) => fold(otherName).text.includes(word));
  return { item, spans: byName ? [] : inLabel.sort((a, b) => a.start - b.start), ...(otherName !== undefined && { otherName }) };
}

/** So many matches are kept in order while they come; more are sorted at the end. */
const keptInOrder = 200;

function found(
  index: SearchIndex,
  words: readonly string[],
  limit: number,
  where: 'anywhere' | 'starts',
): { rows: readonly number[]; total: number } {
  // The longest word is the rarest, as a rule; only the rows that hold it are looked at for the others.
  const [rarest, ...others] = [...words].sort((a, b) => b.length - a.length);
  const best = limit <= keptInOrder ? new Smallest(limit) : undefined;
  const all: number[] = [];
  let total = 0;
  eachRowWith(index, rarest!, (row, place) => {
    if (where === 'starts' && !place.isStart) return;
    let sum = rankOf(place);
    for (const word of others) {
      const own = placeIn(index, row, word);
      if (!own || (where === 'starts' && !own.isStart)) return;
      sum += rankOf(own);
    }
    total++;
    if (best) best.offer(sum * orders + row);
    else all.push(sum * orders + row);
  });
  const ranks = best?.numbers() ?? all.sort((a, b) => a - b).slice(0, limit);
  return { rows: ranks.map((number) => number % orders), total };
}

const signs = /[^\p{L}\p{N}\u0001]+/gu;
const squeezed = new WeakMap<SearchIndex, SearchIndex>();

/** The same texts without blanks and signs: "8x40" is looked for in "8 x 40". Made when it is first wanted. */
function squeezedOf(index: SearchIndex): SearchIndex {
  const known =
    squeezed.get(index) ??
    indexOf(
      index.items,
      index.rows.map(({ text, label }) => ({
        text: text.replace(signs, ''),
        label: text.slice(0, label).replace(signs, '').length,
        origin: undefined,
      })),
    );
  squeezed.set(index, known);
  return known;
}

/**
 * The items whose label, other names, value, note and companions together hold every word of the query: starts of words
 * first, the label before the rest, then by place, then in catalog order. Where none does, blanks and signs are left out
 * of account. An empty query gives all items in catalog order. At most `limit` matches; `total` counts all. `starts`:
 * only words that stand at the start of a word count.
 */
export function search(index: SearchIndex, query: string, limit: number, where: 'anywhere' | 'starts' = 'anywhere'): Matches {
  const words = fold(clean(query))
    .text.split(' ')
    .filter((word) => word !== '');
  const { items } = index;
  if (words.length === 0) return { matches: items.slice(0, limit).map((item) => ({ item, spans: [] })), total: items.length };
  const plain = found(index, words, limit, where);
  if (plain.total > 0) return { matches: plain.rows.map((row) => matchOf(index, row, words)), total: plain.total };
  const whole = words.join('').replace(signs, '');
  if (whole === '') return { matches: [], total: 0 };
  const loose = found(squeezedOf(index), [whole], limit, where);
  return { matches: loose.rows.map((row) => ({ item: items[row]!, spans: [] })), total: loose.total };
}
