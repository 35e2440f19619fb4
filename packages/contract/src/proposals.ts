// What a change that waits is about.
import type { Proposal } from '@dellum/core';

/** The registers that a waiting change touches. */
export const registersOf = ({ steps }: Proposal): string[] => [
  ...new Set(
    steps.flatMap((step) =>
      'registerId' in step ? [step.registerId] : 'range' in step ? step.range.stretches.map(({ registerId }) => registerId) : [],
    ),
  ),
];
