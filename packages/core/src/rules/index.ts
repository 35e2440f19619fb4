export * from './models.js';
export { canBeOutside, judge, ruleSentence, stands } from './judge.js';
