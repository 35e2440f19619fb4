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

/** A text without case and accents, and for each of its code units the place in the original. */
interface Folded {
  readonly text: string;
  readonly origin: readonly number[];
}

const accents = /\p{M}/gu;

function fold(text: string): Folded {
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

interface Searchable {
  readonly item: Item;
  readonly label: Folded;
  readonly names: readonly { readonly name: string; readonly folded: Folded }[];
}
export type SearchIndex = readonly Searchable[];

/** Prepares the items that a catalog offers on a day (any day when it is left out) for searching; done once a version. */
export function searchIndex(catalog: Catalog, day?: string): SearchIndex {
  return catalog.items
    .filter((item) => isOffered(item, day))
    .map((item) => ({ item, label: fold(item.label), names: item.otherNames.map((name) => ({ name, folded: fold(name) })) }));
}

const startsWord = (text: string, at: number) => at === 0 || !/[\p{L}\p{N}]/u.test(text[at - 1]!);

/** The best place of a word: the first start of a word, else the first place at all. */
function placeOf(word: string, text: string): { at: number; start: boolean } | undefined {
  const first = text.indexOf(word);
  if (first < 0) return undefined;
  for (let at = first; at >= 0; at = text.indexOf(word, at + 1)) if (startsWord(text, at)) return { at, start: true };
  return { at: first, start: false };
}

interface Found {
  /** Words found inside other words rank after words found at starts. */
  readonly inner: number;
  readonly place: number;
  readonly spans: readonly Span[];
}

function findWords(words: readonly string[], folded: Folded): Found | undefined {
  let inner = 0;
  let place = 0;
  const spans: Span[] = [];
  for (const word of words) {
    const found = placeOf(word, folded.text);
    if (!found) return undefined;
    if (!found.start) inner++;
    place += found.at;
    spans.push({ start: folded.origin[found.at]!, end: folded.origin[found.at + word.length]! });
  }
  return { inner, place, spans: spans.sort((a, b) => a.start - b.start) };
}

interface Ranked {
  readonly match: Match;
  readonly rank: readonly [number, number, number];
}

function rankItem(words: readonly string[], { item, label, names }: Searchable): Ranked | undefined {
  const inLabel = findWords(words, label);
  if (inLabel) return { match: { item, spans: inLabel.spans }, rank: [0, inLabel.inner, inLabel.place] };
  for (const { name, folded } of names) {
    const inName = findWords(words, folded);
    if (inName) return { match: { item, spans: [], otherName: name }, rank: [1, inName.inner, inName.place] };
  }
  return undefined;
}

/**
 * The items whose label or other names hold every word of the query, starts of words first, then by place, then in
 * catalog order. An empty query gives all items in catalog order. At most `limit` matches; `total` counts all.
 */
export function search(index: SearchIndex, query: string, limit: number): Matches {
  const words = fold(clean(query)).text.split(' ').filter((word) => word !== '');
  if (words.length === 0) return { matches: index.slice(0, limit).map(({ item }) => ({ item, spans: [] })), total: index.length };
  const ranked: Ranked[] = [];
  for (const searchable of index) {
    const found = rankItem(words, searchable);
    if (found) ranked.push(found);
  }
  ranked.sort((a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.rank[2] - b.rank[2]);
  return { matches: ranked.slice(0, limit).map(({ match }) => match), total: ranked.length };
}
