export { findTables, type FoundTable, type SheetRow } from './tables.js';
