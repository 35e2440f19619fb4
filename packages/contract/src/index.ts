// Door of the contract: what server and web application say to each other.
export * from './roles.js';
export * from './problems.js';
export * from './houses.js';
export * from './people.js';
export * from './arrangements.js';
export * from './build.js';
export * from './acts.js';
export * from './entries.js';
export * from './entryActs.js';
export * from './records.js';
export * from './requests.js';
export * from './catalogs.js';
export * from './rules.js';
export * from './bindings.js';
export * from './live.js';
export * from './upkeep.js';
export * from './linked.js';
