export type {
  Act,
  ArrangeAct,
  Cells,
  DeleteAct,
  Entry,
  EntryId,
  FieldId,
  InsertAct,
  MoveAct,
  RegisterField,
  RegisterId,
  RegisterState,
  SortAct,
  WriteAct,
} from './models.js';
export { applyAct, withTexts } from './applyAct.js';
export { inverseOf } from './inverseOf.js';
export { series } from './series.js';
