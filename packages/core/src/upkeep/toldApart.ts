// Look-alikes that somebody has said to be two things: they are not found again.
import type { LookAlike } from './lookAlikes.js';

/** Two values that look alike and are two things. */
export type ValuePair = readonly [string, string];
/** Whether two values are two things. */
export type TellsApart = (one: string, other: string) => boolean;

/** The pair in its one order, whichever was named first. */
export const valuePair = (one: string, other: string): ValuePair => (one < other ? [one, other] : [other, one]);

const keyOf = (one: string, other: string): string => valuePair(one, other).join('\u001F');

export function toldApart(pairs: Iterable<ValuePair>): TellsApart {
  const keys = new Set(Array.from(pairs, ([one, other]) => keyOf(one, other)));
  return keys.size === 0 ? () => false : (one, other) => keys.has(keyOf(one, other));
}

/** The groups without what is told apart from the likely right spelling of its group; what is left of it may be alike by itself. */
export function withoutApart(groups: readonly LookAlike[], apart: TellsApart): LookAlike[] {
  return groups.flatMap((group) => {
    const kept: LookAlike[] = [];
    for (let rest = group; rest.length > 1;) {
      const [right, ...others] = rest as [LookAlike[number], ...LookAlike];
      const alike = others.filter(({ value }) => !apart(right.value, value));
      if (alike.length > 0) kept.push([right, ...alike]);
      rest = others.filter(({ value }) => apart(right.value, value));
    }
    return kept;
  });
}
