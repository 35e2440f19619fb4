export { catalogAtLevel, catalogUnder, choices, depthOf, hasTuple, pathsTo } from './under.js';
