export * from './models.js';
export { endKind } from './ends.js';
export { extentOf } from './extent.js';
export { takeRange } from './takeRange.js';
export { followAct } from './followAct.js';
export { anchorsOf, endAnother, endAt, nameFault, type NameFault } from './define.js';
export { redefined, type Redefined } from './redefined.js';
export { railsOf, type Rail, type RailMark } from './rail.js';
export { endingClause, endingInShort, rangeSentence, shapeInShort } from './sentence.js';
