// Whether what is kept as a definition can be read as one. Whatever wrote it: a definition that cannot be read makes its own catalog
// faulty, and never the house.
import { comparisons } from './filter.js';
import { catalogOrders, distincts, type CatalogDefinition } from './models.js';
import { joins, type CatalogPart } from './parts/models.js';

/** What a catalog is composed of that cannot be read. */
export const nothingComposed: CatalogDefinition = { parts: [], filter: null, distinct: 'value', order: { by: 'kept' } };

type Kept = Readonly<Record<string, unknown>>;

const isObject = (kept: unknown): kept is Kept => typeof kept === 'object' && kept !== null && !Array.isArray(kept);
const isText = (kept: unknown): boolean => typeof kept === 'string';
const areTexts = (kept: unknown): boolean => Array.isArray(kept) && kept.every(isText);
const isTextOrNull = (kept: unknown): boolean => kept === null || isText(kept);
const isOneOf = (known: readonly string[], kept: unknown): boolean => known.some((one) => one === kept);

function isFilter(kept: unknown): boolean {
  if (kept === null) return true;
  if (!isObject(kept) || typeof kept['all'] !== 'boolean' || !Array.isArray(kept['conditions'])) return false;
  return kept['conditions'].every(
    (one: unknown) => isObject(one) && isText(one['field']) && isOneOf(comparisons, one['is']) && isText(one['value']),
  );
}

/** What each member of a part must be, by the kind of the part. */
const members: { readonly [Kind in CatalogPart['kind']]: Readonly<Record<string, (kept: unknown) => boolean>> } = {
  typed: { values: areTexts },
  range: { rangeId: isText, label: isTextOrNull, companions: areTexts },
  query: { registerId: isText, value: isText, label: isTextOrNull, companions: areTexts, filter: isFilter },
  linked: { sourceId: isText },
  catalog: { catalogId: isText },
  keyed: { catalogId: isText, by: isTextOrNull, registerId: isText, key: isText, value: isText, label: isTextOrNull, companions: areTexts },
  named: { catalogId: isText },
};

function isPart(kept: unknown): boolean {
  if (!isObject(kept) || !isOneOf(joins, kept['join']) || !isOneOf(Object.keys(members), kept['kind'])) return false;
  return Object.entries(members[kept['kind'] as CatalogPart['kind']]).every(([name, fits]) => fits(kept[name]));
}

export function canBeRead(kept: unknown): kept is CatalogDefinition {
  if (!isObject(kept) || !Array.isArray(kept['parts']) || !kept['parts'].every(isPart)) return false;
  const order = kept['order'];
  return isFilter(kept['filter']) && isOneOf(distincts, kept['distinct']) && isObject(order) && isOneOf(catalogOrders, order['by']);
}
