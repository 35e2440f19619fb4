// Entries under the items of another catalog: a field of the entry names its parent. Two lists joined by a key.
import { grouped } from '../../group.js';
import type { Entry } from '../../registers/index.js';
import { clean } from '../../text/index.js';
import { isOfKind } from '../../values/index.js';
import { compileCatalog } from '../compile.js';
import { lookUp } from '../lookUp.js';
import { levelsOf, type Item } from '../models.js';
import { alongWith, companionFields } from './along.js';
import type { KeyedPart, PartItem, PartKind, PartSources } from './models.js';
import { asParent } from './parents.js';

/** From the text that names a parent to the values it means; none where it names nothing, or two things. */
export type ParentOf = (text: string) => string | undefined;

/** How the parents of a part are named: by a companion of theirs, or by any spelling that is understood as their value. */
export function parentsBy({ catalogId, by }: Pick<KeyedPart, 'catalogId' | 'by'>, sources: PartSources): ParentOf {
  const items = sources.items(catalogId).filter(({ state }) => state === 'offered');
  if (by === null) {
    const catalog = compileCatalog(catalogId, '', items);
    return (text) => {
      const found = lookUp(catalog, text);
      return found.found === 'item' ? found.item.value : undefined;
    };
  }
  const named = new Map<string, string>();
  for (const { value, companions } of items) {
    const key = clean(companions?.[by] ?? '');
    if (key !== '' && !named.has(key)) named.set(key, value);
  }
  return (text) => named.get(clean(text));
}

/** How an entry names this parent; undefined where the parent has no such companion. */
export const parentKeyOf = (
  { by }: Pick<KeyedPart, 'by'>,
  { value, companions }: Pick<Item, 'value' | 'companions'>,
): string | undefined => (by === null ? value : companions?.[by] || undefined);

/** The entries of the part by the value of their parent, in the order of the register. */
function childrenOf(part: KeyedPart, sources: PartSources): ReadonlyMap<string, readonly { entry: Entry; ordinal: number }[]> {
  const parentOf = parentsBy(part, sources);
  const placed = (sources.register(part.registerId)?.entries ?? []).flatMap((entry, ordinal) => {
    const parent = parentOf(entry.cells[part.key] ?? '');
    return parent === undefined ? [] : [{ parent, entry, ordinal }];
  });
  return grouped(placed, ({ parent }) => parent);
}

export const keyedPart: PartKind<KeyedPart> = {
  kind: 'keyed',
  origin: ({ registerId }) => registerId,
  reads: ({ catalogId, registerId, key, value, label, companions }) => ({
    catalogs: [catalogId],
    parents: catalogId,
    registers: [registerId],
    fields: { registerId, value, others: [key, ...(label ? [label] : []), ...companions] },
  }),

  items(part, sources) {
    const { catalogId, registerId, value: key, label, companions } = part;
    const parents = sources.items(catalogId).filter(({ state }) => state === 'offered');
    const register = sources.register(registerId);
    if (!register) return parents.map((parent) => asParent(catalogId, parent));
    const deepest = levelsOf(parents) - 1;
    const children = childrenOf(part, sources);
    const kind = register.fields.find((field) => field.key === key)?.kind ?? 'text';
    const under = (parent: Item): readonly PartItem[] => {
      const found = new Map<string, PartItem & { rows: PartItem['rows'][number][] }>();
      for (const { entry, ordinal } of children.get(parent.value) ?? []) {
        const value = clean(entry.cells[key] ?? '');
        if (value === '' || !isOfKind(kind, value)) continue;
        const row = { register: registerId, entry: entry.id, ordinal };
        const known = found.get(value);
        if (known) known.rows.push(row);
        else
          found.set(value, {
            value,
            path: [...parent.path, parent.value],
            rows: [row],
            ...alongWith(entry, register, { key, text: value }, label, companions, sources.locale),
          });
      }
      return [...found.values()];
    };
    return parents.flatMap((parent) => [asParent(catalogId, parent), ...(parent.path.length === deepest ? under(parent) : [])]);
  },

  companions: ({ registerId, companions }, sources) => companionFields(sources.register(registerId), companions),
  phrase: ({ catalogId, by, registerId, key, value }, names) =>
    `${names.field(registerId, value)} of ${names.register(registerId)} under ${names.catalog(catalogId)}, by ${names.field(registerId, key)}${by === null ? '' : ` (their ${by})`}`,
};
