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

/** A text without case and accents, and for each of its code units the place in the original; undefined where all are the same. */
interface Folded {
  readonly text: string;
  readonly origin: readonly number[] | undefined;
}

const accents = /\p{M}/gu;
const ascii = /^[ -~]*$/u;

function fold(text: string): Folded {
  if (ascii.test(text)) return { text: text.toLowerCase(), origin: undefined };
  let folded = '';
  const origin: number[] = [];
  let at = 0;
  for (const codePoint of text) {
    const plain = foldCase(codePoint.normalize('NFKD')).replace(accents, '');
    folded += plain;
    for (let unit = 0; unit < plain.length; unit++) origin.push(at);
    at += codePoint.length;
  }
  origin.push(at);
  return { text: folded, origin };
}

/** A text that is searched: the label of an item, or one of its other names. */
interface Row extends Folded {
  /** The place of the item in the catalog. */
  readonly order: number;
  /** The other name it is; undefined for the label. */
  readonly name: string | undefined;
}

/**
 * All texts of a catalog end to end, labels first. One search through a long text is many times faster than one search
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

const wordStart = /(?<![\p{L}\p{N}])[\p{L}\p{N}]/gu;

/** Prepares the items that a catalog offers on a day (any day when it is left out) for searching; done once a version. */
export function searchIndex({ items: all }: Pick<Catalog, 'items'>, day?: string): SearchIndex {
  const items = all.filter((item) => isOffered(item, day));
  const labels = items.map((item, order): Row => ({ ...fold(item.label), order, name: undefined }));
  const names = items.flatMap((item, order) => item.otherNames.map((name): Row => ({ ...fold(name), order, name })));
  const rows = [...labels, ...names];
  const offsets = new Int32Array(rows.length + 1);
  rows.forEach((row, at) => {
    offsets[at + 1] = offsets[at]! + row.text.length + 1;
  });
  const text = rows.map((row) => row.text).join('\n');
  const starts = new Uint8Array(text.length + 1);
  for (const { index } of text.matchAll(wordStart)) starts[index] = 1;
  return { items, rows, text, offsets, starts };
}

/** Words found inside other words count this much more than any place. */
const innerWeight = 2 ** 14;
/** Words found in another name only come after all that are found in the label. */
const nameWeight = 2 ** 20;
/** Rows are told apart by their order below this. */
const orders = 2 ** 21;

interface Found {
  readonly at: number;
  readonly isStart: boolean;
}

/** The best place of a word in a row: the first start of a word, else the first place at all. Places count within the row. */
function placeIn({ offsets, starts, rows }: SearchIndex, row: number, word: string): Found | undefined {
  const own = rows[row]!.text;
  const first = own.indexOf(word);
  if (first < 0) return undefined;
  for (let at = first; at >= 0; at = own.indexOf(word, at + 1)) if (starts[offsets[row]! + at] === 1) return { at, isStart: true };
  return { at: first, isStart: false };
}

const rankOf = ({ at, isStart }: Found): number => Math.min(at, innerWeight - 1) + (isStart ? 0 : innerWeight);

/** Hands every row that holds the word to `meet`, with how well it stands there. Walks through the text once. */
function eachRowWith({ text, offsets, starts }: SearchIndex, word: string, meet: (row: number, rank: number) => void): void {
  let row = 0;
  let at = text.indexOf(word);
  while (at >= 0) {
    while (offsets[row + 1]! <= at) row++;
    const begin = offsets[row]!;
    const end = offsets[row + 1]!;
    let rank = Math.min(at - begin, innerWeight - 1);
    if (starts[at] !== 1) {
      rank += innerWeight;
      for (let next = text.indexOf(word, at + 1); next >= 0 && next < end; next = text.indexOf(word, next + 1)) {
        if (starts[next] !== 1) continue;
        rank = Math.min(next - begin, innerWeight - 1);
        break;
      }
    }
    meet(row, rank);
    at = text.indexOf(word, end);
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
  const { order, name, origin } = index.rows[row]!;
  const item = index.items[order]!;
  if (name !== undefined) return { item, spans: [], otherName: name };
  const spans = words.flatMap((word) => {
    const found = placeIn(index, row, word);
    if (!found) return [];
    const end = found.at + word.length;
    return [origin ? { start: origin[found.at]!, end: origin[end]! } : { start: found.at, end }];
  });
  return { item, spans: spans.sort((a, b) => a.start - b.start) };
}

/**
 * The items whose label or other names hold every word of the query, starts of words first, then by place, then in
 * catalog order. An empty query gives all items in catalog order. At most `limit` matches; `total` counts all. `starts`:
 * only words that stand at the start of a word count.
 */
export function search(index: SearchIndex, query: string, limit: number, where: 'anywhere' | 'starts' = 'anywhere'): Matches {
  const words = fold(clean(query)).text.split(' ').filter((word) => word !== '');
  const { items, rows } = index;
  if (words.length === 0) return { matches: items.slice(0, limit).map((item) => ({ item, spans: [] })), total: items.length };
  // The longest word is the rarest, as a rule; only the rows that hold it are looked at for the others.
  const [rarest, ...others] = [...words].sort((a, b) => b.length - a.length);
  const best = new Smallest(limit);
  const seen = new Uint8Array(items.length);
  let total = 0;
  eachRowWith(index, rarest!, (row, rank) => {
    const { order, name } = rows[row]!;
    if (seen[order] === 1 || (where === 'starts' && rank >= innerWeight)) return;
    let sum = rank + (name === undefined ? 0 : nameWeight);
    for (const word of others) {
      const found = placeIn(index, row, word);
      if (!found || (where === 'starts' && !found.isStart)) return;
      sum += rankOf(found);
    }
    seen[order] = 1;
    total++;
    best.offer(sum * orders + row);
  });
  return { matches: best.numbers().map((number) => matchOf(index, number % orders, words)), total };
}
