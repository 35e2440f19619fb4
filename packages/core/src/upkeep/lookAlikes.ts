// Look-alikes: groups of spellings of one thing. Near-linear: values are brought together by shared keys and by what is
// left of a key without one letter (symmetric deletion, W. Garbe 2012), never by comparing all pairs.
import { grouped } from '../group.js';
import { digitsOf, looseKey, slips } from '../text/index.js';

export interface Spelling {
  readonly value: string;
  /** How many entries hold it. */
  readonly entries: number;
}
/** The likely right spelling first: the one most entries hold, else the one that was kept first. */
export type LookAlike = readonly Spelling[];

/** Keys shorter than this are only alike when they are equal. */
const shortest = 4;
/** So many values that share a letter group are compared with each other; more share it by chance. */
const mostTogether = 48;

class Groups {
  private readonly parent: Int32Array;
  constructor(size: number) {
    this.parent = Int32Array.from({ length: size }, (_, at) => at);
  }
  find(at: number): number {
    let root = at;
    while (this.parent[root] !== root) root = this.parent[root]!;
    for (let above = this.parent[at]!; above !== root; above = this.parent[at]!) {
      this.parent[at] = root;
      at = above;
    }
    return root;
  }
  join(a: number, b: number): void {
    const [left, right] = [this.find(a), this.find(b)];
    if (left !== right) this.parent[Math.max(left, right)] = Math.min(left, right);
  }
}

/** FNV-1a (public domain), of a key without the code unit at `left` (−1: the whole key). */
function hashWithout(key: string, left: number): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < key.length; at++) {
    if (at !== left) hash = Math.imul(hash ^ key.charCodeAt(at), 0x01000193);
  }
  return hash >>> 0;
}

/** A word of fewer values may always be a slip of another. */
const oftenUsed = 3;
/** A word that is so many times rarer than one that is nearly the same is a slip of it, made again and again. */
const timesRarer = 6;

/** How many values use each word, and how many entries hold them (each value counts as one at least). */
export type WordUse = ReadonlyMap<string, { readonly values: number; readonly entries: number }>;

function usedWords(values: readonly Spelling[], looseKeys: readonly string[]): WordUse {
  const use = new Map<string, { values: number; entries: number }>();
  looseKeys.forEach((key, at) => {
    const entries = Math.max(1, values[at]!.entries);
    for (const word of new Set(key.split(' '))) {
      const known = use.get(word);
      if (known) {
        known.values++;
        known.entries += entries;
      } else use.set(word, { values: 1, entries });
    }
  });
  return use;
}

export const wordUse = (values: readonly Spelling[]): WordUse =>
  usedWords(
    values,
    values.map(({ value }) => looseKey(value)),
  );

/** True when two keys differ in one word, and both words are the house's own: "seed" and "feed" are two things. */
function twoWords(a: string, b: string, use: WordUse): boolean {
  const [left, right] = [a.split(' '), b.split(' ')];
  if (left.length !== right.length) return false;
  const differing = left.flatMap((word, at) => (word === right[at] ? [] : [[word, right[at]!] as const]));
  if (differing.length !== 1) return false;
  const [one, other] = differing[0]!.map((word) => use.get(word) ?? { values: 0, entries: 0 });
  if (Math.min(one!.values, other!.values) < oftenUsed) return false;
  return Math.min(one!.entries, other!.entries) * timesRarer > Math.max(one!.entries, other!.entries);
}

const zero = '0'.charCodeAt(0);
const isDigit = (unit: number) => unit >= zero && unit <= zero + 9;

/**
 * Keys that may be one slip apart lie side by side: each pair is handed to `meet` at least once. Digits are never left
 * out, so that keys with other numbers never meet, however alike they are.
 */
function bringTogether(keys: readonly string[], meet: (a: number, b: number) => void): void {
  const size = keys.reduce((sum, key) => sum + (key.length < shortest ? 0 : key.length + 1), 0);
  // Hash and place share one double: 32 bits and up to 21 bits stay exact.
  const marks = new Float64Array(size);
  let filled = 0;
  keys.forEach((key, place) => {
    if (key.length < shortest) return;
    for (let left = -1; left < key.length; left++)
      if (left < 0 || !isDigit(key.charCodeAt(left))) marks[filled++] = hashWithout(key, left) * 0x200000 + place;
  });
  const sorted = marks.subarray(0, filled).sort();
  const hashAt = (at: number) => Math.floor(sorted[at]! / 0x200000);
  const placeAt = (at: number) => sorted[at]! % 0x200000;
  for (let from = 0; from < filled;) {
    let to = from + 1;
    while (to < filled && hashAt(to) === hashAt(from)) to++;
    for (let a = from; a < to; a++) {
      for (let b = a + 1; b < Math.min(to, a + mostTogether); b++) if (placeAt(a) !== placeAt(b)) meet(placeAt(a), placeAt(b));
    }
    from = to;
  }
}

/**
 * Groups of values that differ by case, blanks, accents, punctuation or one slip of the finger. Numbers are never slips:
 * "Berth 2" and "Berth 3" are two things. At most 2,097,152 values. `among` says how often each word stands where these
 * values are only a part of the whole.
 */
export function lookAlikes(values: readonly Spelling[], among?: WordUse): LookAlike[] {
  const byKey = new Map<string, number[]>();
  const looseKeys = values.map(({ value }) => looseKey(value));
  const use = among ?? usedWords(values, looseKeys);
  values.forEach(({ value }, at) => {
    const loose = looseKeys[at]!;
    const key = loose.replaceAll(' ', '') || value;
    const known = byKey.get(key);
    if (known) known.push(at);
    else byKey.set(key, [at]);
  });
  const keys = [...byKey.keys()];
  const isSlip = (a: number, b: number): boolean => {
    const [left, right] = [keys[a]!, keys[b]!];
    if (Math.abs(left.length - right.length) > 1 || slips(left, right, 1) > 1 || digitsOf(left) !== digitsOf(right)) return false;
    const loose = (key: string) => looseKeys[byKey.get(key)![0]!]!;
    return !twoWords(loose(left), loose(right), use);
  };
  const groups = new Groups(keys.length);
  bringTogether(keys, (a, b) => {
    if (isSlip(a, b)) groups.join(a, b);
  });
  const entries = keys.map((key) => byKey.get(key)!.reduce((sum, at) => sum + values[at]!.entries, 0));
  const together = grouped(keys.keys(), (at) => groups.find(at));
  return [...together.values()]
    .flatMap((group) => (group.length > 2 ? parted(group, entries, isSlip) : [group]))
    .map((group) => group.flatMap((at) => byKey.get(keys[at]!)!))
    .filter((group) => group.length > 1)
    .map((group) => group.sort((a, b) => values[b]!.entries - values[a]!.entries || a - b).map((at) => values[at]!));
}

/**
 * A slip of one value can be one letter from a slip of another: two values that are often used are not one for that. The keys of a group,
 * each with the one that is used most of those that it is a slip of, or with a rare one's.
 */
function parted(group: readonly number[], entries: readonly number[], isSlip: (a: number, b: number) => boolean): number[][] {
  const parts: number[][] = [];
  for (const at of [...group].sort((a, b) => entries[b]! - entries[a]! || a - b)) {
    const own =
      parts.find(([first]) => isSlip(first!, at)) ??
      parts.find((part) => entries[at]! * timesRarer <= entries[part[0]!]! && part.some((other) => isSlip(other, at)));
    if (own) own.push(at);
    else parts.push([at]);
  }
  return parts;
}
