// All that is wrong with the sources of a house, found at once: each range is taken and each catalog composed a single time.
import { grouped } from '../group.js';
import { hasParents } from '../catalogs/index.js';
import { readSourceState, type SourceState } from '../impact/index.js';
import type { LeftOutWhy } from '../ranges/index.js';
import { examine, type RangeFinding } from './doctor.js';
import { examineParents, orphansOf, type Orphans, type ParentFinding } from './parentsDoctor.js';
import { toldApart, type ValuePair } from './toldApart.js';

export interface ExaminedRange {
  readonly id: string;
  /** How many values it takes. */
  readonly taken: number;
  readonly leftOut: readonly { readonly why: LeftOutWhy; readonly count: number }[];
  readonly findings: readonly RangeFinding[];
}

export interface Examined {
  readonly ranges: readonly ExaminedRange[];
  readonly parents: readonly ParentFinding[];
  readonly orphans: readonly Orphans[];
}

/** Examines all ranges, and all catalogs that put things under parents. `apart`: values that look alike and are two things. */
export function examineSources(sourceState: SourceState, apart: Iterable<ValuePair>): Examined {
  const reader = readSourceState(sourceState);
  const tellsApart = toldApart(apart);
  const parented = [...sourceState.definitions].filter(([, definition]) => hasParents(definition)).map(([id]) => id);
  return {
    ranges: sourceState.ranges.map(({ id }) => {
      const { values, leftOut } = reader.taking(id);
      return {
        id,
        taken: values.length,
        leftOut: [...grouped(leftOut, ({ why }) => why)].map(([why, rows]) => ({ why, count: rows.length })),
        findings: examine(id, sourceState, { apart: tellsApart, effects: true, reader }),
      };
    }),
    parents: parented.flatMap((id) => examineParents(id, sourceState, reader)),
    orphans: parented.flatMap((id) => orphansOf(id, sourceState, reader)),
  };
}
