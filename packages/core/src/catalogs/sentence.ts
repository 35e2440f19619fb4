// How a catalog is composed, in one plain sentence.
import { filterClause } from './filter.js';
import type { CatalogDefinition } from './models.js';
import { orderClause } from './order.js';
import { partPhrase, type Join, type PartNames } from './parts/index.js';

const joining: { readonly [J in Join]: string } = { or: ', then ', and: ' that are also in ', without: ', without ' };

/** "Offers Services, then Cranes, without Closed services, where unit is “t”, in alphabetical order." */
export function catalogSentence(definition: CatalogDefinition, names: PartNames, nameOf: (companion: string) => string): string {
  const { parts, filter, distinct, order } = definition;
  if (parts.length === 0) return 'Offers nothing yet: it has no parts.';
  const composed = parts.map((part, at) => (at === 0 ? '' : joining[part.join]) + partPhrase(part, names)).join('');
  const where = filter && filter.conditions.length > 0 ? `, where ${filterClause(filter, nameOf)}` : '';
  const once = distinct === 'spelling' ? 'spellings of one value stand once' : 'repeats stand once';
  return `Offers ${composed}${where}, ${orderClause(order, nameOf)}; ${once}.`;
}
