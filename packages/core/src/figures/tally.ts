// Adding tallies up, exactly; and what is shown of one.
import { Exact } from '../values/index.js';
import type { FigureGroup, Measure, Tally, TimeStep } from './models.js';
import { stepOf } from './time.js';

const nothing: Tally = { entries: 0, measured: 0, sum: null, least: null, most: null };

const added = (a: string | null, b: string | null): string | null => (a === null ? b : b === null ? a : new Exact(a).plus(b).toFixed());
const chosen = (a: string | null, b: string | null, sign: 1 | -1): string | null =>
  a === null ? b : b === null ? a : new Exact(a).comparedTo(b) * sign <= 0 ? a : b;

/** Two tallies as one. Associative and commutative, so that parts can be counted in any order. */
export const plus = (a: Tally, b: Tally): Tally => ({
  entries: a.entries + b.entries,
  measured: a.measured + b.measured,
  sum: added(a.sum, b.sum),
  least: chosen(a.least, b.least, 1),
  most: chosen(a.most, b.most, -1),
});

export const total = (tallies: Iterable<Tally>): Tally => [...tallies].reduce(plus, nothing);

/** Groups of parts of a register as groups of the whole; days become the steps they lie in. */
export function merged(groups: Iterable<FigureGroup>, step: TimeStep | null): FigureGroup[] {
  const known = new Map<string, FigureGroup>();
  for (const group of groups) {
    const time = group.time === null || step === null ? null : stepOf(group.time, step);
    const key = [...group.values, time ?? ''].join('\u001F');
    const before = known.get(key);
    known.set(key, { values: group.values, time, ...plus(before ?? nothing, group) });
  }
  return [...known.values()];
}

/** Decimals of a mean beyond those of what is measured. */
const meanDecimals = 4;

/** What a tally shows: a count, or a decimal number; undefined where there is nothing to show. */
export function measuredIn(tally: Tally, measure: Measure): string | undefined {
  switch (measure) {
    case 'count':
      return String(tally.entries);
    case 'sum':
      return tally.sum ?? undefined;
    case 'mean':
      return tally.sum === null || tally.measured === 0
        ? undefined
        : new Exact(tally.sum).dividedBy(tally.measured).toDecimalPlaces(meanDecimals).toFixed();
    case 'least':
      return tally.least ?? undefined;
    case 'most':
      return tally.most ?? undefined;
  }
}
