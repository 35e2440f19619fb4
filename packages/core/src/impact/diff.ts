// What changes in a catalog between two states of its sources.
import { looseKey, slips, slipsAllowed } from '../text/index.js';
import { itemKey, itemsAtLevel, type Item } from '../catalogs/index.js';

/** A value that became another one in the same source cell, or a very like one elsewhere. */
export interface Edited {
  readonly from: string;
  readonly to: string;
  /** The level on which it stands, counted from 0; the deepest where it is left out. */
  readonly level?: number;
  /** True when `to` was in the catalog already: the two become one. */
  readonly merges: boolean;
}
export interface CatalogDiff {
  readonly added: readonly string[];
  readonly removed: readonly string[];
  readonly edited: readonly Edited[];
  /** Values that were retired and are offered again. */
  readonly restored: readonly string[];
  /** True when the offered values that stay come in another order. */
  readonly moved: boolean;
}

/** The cells in which each item stands, by its key: those of its own rows, and of all rows below it. */
function cellsIn(items: readonly Item[]): (item: Item) => readonly string[] {
  const cells = new Map<string, string[]>();
  for (const item of items) {
    const own = item.from.flatMap(({ rows }) => rows.map(({ register, entry }) => `${register} ${entry}`));
    const tuple = [...item.path, item.value];
    tuple.forEach((value, depth) => {
      const key = itemKey({ path: tuple.slice(0, depth), value });
      const known = cells.get(key);
      const at = own.map((cell) => `${cell} ${depth}`);
      if (known) known.push(...at);
      else cells.set(key, at);
    });
  }
  return (item) => cells.get(itemKey(item)) ?? [];
}
const offeredOf = (items: readonly Item[]) => items.filter((item) => item.state === 'offered');

function alike(a: string, b: string): boolean {
  const left = looseKey(a);
  const right = looseKey(b);
  if (left === '' || right === '') return false;
  const most = slipsAllowed(Math.min(left.length, right.length));
  return slips(left, right, most) <= most;
}

function reordered(before: readonly Item[], after: readonly Item[]): boolean {
  const stays = new Set(after.map((item) => item.value));
  const was = new Set(before.map((item) => item.value));
  const left = before.filter((item) => stays.has(item.value));
  const right = after.filter((item) => was.has(item.value));
  return left.some((item, at) => item.value !== right[at]!.value);
}

/**
 * What changes on one level of a catalog (counted from 0; the deepest where it is left out), given with all its levels.
 * Matches by value first; pairs what is left by source cell, then by likeness; the rest was added or removed.
 * Only offered values count; re-sorting changes no value.
 */
export function diffCatalogs(allBefore: readonly Item[], allAfter: readonly Item[], level?: number): CatalogDiff {
  const [beforeItems, afterItems] = [itemsAtLevel(allBefore, level), itemsAtLevel(allAfter, level)];
  const at = level === undefined ? {} : { level };
  const before = offeredOf(beforeItems);
  const after = offeredOf(afterItems);
  const wasOffered = new Set(before.map((item) => item.value));
  const isOffered = new Set(after.map((item) => item.value));
  const wasRetired = new Set(beforeItems.filter((item) => item.state === 'retired').map((item) => item.value));

  const fresh = new Set(after.filter((item) => !wasOffered.has(item.value)).map((item) => item.value));
  const edited: Edited[] = [];
  const removed: string[] = [];
  const unpaired: Item[] = [];
  const lost = before.filter(({ value }) => !isOffered.has(value));
  const [cellsBefore, cellsAfter] = lost.length === 0 ? [() => [], () => []] : [cellsIn(allBefore), cellsIn(allAfter)];
  const valueByCell = new Map(
    lost.length === 0 ? [] : after.flatMap((item) => cellsAfter(item).map((cell) => [cell, item.value] as const)),
  );
  for (const item of lost) {
    const to = cellsBefore(item)
      .map((cell) => valueByCell.get(cell))
      .find((value) => value !== undefined);
    if (to === undefined) unpaired.push(item);
    else {
      edited.push({ from: item.value, to, ...at, merges: wasOffered.has(to) || !fresh.has(to) });
      fresh.delete(to);
    }
  }
  for (const { value } of unpaired) {
    const to = [...fresh].find((candidate) => alike(value, candidate));
    if (to === undefined) removed.push(value);
    else {
      edited.push({ from: value, to, ...at, merges: false });
      fresh.delete(to);
    }
  }
  const restored = [...isOffered].filter((value) => wasRetired.has(value));
  const added = [...fresh].filter((value) => !wasRetired.has(value));
  return { added, removed, edited, restored, moved: reordered(before, after) };
}

/**
 * The diff of a level as somebody who knows means it: a value that only went becomes the one that is named for it. What the diff
 * does not hold is left aside.
 */
export function meant(
  diff: CatalogDiff,
  meanings: readonly { readonly from: string; readonly to: string }[],
  after: readonly Item[],
  level?: number,
): CatalogDiff {
  let { added, removed, edited } = diff;
  const is = new Set(offeredOf(itemsAtLevel(after, level)).map(({ value }) => value));
  for (const { from, to } of meanings) {
    if (!is.has(to) || from === to) continue;
    const known = edited.find((edit) => edit.from === from);
    if (!known && !removed.includes(from)) continue;
    const merges = !added.includes(to);
    removed = removed.filter((value) => value !== from);
    added = added.filter((value) => value !== to);
    // What the value was paired with by cell or likeness is then simply new.
    if (known && known.to !== to && !known.merges) added = [...added, known.to];
    edited = [...edited.filter((edit) => edit.from !== from), { from, to, ...(level !== undefined && { level }), merges }];
  }
  return { ...diff, added, removed, edited };
}

/** What an edit most likely means: another number is another value, a slip in a text is a correction. */
export function proposedAnswer({ from, to, merges }: Edited): 'corrected' | 'replaced' | undefined {
  if (/^[\d.,\s%+/-]+$/u.test(to)) return 'replaced';
  const digits = (text: string) => text.replace(/\D/gu, '');
  if (digits(from) !== digits(to)) return undefined;
  if (merges || alike(from, to)) return 'corrected';
  return undefined;
}
