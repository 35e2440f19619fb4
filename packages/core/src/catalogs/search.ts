// Searching a catalog while one types: several words in any order, anywhere in the text.
import { clean } from '../text/index.js';
import type { Item } from './models.js';
import {
  farthestPlace,
  isBesideRank,
  placeOfRank,
  apart,
  fold,
  indexOfRows,
  isStartRank,
  rankOf,
  rarestPair,
  type Found,
  type Letters,
  type SearchIndex,
  type Span,
} from './searchIndex.js';

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

const rowText = ({ text, offsets }: SearchIndex, row: number): string => text.slice(offsets[row]!, offsets[row + 1]! - 1);

/** How well a word stands at a place of the text. */
function rankAt({ text, offsets, labels, starts }: SearchIndex, row: number, at: number, length: number): number {
  const within = at - offsets[row]!;
  const beside = within + length > labels[row]!;
  return rankOf(beside ? at - text.lastIndexOf(apart, at) - 1 : within, starts[at] === 1, beside);
}

/** Rows are collected here, and copied when all of them are known; it grows with the longest list. */
let gathered: Found = { rows: new Uint32Array(2 ** 10), ranks: new Uint32Array(2 ** 10) };

function makeRoom(most: number): Found {
  if (gathered.rows.length < most) gathered = { rows: new Uint32Array(most), ranks: new Uint32Array(most) };
  return gathered;
}
const copied = ({ rows, ranks }: Found, count: number): Found => ({ rows: rows.slice(0, count), ranks: ranks.slice(0, count) });

/** Looks through the whole text for a word. */
function lookThrough(index: SearchIndex, word: string): Found {
  const { text, offsets } = index;
  const found = makeRoom(index.items.length);
  let [row, count] = [0, 0];
  for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) {
    while (offsets[row + 1]! <= at) row++;
    const rank = rankAt(index, row, at, word.length);
    if (count > 0 && found.rows[count - 1] === row) {
      if (rank < found.ranks[count - 1]!) found.ranks[count - 1] = rank;
    } else {
      found.rows[count] = row;
      found.ranks[count++] = rank;
    }
  }
  return copied(found, count);
}

/** Looks for a word where its rarest pair of letters stands. */
function lookUp(index: SearchIndex, letters: Letters, word: string): Found {
  const { offsets } = index;
  const { codes, places } = letters;
  const { from, to, at: inWord } = rarestPair(letters, word);
  const wanted = Uint16Array.from({ length: word.length }, (_, unit) => word.charCodeAt(unit));
  const { length } = wanted;
  const { rows, ranks } = makeRoom(index.items.length);
  let [row, count] = [0, 0];
  for (let place = from; place < to; place++) {
    const at = places[place]! - inWord;
    let unit = 0;
    while (unit < length && codes[at + unit] === wanted[unit]) unit++;
    if (unit < length) continue;
    if (offsets[row + 1]! <= at) row = placeOf(offsets, at + 1, row + 1) - 1;
    const rank = rankAt(index, row, at, length);
    if (count > 0 && rows[count - 1] === row) {
      if (rank < ranks[count - 1]!) ranks[count - 1] = rank;
    } else {
      rows[count] = row;
      ranks[count++] = rank;
    }
  }
  return copied({ rows, ranks }, count);
}

function lookFor(index: SearchIndex, word: string): Found {
  const { letters } = index;
  if (!letters) return lookThrough(index, word);
  if (word.length > 1) return lookUp(index, letters, word);
  return letters.singles[word.charCodeAt(0)] ?? lookThrough(index, word);
}

/** The words that were looked for last in an index: while the next word is typed, those before it are asked for again and again. */
const lately = new WeakMap<SearchIndex, Map<string, Found>>();
const mostLately = 6;

function rowsWith(index: SearchIndex, word: string): Found {
  const known = lately.get(index) ?? new Map<string, Found>();
  lately.set(index, known);
  const found = known.get(word) ?? lookFor(index, word);
  known.delete(word);
  known.set(word, found);
  if (known.size > mostLately) known.delete(known.keys().next().value!);
  return found;
}

/** Where the number stands among some in order, or where it would; it is at `from` or after it. */
function placeOf(numbers: Uint32Array, number: number, from: number): number {
  let step = 1;
  let low = from;
  while (low + step < numbers.length && numbers[low + step]! < number) {
    low += step;
    step *= 2;
  }
  let high = Math.min(numbers.length, low + step + 1);
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (numbers[middle]! < number) low = middle + 1;
    else high = middle;
  }
  return low;
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

/** So many matches are kept in order while they come; more are sorted at the end. */
const keptInOrder = 200;
/** Rows are told apart by their order below this. */
const orders = 2 ** 21;

