// The growth rail: what to draw beside each row of a list or table for the ranges over it.
import type { RegisterId, RegisterState } from '../registers/index.js';
import { stretchesOver, type Extent, type LeftOut, type LeftOutWhy, type RangeTaking, type SourceRange, type Stretch } from './models.js';
import { takeRange } from './takeRange.js';

export type RailMark = 'taken' | 'skipped' | 'missed' | 'grows';

export interface Rail {
  readonly range: SourceRange;
  readonly stretch: Stretch;
  readonly taking: RangeTaking;
  /** The part of the taking that lies over this register. */
  readonly extent: Extent;
  readonly leftOut: readonly LeftOut[];
  /** The mark of a row by its ordinal, if it has one; the ordinal just past the register stands for the cell where one types to add. */
  markAt(ordinal: number): RailMark | undefined;
}

const missed: ReadonlySet<LeftOutWhy> = new Set(['past the end', 'after the gap', 'wrong kind']);

/** One rail a stretch over the register: solid along what is taken, open-ended where it grows, `missed` for what lies past its end. */
export function railsOf(ranges: readonly SourceRange[], register: RegisterState): Rail[] {
  const registers: ReadonlyMap<RegisterId, RegisterState> = new Map([[register.id, register]]);
  return ranges.flatMap((range) =>
    stretchesOver([range], register.id).map((stretch) => {
      const taking = takeRange({ ...range, stretches: [stretch] }, registers, ranges);
      const extent = taking.extents[0]!;
      const leftOut = new Map(taking.leftOut.map(({ ordinal, why }) => [ordinal, missed.has(why) ? 'missed' : 'skipped'] as const));
      const markAt = (ordinal: number): RailMark | undefined => {
        const left = leftOut.get(ordinal);
        if (left) return left;
        if (ordinal >= extent.first && ordinal < extent.beyond) return 'taken';
        return ordinal === extent.beyond && taking.grows ? 'grows' : undefined;
      };
      return { range, stretch, taking, extent, leftOut: taking.leftOut, markAt };
    }),
  );
}
