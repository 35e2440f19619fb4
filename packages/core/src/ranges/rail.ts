// The growth rail: what to draw beside each row of a list or table for the ranges over it.
import type { RegisterId, RegisterState } from '../registers/index.js';
import { stretchesOver, type Extent, type LeftOut, type RangeTaking, type SourceRange, type Stretch } from './models.js';
import { takeRange } from './takeRange.js';

export type RailMark = 'taken' | 'skipped' | 'missed' | 'grows';

export interface Rail {
  readonly range: SourceRange;
  readonly stretch: Stretch;
  readonly taking: RangeTaking;
  /** The part of the taking that lies over this register. */
  readonly extent: Extent;
  readonly leftOut: readonly LeftOut[];
  /** Marks by ordinal; the ordinal just past the register stands for the cell where one types to add. */
  readonly marks: ReadonlyMap<number, RailMark>;
}

/** One rail a stretch over the register: solid along what is taken, open-ended where it grows, `missed` for what lies past its end. */
export function railsOf(ranges: readonly SourceRange[], register: RegisterState): Rail[] {
  const registers: ReadonlyMap<RegisterId, RegisterState> = new Map([[register.id, register]]);
  return ranges.flatMap((range) =>
    stretchesOver([range], register.id).map((stretch) => {
      const taking = takeRange({ ...range, stretches: [stretch] }, registers, ranges);
      const extent = taking.extents[0]!;
      const marks = new Map<number, RailMark>();
      for (let ordinal = extent.first; ordinal < extent.beyond; ordinal++) marks.set(ordinal, 'taken');
      for (const { ordinal, why } of taking.leftOut)
        marks.set(ordinal, why === 'past the end' || why === 'after the gap' || why === 'wrong kind' ? 'missed' : 'skipped');
      if (taking.grows && !marks.has(extent.beyond)) marks.set(extent.beyond, 'grows');
      return { range, stretch, taking, extent, leftOut: taking.leftOut, marks };
    }),
  );
}
