// Computes proposals in a thread of its own, which needs nothing that reads files.
import { proposedHouse, type AdoptedTable, type HouseList, type HouseProposal, type Mends } from '@dellum/core';

export interface ToPropose {
  readonly found: readonly AdoptedTable[];
  readonly mends: Mends;
  /** The lists that the house has. */
  readonly house: readonly HouseList[];
}
export const propose = ({ found, mends, house }: ToPropose): HouseProposal => proposedHouse(found, mends, house);

export { ready } from '../threads/ready.js';
