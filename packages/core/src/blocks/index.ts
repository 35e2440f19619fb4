export { blockJudge, type BlockContext, type CellJudge } from './blockJudge.js';
