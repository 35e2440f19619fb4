export * from './models.js';
export { compileCatalog, itemsOf, type CatalogPart } from './compile.js';
export { itemWithValue, lookUp } from './lookUp.js';
export { search, searchIndex, type Match, type Matches, type SearchIndex, type Span } from './search.js';
export { nearest } from './nearest.js';
