// What has changed from one state of a catalog's items to the next: few where little has, so that nobody fetches the whole for one value.
import { itemKey, type Item } from './models.js';

export interface ItemChanges {
  /** Places among the items before, in order, that are gone or hold something else now. */
  readonly removed: readonly number[];
  /** Places among the items after, in order, and what stands there. Where it comes from is not told. */
  readonly put: readonly (readonly [place: number, item: Item])[];
}

const sameTexts = (a: readonly string[], b: readonly string[]): boolean => a.length === b.length && a.every((text, at) => text === b[at]);

function sameCompanions(a: Item['companions'] = {}, b: Item['companions'] = {}): boolean {
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => a[key] === b[key]);
}

const members = ['label', 'note', 'colour', 'validFrom', 'validUntil', 'state'] as const satisfies readonly (keyof Item)[];

/** Whether two items are the same, wherever they come from. */
export const sameItem = (a: Item, b: Item): boolean =>
  a.value === b.value &&
  sameTexts(a.path, b.path) &&
  members.every((member) => a[member] === b[member]) &&
  sameTexts(a.otherNames, b.otherNames) &&
  sameCompanions(a.companions, b.companions);

/** So many items at the beginning are what they were: nearly all, where one is added at the end. */
export function sameBegin(before: readonly Item[], after: readonly Item[]): number {
  const most = Math.min(before.length, after.length);
  let count = 0;
  while (count < most && sameItem(before[count]!, after[count]!)) count++;
  return count;
}

/** The places of items by their key, from one place on. */
function placesOf(items: readonly Item[], from: number): ReadonlyMap<string, number> {
  const places = new Map<string, number>();
  for (let place = from; place < items.length; place++) places.set(itemKey(items[place]!), place);
  return places;
}

/** The changes that make the items after of the items before; undefined where there are more than `most`. */
export function itemChanges(before: readonly Item[], after: readonly Item[], most: number): ItemChanges | undefined {
  const begin = sameBegin(before, after);
  const [placesBefore, placesAfter] = [placesOf(before, begin), placesOf(after, begin)];
  const removed: number[] = [];
  const put: (readonly [number, Item])[] = [];
  let [from, to] = [begin, begin];
  while (from < before.length || to < after.length) {
    const [was, is] = [before[from], after[to]];
    // How far ahead the one stands now, and how far ahead the other stood: less than 0 for what is gone or new, or was moved already.
    const ahead = was ? (placesAfter.get(itemKey(was)) ?? -1) - to : -1;
    const behind = is ? (placesBefore.get(itemKey(is)) ?? -1) - from : -1;
    if (was && is && ahead === 0 && sameItem(was, is)) {
      from++;
      to++;
    } else if (was && (ahead <= 0 || (behind >= 0 && ahead >= behind))) {
      removed.push(from++);
    } else {
      put.push([to, { ...is!, from: [] }]);
      to++;
    }
    if (removed.length + put.length > most) return undefined;
  }
  return { removed, put };
}

/** The items after some changes. */
export function withItemChanges(before: readonly Item[], { removed, put }: ItemChanges): Item[] {
  const after: Item[] = [];
  let [gone, next] = [0, 0];
  const take = () => {
    for (; next < put.length && put[next]![0] === after.length; next++) after.push(put[next]![1]);
  };
  take();
  before.forEach((item, place) => {
    if (removed[gone] === place) gone++;
    else {
      after.push(item);
      take();
    }
  });
  take();
  return after;
}
