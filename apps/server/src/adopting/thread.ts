// What is done for proposals in a thread of its own.
import { proposedHouse, type AdoptedTable, type HouseProposal, type Mends } from '@dellum/core';

export { read } from './reading.js';

export interface ToPropose {
  readonly found: readonly AdoptedTable[];
  readonly mends: Mends;
}
export const propose = ({ found, mends }: ToPropose): HouseProposal => proposedHouse(found, mends);
