export * from './models.js';
export { measuredIn, merged, plus, total } from './tally.js';
export { lastDayOf, nextStep, stepOf, stepsBetween } from './time.js';
export { layFigure, listOrder, type FigureLine, type FigureTable, type Orders } from './lay.js';
export { figureSentence } from './sentence.js';
