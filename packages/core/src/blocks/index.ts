export { blockJudge, type BlockContext, type CellJudge } from './blockJudge.js';
export * from './blockActs.js';
