export { clean, cleanLines, isBlank } from './clean.js';
export { copied } from './copied.js';
export { foldCase, digitsOf, looseKey, matchKey } from './keys.js';
export { forbiddenCharacter, longestName, longestText, longestValue, storable } from './forbidden.js';
export { alphabetical, byCodeUnits } from './order.js';
export { addressKey, freeAmong, freeFieldKey, freeKeyAmong } from './free.js';
export { slips, slipsAllowed } from './distance.js';
export { sourceTextFault, type TextFault } from './sourceText.js';
