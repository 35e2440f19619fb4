// Door of the arrangements.
export * from './models.js';
export {
  arrangementWords,
  arranges,
  asKept,
  boundWords,
  emptyWithin,
  fieldsInOrder,
  fittingTo,
  movedField,
  showing,
  showingOnly,
  sortedBy,
  type ArrangementNames,
} from './arrange.js';