type Where = 'anywhere' | 'starts';

/** A word, and the rows that hold it. */
interface Looked extends Found {
  readonly word: string;
}

const lookedFor = (index: SearchIndex, words: readonly string[]): Looked[] => words.map((word) => ({ word, ...rowsWith(index, word) }));

/** The rows that hold every word, the best first. */
function ranked(words: readonly Found[], limit: number, where: Where): { rows: readonly number[]; total: number } {
  // The rarest word leads; the others are looked for in its rows.
  const [rarest, ...others] = [...words].sort((a, b) => a.rows.length - b.rows.length);
  const { rows, ranks } = rarest!;
  const reached = others.map(() => 0);
  const best = limit <= keptInOrder ? new Smallest(limit) : undefined;
  const all: number[] = [];
  let total = 0;
  next: for (let at = 0; at < rows.length; at++) {
    const row = rows[at]!;
    let sum = ranks[at]!;
    if (where === 'starts' && !isStartRank(sum)) continue;
    for (let other = 0; other < others.length; other++) {
      const own = others[other]!;
      const place = placeOf(own.rows, row, reached[other]!);
      reached[other] = place;
      if (own.rows[place] !== row || (where === 'starts' && !isStartRank(own.ranks[place]!))) continue next;
      sum += own.ranks[place]!;
    }
    total++;
    if (best) best.offer(sum * orders + row);
    else all.push(sum * orders + row);
  }
  const numbers = best?.numbers() ?? all.sort((a, b) => a - b).slice(0, limit);
  return { rows: numbers.map((number) => number % orders), total };
}

/** Where a word that is found in the row stands in its label; undefined where it stands beside it only. */
function inLabel(index: SearchIndex, row: number, { word, rows, ranks }: Looked): number | undefined {
  const rank = ranks[placeOf(rows, row, 0)]!;
  if (isBesideRank(rank)) return undefined;
  const place = placeOfRank(rank);
  if (place !== undefined) return place;
  // So far behind only the text itself tells.
  const isStart = isStartRank(rank);
  const begin = index.offsets[row]!;
  for (let at = index.text.indexOf(word, begin + farthestPlace); ; at = index.text.indexOf(word, at + 1))
    if (!isStart || index.starts[at] === 1) return at - begin;
}

function matchOf(index: SearchIndex, row: number, words: readonly Looked[]): Match {
  const origin = index.origins.get(row);
  const item = index.items[row]!;
  const spans: Span[] = [];
  const missing: string[] = [];
  for (const looked of words) {
    const at = inLabel(index, row, looked);
    if (at === undefined) missing.push(looked.word);
    else {
      const end = at + looked.word.length;
      spans.push(origin ? { start: origin[at]!.start, end: origin[end - 1]!.end } : { start: at, end });
    }
  }
  if (spans.length > 1) spans.sort((a, b) => a.start - b.start);
  if (missing.length === 0) return { item, spans };
  const otherName = item.otherNames.find((name) => missing.every((word) => fold(name).text.includes(word)));
  if (otherName === undefined) return { item, spans };
  // A name that holds all of it says more than what the label has of it.
  return { item, spans: words.every(({ word }) => fold(otherName).text.includes(word)) ? [] : spans, otherName };
}

const signs = /[^\p{L}\p{N}\u0001]+/gu;
const squeezed = new WeakMap<SearchIndex, SearchIndex>();

/** The same texts without blanks and signs: "8x40" is looked for in "8 x 40". Made when it is first wanted. */
function squeezedOf(index: SearchIndex): SearchIndex {
  const known =
    squeezed.get(index) ??
    indexOfRows(
      index.items,
      index.items.map((_, row) => {
        const text = rowText(index, row);
        return { text: text.replace(signs, ''), label: text.slice(0, index.labels[row]).replace(signs, '').length, origin: undefined };
      }),
      false,
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
export function search(index: SearchIndex, query: string, limit: number, where: Where = 'anywhere'): Matches {
  const words = fold(clean(query))
    .text.split(' ')
    .filter((word) => word !== '');
  const { items } = index;
  if (words.length === 0) return { matches: items.slice(0, limit).map((item) => ({ item, spans: [] })), total: items.length };
  const looked = lookedFor(index, words);
  const plain = ranked(looked, limit, where);
  if (plain.total > 0) return { matches: plain.rows.map((row) => matchOf(index, row, looked)), total: plain.total };
  const whole = words.join('').replace(signs, '');
  if (whole === '') return { matches: [], total: 0 };
  const loose = ranked(lookedFor(squeezedOf(index), [whole]), limit, where);
  return { matches: loose.rows.map((row) => ({ item: items[row]!, spans: [] })), total: loose.total };
}
