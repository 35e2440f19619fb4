export {
  areasOf,
  valuesInRule,
  withChecks,
  type Area,
  type CheckedFile,
  type CheckType,
  type FileCheck,
  type FileName,
  type FoundCheck,
} from './checks.js';
export { adoptedKinds, ColumnWriting, inHouseWriting, type AdoptedKind, type FoundColumn } from './columns.js';
export { type Writing } from './held.js';
export { adoptedTable, type AdoptedTable, type FoundChain, type PathCount, type TablePlace } from './found.js';
export { boundsRule, laidParts, catalogToBe, fieldsToBe, rowReader, type LaidHouse, type LaidTable } from './laid.js';
export { catalogOfList, houseList, houseListId, type HouseList } from './houseLists.js';
export { findLevels, type Dependence, type FoundLevels, type LevelColumn } from './levels.js';
export { proposedHouse, type HouseProposal, type ProposedColumn, type ProposedList, type ProposedTable } from './proposal.js';
export { findTables, isRowOf, TablesFinder, WithHeading, type CountedTable, type FoundTable, type SheetRow } from './tables.js';
export { type AdoptedValue, type Contradiction } from './composed.js';
export { tableId } from './given.js';
export { noMends, tableUses, type Mends, type TableUse } from './mends.js';
