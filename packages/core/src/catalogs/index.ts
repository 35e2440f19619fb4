export * from './models.js';
export * from './parts/models.js';
export { parentKeyOf, partAs, partPhrase, partReads, rangeOf } from './parts/index.js';
export {
  compareTexts,
  comparesWith,
  comparisons,
  comparisonsFor,
  filterClause,
  passes,
  type Comparison,
  type Condition,
  type Filter,
} from './filter.js';
export { companionsOf, composeCatalog } from './compose.js';
export { canBeRead, nothingComposed } from './readable.js';
export { catalogSentence } from './sentence.js';
export { mostUsed, orderClause } from './order.js';
export {
  behindOf,
  cycleThrough,
  dependents,
  feedingRegisters,
  hasParents,
  namingCatalogs,
  ofRanges,
  rangesOf,
  readsDirectly,
} from './dependencies.js';
export { isOffered, validityOn } from './validity.js';
export { itemChanges, sameBegin, sameItem, withItemChanges, type ItemChanges } from './changes.js';
export { compileCatalog, recompileCatalog, itemsAtLevel } from './compile.js';
export { itemWithValue, lookUp, lookUpName } from './lookUp.js';
export { search, type Match, type Matches } from './search.js';
export { searchIndex, type SearchIndex, type Span } from './searchIndex.js';
export { nearest } from './nearest.js';
export { packItems, unpackItems, type PackedItems } from './pack.js';
