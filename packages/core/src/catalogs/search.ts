// Searching a catalog while one types: several words in any order, anywhere in the text.
import { clean } from '../text/index.js';
import type { Item } from './models.js';
import {
  farthestPlace,
  isBesideRank,
  placeOfRank,
  apart,
  fold,
  foundBefore,
  indexOfRows,
  isStartRank,
  rankOf,
  rowsOfRarest,
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

/** The best rank of a word in a row; undefined where the row does not hold it. */
function bestIn(index: SearchIndex, codes: Uint16Array, row: number, wanted: Uint16Array): number | undefined {
  const { offsets } = index;
  const { length } = wanted;
  const [first, second] = [wanted[0]!, wanted[1]!];
  const last = offsets[row + 1]! - 1 - length;
  let best: number | undefined;
  for (let at = offsets[row]!; at <= last; at++) {
    if (codes[at] !== first || codes[at + 1] !== second || !goesOn(codes, at, wanted, 2)) continue;
    const rank = rankAt(index, row, at, length);
    if (best === undefined || rank < best) best = rank;
  }
  return best;
}

/** Whether a word stands at a place; its first `unit` letters are known to stand there. */
function goesOn(codes: Uint16Array, at: number, wanted: Uint16Array, from: number): boolean {
  let unit = from;
  while (unit < wanted.length && codes[at + unit] === wanted[unit]) unit++;
  return unit === wanted.length;
}

/** The rows that hold the first letters of a word, so many of them. */
interface Begun extends Found {
  readonly length: number;
}

/** A shorter word has more rows, but where it stands best in each is known: looking there costs less than looking through. */
const moreRows = 2;

/** Looks for a word of two or more letters: in the rows that hold its beginning, or its rarest pair. */
function lookUp(index: SearchIndex, letters: Letters, word: string, begun: Begun | undefined): Found {
  const { offsets } = index;
  const { codes } = letters;
  const rarest = rowsOfRarest(letters, word);
  const from = begun && begun.rows.length <= moreRows * rarest.length ? begun : undefined;
  const candidates = from?.rows ?? rarest;
  const wanted = Uint16Array.from({ length: word.length }, (_, unit) => word.charCodeAt(unit));
  const { rows, ranks } = makeRoom(candidates.length);
  let count = 0;
  for (let at = 0; at < candidates.length; at++) {
    const row = candidates[at]!;
    const place = from && !isBesideRank(from.ranks[at]!) ? placeOfRank(from.ranks[at]!) : undefined;
    // Where the beginning stands best the whole word does, too, if it stands there.
    const stands = place !== undefined && goesOn(codes, offsets[row]! + place, wanted, from!.length);
    const rank = stands ? from!.ranks[at] : bestIn(index, codes, row, wanted);
    if (rank === undefined) continue;
    rows[count] = row;
    ranks[count++] = rank;
  }
  return copied({ rows, ranks }, count);
}

/** The words that were looked for last in an index: while the next word is typed, those before it are asked for again and again. */
const lately = new WeakMap<SearchIndex, Map<string, Found>>();
const mostLately = 6;

/** What is known of the beginning of a word: all but its last letter was typed before, or its first two were found beforehand. */
function begunWith(letters: Letters, known: ReadonlyMap<string, Found>, word: string): Begun | undefined {
  const [typed, pair] = [known.get(word.slice(0, -1)), foundBefore(letters, word.slice(0, 2))];
  if (typed) return { ...typed, length: word.length - 1 };
  return pair && { ...pair, length: 2 };
}

function lookFor(index: SearchIndex, word: string, known: ReadonlyMap<string, Found>): Found {
  const { letters } = index;
  if (!letters) return lookThrough(index, word);
  const before = foundBefore(letters, word);
  if (before) return before;
  return word.length > 1 ? lookUp(index, letters, word, begunWith(letters, known, word)) : lookThrough(index, word);
}

function rowsWith(index: SearchIndex, word: string): Found {
  const known = lately.get(index) ?? new Map<string, Found>();
  lately.set(index, known);
  const found = known.get(word) ?? lookFor(index, word, known);
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

/** Keeps the rows of the best ranks it is given, in order; rows come in order, so that of two with one rank the first stays before. */
class Best {
  private readonly rows: number[] = [];
  private readonly ranks: number[] = [];
  private worst = Infinity;
  constructor(private readonly most: number) {}
  offer(rank: number, row: number): void {
    if (rank >= this.worst) return;
    const { rows, ranks, most } = this;
    let at = ranks.length === most ? most - 1 : ranks.length;
    for (; at > 0 && ranks[at - 1]! > rank; at--) {
      ranks[at] = ranks[at - 1]!;
      rows[at] = rows[at - 1]!;
    }
    ranks[at] = rank;
    rows[at] = row;
    if (ranks.length === most) this.worst = ranks[most - 1]!;
  }
  inOrder(): readonly number[] {
    return this.rows;
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
  const best = limit <= keptInOrder ? new Best(limit) : undefined;
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
    if (best) best.offer(sum, row);
    else all.push(sum * orders + row);
  }
  if (best) return { rows: best.inOrder(), total };
  const sorted = all.sort((a, b) => a - b).slice(0, limit);
  return { rows: sorted.map((number) => number % orders), total };
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
