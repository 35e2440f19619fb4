// What can be done in a thread of its own: each function takes one thing that can be sent there and gives one that can be sent back.
import { examineSources, type Examined, type SourceState, type ValuePair } from '@dellum/core';

export { lookAlikes } from '@dellum/core';

export interface ToExamine {
  readonly sourceState: SourceState;
  readonly apart: readonly ValuePair[];
}

export const examine = ({ sourceState, apart }: ToExamine): Examined => examineSources(sourceState, apart);
