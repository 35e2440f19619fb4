// The growth rail: what to draw beside each row of a list for the ranges over it.
import type { Entry } from '../registers/index.js';
import type { RangeTaking, SourceRange } from './models.js';
import { takeRange } from './takeRange.js';

export type RailMark = 'taken' | 'skipped' | 'missed' | 'grows';

export interface Rail {
  readonly range: SourceRange;
  readonly taking: RangeTaking;
  /** Marks by ordinal; the ordinal just past the register stands for the cell where one types to add. */
  readonly marks: ReadonlyMap<number, RailMark>;
}

/** One rail a range: solid along what is taken, open-ended where it grows, `missed` for what lies past its end. */
export function railsOf(ranges: readonly SourceRange[], entries: readonly Entry[]): Rail[] {
  return ranges.map((range) => {
    const taking = takeRange(range, entries, ranges);
    const marks = new Map<number, RailMark>();
    for (let ordinal = taking.first; ordinal < taking.beyond; ordinal++) marks.set(ordinal, 'taken');
    for (const { ordinal, why } of taking.leftOut) marks.set(ordinal, why === 'blank' || why === 'repeat' ? 'skipped' : 'missed');
    if (taking.grows && !marks.has(taking.beyond)) marks.set(taking.beyond, 'grows');
    return { range, taking, marks };
  });
}
