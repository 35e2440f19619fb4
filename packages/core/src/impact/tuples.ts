// Items as tuples: a value under its parents. What becomes of tuples whose value, or one of whose parents, changes.
import { itemKey, levelsOf, type Item } from '../catalogs/index.js';
import type { Correction } from './impact.js';

/** An item that no longer stands under its parents, while its value goes on under others. */
export interface Displaced {
  readonly value: string;
  readonly path: readonly string[];
  /** The parents under which the value stands now, the first place first. */
  readonly under: readonly string[];
}

/** The offered items that left their parents, their value being offered elsewhere on the same level. */
export function displaced(before: readonly Item[], after: readonly Item[]): Displaced[] {
  const is = new Set(after.map(itemKey));
  const places = new Map<string, readonly string[]>();
  for (const { value, path, state } of after) {
    const key = `${path.length} ${value}`;
    if (path.length > 0 && state === 'offered' && !places.has(key)) places.set(key, path);
  }
  return before.flatMap((item) => {
    if (item.path.length === 0 || item.state !== 'offered' || is.has(itemKey(item))) return [];
    const under = places.get(`${item.path.length} ${item.value}`);
    return under ? [{ value: item.value, path: item.path, under }] : [];
  });
}

/** A key of an item that goes on under another key. */
export interface Rekeyed {
  readonly from: string;
  readonly to: Pick<Item, 'value' | 'path'>;
}

/** How a value on a level (counted from 0) is spelled after corrections. */
function spelling(before: readonly Item[], corrected: readonly Correction[]): (text: string, level: number) => string {
  const deepest = levelsOf(before) - 1;
  const now = new Map(corrected.map(({ from, to, level = deepest }) => [`${level} ${from}`, to]));
  return (text, level) => now.get(`${level} ${text}`) ?? text;
}

/** The items that go on under another key because their value or a parent of theirs was edited. */
export function rekeyed(before: readonly Item[], after: readonly Item[], edits: readonly Correction[]): Rekeyed[] {
  if (edits.length === 0) return [];
  const spelled = spelling(before, edits);
  const [was, is] = [new Set(before.map(itemKey)), new Set(after.map(itemKey))];
  return before.flatMap((item) => {
    if (is.has(itemKey(item))) return [];
    // What was edited on one level and left as it was on another: each place alone, then all together.
    const ways = [
      ...item.path.map((_, at) => ({
        value: item.value,
        path: item.path.map((parent, depth) => (depth === at ? spelled(parent, depth) : parent)),
      })),
      { value: spelled(item.value, item.path.length), path: item.path },
      { value: spelled(item.value, item.path.length), path: item.path.map(spelled) },
    ];
    const to = ways.find((way) => itemKey(way) !== itemKey(item) && is.has(itemKey(way)) && !was.has(itemKey(way)));
    return to ? [{ from: itemKey(item), to }] : [];
  });
}

/** The retired items that entries which follow a correction hold from then on: a parent or the value itself is written otherwise. */
export function retiredAlong(before: readonly Item[], after: readonly Item[], corrected: readonly Correction[]): Rekeyed[] {
  if (corrected.length === 0) return [];
  const spelled = spelling(before, corrected);
  const is = new Set(after.map(itemKey));
  return before.flatMap((item) => {
    const to = { value: spelled(item.value, item.path.length), path: item.path.map(spelled) };
    return item.state === 'retired' && item.from.length === 0 && itemKey(to) !== itemKey(item) && !is.has(itemKey(to))
      ? [{ from: itemKey(item), to }]
      : [];
  });
}

const sameMembers = (a: Readonly<Record<string, string>> = {}, b: Readonly<Record<string, string>> = {}): boolean =>
  Object.keys(a).length === Object.keys(b).length && Object.entries(a).every(([key, text]) => b[key] === text);

/** Whether something that stood before may not stand after: a tuple that went, other days of validity, other companions. */
export function losesStanding(before: readonly Item[], after: readonly Item[]): boolean {
  const is = new Map(after.map((item) => [itemKey(item), item]));
  return before.some((item) => {
    const now = is.get(itemKey(item));
    return (
      !now ||
      now.validFrom !== item.validFrom ||
      now.validUntil !== item.validUntil ||
      (now.companions !== item.companions && !sameMembers(now.companions, item.companions))
    );
  });
}
