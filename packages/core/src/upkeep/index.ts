export { toldApart, valuePair, withoutApart, type TellsApart, type ValuePair } from './toldApart.js';
export { lookAlikes, type LookAlike, type Spelling } from './lookAlikes.js';
export { effectOn, examine, findingKinds, type Cure, type FindingKind, type RangeFinding } from './doctor.js';
export { cleanedCounts, profileOf, wantsToBeList, type ColumnProfile, type ProposedValue } from './profile.js';
export { lookAtPaste, type PasteLook } from './pasteLook.js';
export { examineParents, orphansOf, type Orphans, type ParentFinding } from './parentsDoctor.js';
export { standingMatch, type StandingMatch } from './standing.js';
export { proposedFields, readCell, type ProposedField } from './proposedFields.js';
export { namingField, tableRoles, type NamingField, type TableRole } from './tableRoles.js';
