// A trace: why a value is offered in a field, or not, step by step.
import type { ItemOrigin } from '../catalogs/index.js';
import type { RangeFinding } from '../upkeep/index.js';

export const traceSteps = [
  'entry',
  'rule',
  'condition',
  'parent',
  'catalog',
  'part',
  'filter',
  'state',
  'validity',
  'fitting',
  'repeat',
  'other values',
] as const;

export interface TraceStep {
  readonly step: (typeof traceSteps)[number];
  /** What was looked at and what was found, in one sentence. */
  readonly words: string;
  /** Whether the value came through. The first step that it does not come through is where it is lost. */
  readonly passed: boolean;
  /** Where it leads: the source of the value. */
  readonly origin?: ItemOrigin;
  /** Where it leads when it is no source: the catalog as a whole, or how it is composed. */
  readonly at?: { readonly catalogId: string; readonly composing: boolean };
  /** What would let the value through, in one act on a range. */
  readonly cure?: RangeFinding;
}

export interface Trace {
  readonly value: string;
  readonly steps: readonly TraceStep[];
  /** Whether it can be chosen in the end. */
  readonly offered: boolean;
}
