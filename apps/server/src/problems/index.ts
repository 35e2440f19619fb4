export { IdPipe } from './ids.js';
export { freeName } from './names.js';
export { notFound, ProblemError } from './problem.js';
export { ProblemFilter, problemOf } from './problemFilter.js';
export { ByKindPipe, validation } from './validation.js';
