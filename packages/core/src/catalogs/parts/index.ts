// Door of the parts: the kinds, and what holds for any of them.
import { catalogRefPart } from './catalogRefPart.js';
import { keyedPart } from './keyedPart.js';
import { linkedPart } from './linkedPart.js';
import type { CatalogPart, CompanionsOf, PartItem, PartKind, PartNames, PartReads, PartSources } from './models.js';
import type { CompanionField } from '../models.js';
import { namedPart } from './namedPart.js';
import { queryPart } from './queryPart.js';
import { rangePart } from './rangePart.js';
import { typedPart } from './typedPart.js';

export * from './models.js';
export { parentKeyOf, parentsBy } from './keyedPart.js';
export { rangeOf } from './namedPart.js';

const kinds: { readonly [Kind in CatalogPart['kind']]: PartKind<Extract<CatalogPart, { kind: Kind }>> } = {
  typed: typedPart,
  range: rangePart,
  query: queryPart,
  linked: linkedPart,
  catalog: catalogRefPart,
  keyed: keyedPart,
  named: namedPart,
};
const kindOf = (part: CatalogPart): PartKind<CatalogPart> => kinds[part.kind] as PartKind<CatalogPart>;

/** The part where it is of a kind; for what only that kind has. */
export const partAs = <Kind extends CatalogPart['kind']>(
  kind: Kind,
  part: CatalogPart,
): Extract<CatalogPart, { kind: Kind }> | undefined => (part.kind === kind ? (part as Extract<CatalogPart, { kind: Kind }>) : undefined);

export const partOrigin = (part: CatalogPart): string => kindOf(part).origin(part);
export const partReads = (part: CatalogPart): PartReads => kindOf(part).reads(part);
export const partItems = (part: CatalogPart, sources: PartSources): readonly PartItem[] => kindOf(part).items(part, sources);
export const partCompanions = (part: CatalogPart, sources: PartSources, ofCatalog: CompanionsOf): readonly CompanionField[] =>
  kindOf(part).companions(part, sources, ofCatalog);
export const partPhrase = (part: CatalogPart, names: PartNames): string => kindOf(part).phrase(part, names);
