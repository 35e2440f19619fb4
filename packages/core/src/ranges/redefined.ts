// What redefining a range changes in what it takes: what comes in, what goes out, what is the same under another spelling.
import { looseKey } from '../text/index.js';
import type { RangeTaking, RangeValue } from './models.js';

export interface Redefined {
  /** How many values it takes afterwards. */
  readonly takes: number;
  readonly comesIn: readonly string[];
  readonly goesOut: readonly string[];
  /** A value that goes and one that comes, alike but for case, blanks, accents or punctuation. */
  readonly respelled: readonly { readonly from: string; readonly to: string }[];
}

const keyOf = ({ path, value }: RangeValue): string => [...path, value].join('\u001F');
/** Parents count as they are; the value by its loose key. An empty loose key pairs with nothing. */
const looseKeyOf = ({ path, value }: RangeValue): string | undefined =>
  looseKey(value) === '' ? undefined : [...path, looseKey(value)].join('\u001F');
const shown = ({ path, value }: RangeValue): string => [...path, value].join(' › ');

/** Compares two takings of one range. Linear in the number of values. */
export function redefined(before: RangeTaking, after: RangeTaking): Redefined {
  const was = new Set(before.values.map(keyOf));
  const is = new Set(after.values.map(keyOf));
  const fresh = after.values.filter((value) => !was.has(keyOf(value)));
  const freshByKey = new Map(fresh.flatMap((value) => (looseKeyOf(value) === undefined ? [] : [[looseKeyOf(value)!, value] as const])));
  const respelled: { from: string; to: string }[] = [];
  const goesOut: string[] = [];
  const paired = new Set<RangeValue>();
  for (const value of before.values) {
    if (is.has(keyOf(value))) continue;
    const key = looseKeyOf(value);
    const to = key === undefined ? undefined : freshByKey.get(key);
    if (to && !paired.has(to)) {
      paired.add(to);
      respelled.push({ from: shown(value), to: shown(to) });
    } else goesOut.push(shown(value));
  }
  return { takes: after.values.length, comesIn: fresh.filter((value) => !paired.has(value)).map(shown), goesOut, respelled };
}
