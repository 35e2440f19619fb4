export { catalogAtLevel, catalogAmong, catalogUnder, choices, depthOf, hasTuple, pathsTo } from './under.js';
