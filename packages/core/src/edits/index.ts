export { closedWords, closes, closingClause, closingReads, closingSentence, isClosed, type Closing } from './closing.js';
export { inReadingOrder } from './order.js';
export { afterVerdict, judgeEdit, settle, unlessClosed, type Edit, type EditContext, type Settlement } from './settle.js';
