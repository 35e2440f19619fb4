// Door of the core for browsers: everything Dellum computes, without interface, server or database. Languages of rules are fetched when
// needed.
export { grouped } from './group.js';
export { markOf } from './mark.js';
export * from './text/index.js';
export * from './values/index.js';
export * from './registers/index.js';
export * from './ranges/index.js';
export * from './catalogs/index.js';
export * from './cascades/index.js';
export * from './rules/index.js';
export * from './arrangements/index.js';
export * from './blocks/index.js';
export * from './impact/index.js';
export * from './edits/index.js';
export * from './upkeep/index.js';
export * from './why/index.js';
export * from './requests/index.js';
export * from './forms/index.js';
export * from './figures/index.js';
export * from './exchange/index.js';
export * from './adopting/index.js';
