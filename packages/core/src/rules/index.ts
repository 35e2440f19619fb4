export * from './models.js';
export { judge, ruleSentence, stands } from './judge.js';
