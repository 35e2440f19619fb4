// What a column holds, and the list it wants to be: its values, with the spellings that likely mean each.
import { grouped } from '../group.js';
import { byCodeUnits, clean, longestValue, sourceTextFault } from '../text/index.js';
import type { LookAlike, Spelling } from './lookAlikes.js';

/** A value of the proposed list, and the other spellings of it that entries hold. */
export interface ProposedValue {
  readonly value: string;
  readonly entries: number;
  readonly spellings: readonly Spelling[];
}

export interface ColumnProfile {
  readonly entries: number;
  readonly distinct: number;
  /** True when few values stand for many entries. */
  readonly wantsToBeList: boolean;
  /** The proposed list, the most used values first. */
  readonly values: readonly ProposedValue[];
}

/** From so many entries on a column says something. */
const fewestEntries = 20;
/** A value of a list stands for at least so many entries on the average. */
const leastUse = 4;

/** Whether so many values in so many entries are likely values of a list. */
export const wantsToBeList = (distinct: number, entries: number): boolean =>
  entries >= fewestEntries && distinct >= 2 && entries / distinct >= leastUse;

/**
 * The profile of a column. `alike` are the look-alikes among its cleaned values, the likely right spelling first. Spellings
 * that differ by blanks alone belong to one value.
 */
export function profileOf(counts: ReadonlyMap<string, number>, alike: readonly LookAlike[]): ColumnProfile {
  const fit = inOrder(counts).flatMap(([value, entries]) => {
    const own = clean(value);
    return own === '' || own.length > longestValue || sourceTextFault(own) ? [] : [{ own, value, entries }];
  });
  const rightOf = new Map(alike.flatMap(([right, ...others]) => others.map((other) => [other.value, right!.value] as const)));
  const groups = grouped(fit, ({ own }) => rightOf.get(own) ?? own);
  const sum = (spellings: readonly Spelling[]) => spellings.reduce((total, { entries }) => total + entries, 0);
  const values = [...groups].map(([value, spellings]): ProposedValue => ({
    value,
    entries: sum(spellings),
    spellings: spellings
      .filter((spelling) => spelling.value !== value)
      .map((spelling) => ({ value: spelling.value, entries: spelling.entries })),
  }));
  const entries = [...counts.values()].reduce((total, count) => total + count, 0);
  return {
    entries,
    distinct: counts.size,
    wantsToBeList: wantsToBeList(values.length, entries),
    values: values.sort((a, b) => b.entries - a.entries),
  };
}

/** Of two spellings that as many entries hold, the same one is right each time. */
const inOrder = (counts: ReadonlyMap<string, number>) => [...counts].sort(([a], [b]) => byCodeUnits(a, b));

/** The cleaned values of a column with their counts: among these look-alikes are sought. */
export function cleanedCounts(counts: ReadonlyMap<string, number>): Spelling[] {
  const cleaned = new Map<string, number>();
  for (const [value, entries] of inOrder(counts)) cleaned.set(clean(value), (cleaned.get(clean(value)) ?? 0) + entries);
  return [...cleaned].filter(([value]) => value !== '').map(([value, entries]) => ({ value, entries }));
}
