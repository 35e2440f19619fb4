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

/** Whether two items of one key are the same, wherever they come from. */
const same = (a: Item, b: Item): boolean =>
  members.every((member) => a[member] === b[member]) && sameTexts(a.otherNames, b.otherNames) && sameCompanions(a.companions, b.companions);

const placesOf = (items: readonly Item[]): ReadonlyMap<string, number> => new Map(items.map((item, place) => [itemKey(item), place]));

/** The changes that make the items after of the items before; undefined where there are more than `most`. */
export function itemChanges(before: readonly Item[], after: readonly Item[], most: number): ItemChanges | undefined {
  const [placesBefore, placesAfter] = [placesOf(before), placesOf(after)];
  const removed: number[] = [];
  const put: (readonly [number, Item])[] = [];
  let [from, to] = [0, 0];
  while (from < before.length || to < after.length) {
    const [was, is] = [before[from], after[to]];
    // How far ahead the one stands now, and how far ahead the other stood: less than 0 for what is gone or new, or was moved already.
    const ahead = was ? (placesAfter.get(itemKey(was)) ?? -1) - to : -1;
    const behind = is ? (placesBefore.get(itemKey(is)) ?? -1) - from : -1;
    if (was && is && ahead === 0 && same(was, is)) {
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
