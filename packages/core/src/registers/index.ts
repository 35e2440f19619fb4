export type { Act, Cells, DeleteAct, Entry, EntryId, FieldId, InsertAct, MoveAct, SortAct, WriteAct } from './models.js';
export { applyAct, withTexts } from './applyAct.js';
