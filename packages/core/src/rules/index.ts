export * from './models.js';
export { askedBeforeNew, blankIsWrong, canBeOutside, fieldsNamedBy, isReadOnly, judge, readsOf, ruleHere, stands } from './judge.js';
export { isNothing, wordsOf, type Given } from './given.js';
export { meansHeld } from './held.js';
export { kindOf, languagesOf, ruleAs, rulesFor, ruleTitle } from './kinds.js';
export { fetchLanguages, type Language } from './languages.js';
export {
  bringsOf,
  checkableOf,
  catalogIdOf,
  filledBy,
  fillsItself,
  hasCatalog,
  hasList,
  listOf,
  numbersOf,
  parentsOf,
  partsOfRule,
  pickingOf,
  picksFrom,
  valuesOf,
} from './ties.js';
export { closedHere, offerOf, pathOf, type Offer } from './catalogRule.js';
export { typedList } from './typedRule.js';
export { patternFault, patternOf } from './patternRule.js';
export { expressionFault, expressionNames } from './expressionRule.js';
export { ruleSentence, ruleTakes } from './sentence.js';
export { forbidsRule, ruleFaults } from './faults.js';
export { chainRules, newRule, ruleBase } from './make.js';
export { cellsOfNew } from './begins.js';
export { planCascade, type CascadeField, type CascadePlan } from './cascadePlan.js';
export { andList, meantIn, plainPicking, textOfItem, typedAs } from './list.js';
export { typedValue } from './typedValue.js';
