export * from './models.js';
export {
  bookOf,
  exactInColumn,
  lostOf,
  shownInColumn,
  type BookContext,
  type BookField,
  type BookTable,
  type ShownColumn,
} from './bookOf.js';
export { cellValue, type CellValue } from './cellValue.js';
export {
  differences,
  heldInRow,
  rowDifferences,
  typedBack,
  typedIn,
  writtenInRow,
  type CameBack,
  type CellBack,
  type Differences,
  type RowBack,
  type RowDifferences,
  type SheetBack,
  type TypedCell,
} from './comparing.js';
export { columnsOfSheet, markedText, readMark, signedPart, type FileMark } from './fileMark.js';
export { columnOf, countsIn, daysRead, unescaped, type Counts } from './readCells.js';
export {
  brought,
  collisionsOf,
  idsOf,
  namedParts,
  partsHere,
  waysIn,
  withIds,
  type Chosen,
  type Collision,
  type NamedParts,
  type PartsHere,
  type WayIn,
} from './bringParts.js';
export {
  registersOf,
  type HouseParts,
  type PartsCatalog,
  type PartsField,
  type PartsFigure,
  type PartsForm,
  type PartsGroup,
  type PartsLinked,
  type PartsPerson,
  type PartsRegister,
  type PartsSheet,
} from './houseParts.js';
export { partFaults } from './partFaults.js';
export { listColumns, tablesDescription, type Described, type TablesAbout } from './csvw.js';
export { freeSheetIn } from './names.js';
export { columnName, firstRow, keyMark, namesOf, openFormula, spareRows, validationOf, type Validation } from './validation.js';
export { plainValue, storedFor, givenByPlain, type PlainValue } from './plainValue.js';
export { schemaOf, type JsonSchema, type SchemaContext, type SchemaField } from './schemaOf.js';
export { owl, rdf, schemaOrg, skos, statementsOf, xsd, type ConceptObject, type Concepts, type Statement } from './concepts.js';
export { schemaParts, type SchemaParts } from './readSchema.js';
export { conceptParts, type ConceptParts } from './conceptParts.js';
export { ConceptsReader, type LeftOfConcepts, type ReadConcept, type ReadConcepts, type ReadScheme } from './readConcepts.js';
