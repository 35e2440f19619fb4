export { diffCatalogs, meant, proposedAnswer, type CatalogDiff, type Edited } from './diff.js';
export { answers, heldBy, impactOf, settle, touchedValues, type Answer, type Impact, type Question, type Settlement, type Usage } from './impact.js';
export { carried, type Carry } from './carry.js';
export { afterProposal, afterStep, proposalOf, readWorld, takenBack, touchedBy, type Meaning, type Proposal, type SourceWorld, type Step, type WorldReader } from './world.js';
