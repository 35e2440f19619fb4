export { diffCatalogs, meant, proposedAnswer, type CatalogDiff, type Edited } from './diff.js';
export {
  answers,
  goesWith,
  heldBy,
  questionKey,
  impactOf,
  answered,
  touchedValues,
  type Answer,
  type Impact,
  type Question,
  type Answered,
  type AskedValue,
  type Correction,
  type Usage,
} from './impact.js';
export { carried, type Carry } from './carry.js';
export {
  afterProposal,
  afterStep,
  proposalOf,
  readSourceState,
  takenBack,
  touchedBy,
  type Meaning,
  type Proposal,
  type SourceState,
  type Step,
  type SourceStateReader,
} from './sourceState.js';
export {
  entriesHeld,
  isOutside,
  standingChange,
  type BoundField,
  type Held,
  type StandingChange,
  type StandingContext,
} from './standing.js';
export { displaced, losesStanding, rekeyed, retiredAlong, type Displaced, type Rekeyed } from './tuples.js';
