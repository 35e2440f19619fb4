// What changes in a catalog between two states of its sources.
import { looseKey, slips, slipsAllowed } from '../text/index.js';
import type { Item } from '../catalogs/index.js';

/** A value that became another one in the same source cell, or a very like one elsewhere. */
export interface Edited {
  readonly from: string;
  readonly to: string;
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

const cellsOf = (item: Item): string[] => item.from.flatMap(({ rows }) => rows.map(({ register, entry }) => `${register} ${entry} ${item.path.length}`));
const offeredOf = (items: readonly Item[]) => items.filter((item) => item.state === 'offered');

/** The value that now stands in a cell which the item held before. */
function byCell(item: Item, valueByCell: ReadonlyMap<string, string>): string | undefined {
  return cellsOf(item).map((cell) => valueByCell.get(cell)).find((value) => value !== undefined);
}

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
 * Matches by value first; pairs what is left by source cell, then by likeness; the rest was added or removed.
 * Only offered values count; re-sorting changes no value.
 */
export function diffCatalogs(beforeItems: readonly Item[], afterItems: readonly Item[]): CatalogDiff {
  const before = offeredOf(beforeItems);
  const after = offeredOf(afterItems);
  const wasOffered = new Set(before.map((item) => item.value));
  const isOffered = new Set(after.map((item) => item.value));
  const wasRetired = new Set(beforeItems.filter((item) => item.state === 'retired').map((item) => item.value));
  const valueByCell = new Map(after.flatMap((item) => cellsOf(item).map((cell) => [cell, item.value] as const)));

  const fresh = new Set(after.filter((item) => !wasOffered.has(item.value)).map((item) => item.value));
  const edited: Edited[] = [];
  const removed: string[] = [];
  const unpaired: Item[] = [];
  for (const item of before.filter(({ value }) => !isOffered.has(value))) {
    const to = byCell(item, valueByCell);
    if (to === undefined) unpaired.push(item);
    else {
      edited.push({ from: item.value, to, merges: wasOffered.has(to) || !fresh.has(to) });
      fresh.delete(to);
    }
  }
  for (const { value } of unpaired) {
    const to = [...fresh].find((candidate) => alike(value, candidate));
    if (to === undefined) removed.push(value);
    else {
      edited.push({ from: value, to, merges: false });
      fresh.delete(to);
    }
  }
  const restored = [...isOffered].filter((value) => wasRetired.has(value));
  const added = [...fresh].filter((value) => !wasRetired.has(value));
  return { added, removed, edited, restored, moved: reordered(before, after) };
}

/**
 * The diff as somebody who knows means it: a value that only went becomes the one that is named for it. What the diff
 * does not hold is left aside.
 */
export function meant(diff: CatalogDiff, meanings: readonly { readonly from: string; readonly to: string }[], after: readonly Item[]): CatalogDiff {
  let { added, removed, edited } = diff;
  const is = new Set(offeredOf(after).map(({ value }) => value));
  for (const { from, to } of meanings) {
    if (!is.has(to) || from === to) continue;
    const known = edited.find((edit) => edit.from === from);
    if (!known && !removed.includes(from)) continue;
    const merges = !added.includes(to);
    removed = removed.filter((value) => value !== from);
    added = added.filter((value) => value !== to);
    // What the value was paired with by cell or likeness is then simply new.
    if (known && known.to !== to && !known.merges) added = [...added, known.to];
    edited = [...edited.filter((edit) => edit.from !== from), { from, to, merges }];
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
