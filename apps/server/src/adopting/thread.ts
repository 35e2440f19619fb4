// What is done for proposals in a thread of its own.
import { proposedHouse, type AdoptedTable, type HouseList, type HouseProposal, type Mends } from '@dellum/core';

export { read } from './reading.js';

export interface ToPropose {
  readonly found: readonly AdoptedTable[];
  readonly mends: Mends;
  /** The lists that the house has. */
  readonly house: readonly HouseList[];
}
export const propose = ({ found, mends, house }: ToPropose): HouseProposal => proposedHouse(found, mends, house);
