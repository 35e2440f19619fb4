export * from './models.js';
export { bookOf, exactInColumn, lostOf, shownInColumn, type BookContext, type BookField, type BookTable } from './bookOf.js';
export { cellValue, type CellValue } from './cellValue.js';
export { differences, typedBack, type CameBack, type CellBack, type Differences, type RowBack, type SheetBack } from './comparing.js';
export { freeSheetIn } from './names.js';
export { columnName, firstRow, keyMark, namesOf, openFormula, spareRows, validationOf, type Validation } from './validation.js';
export { plainValue, storedFor, typedForPlain, type PlainValue } from './plainValue.js';
export { schemaOf, type JsonSchema, type SchemaContext, type SchemaField } from './schemaOf.js';
export { owl, rdf, schemaOrg, skos, statementsOf, xsd, type ConceptObject, type Concepts, type Statement } from './concepts.js';
