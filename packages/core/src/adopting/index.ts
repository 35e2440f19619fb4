export { findLevels, type Dependence, type FoundLevels, type LevelColumn } from './levels.js';
export { findTables, type FoundTable, type SheetRow } from './tables.js';
