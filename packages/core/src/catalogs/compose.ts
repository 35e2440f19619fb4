// From the parts of a catalog to its items: joined in order, filtered, each value once, ordered.
import { matchKey } from '../text/index.js';
import { passes } from './filter.js';
import { itemKey, type CatalogDefinition, type CompanionField, type Item, type ItemOrigin, type KeptItem } from './models.js';
import { ordered } from './order.js';
import {
  partCompanions,
  partItems,
  partOrigin,
  type CatalogPart,
  type CompanionsOf,
  type PartItem,
  type PartSources,
} from './parts/index.js';

/** An item under way: as its first part gave it, and what other parts add. */
interface Draft {
  readonly given: PartItem;
  readonly origins: ItemOrigin[];
  spellings: string[] | undefined;
}

type Drafts = Map<string, Draft>;

/** The key under which two values count as one in this catalog. */
const keyBy =
  ({ distinct }: CatalogDefinition) =>
  (item: Pick<Item, 'path' | 'value'>): string =>
    distinct === 'spelling' ? [...item.path, item.value].map(matchKey).join('\u001F') : itemKey(item);

const originOf = (by: CatalogPart['kind'], id: string, { rows, origin }: PartItem): ItemOrigin =>
  origin ? { ...origin, rows } : { by, id, rows };

function add(drafts: Drafts, key: string, item: PartItem, origin: ItemOrigin): void {
  const known = drafts.get(key);
  if (!known) {
    drafts.set(key, { given: item, origins: [origin], spellings: undefined });
    return;
  }
  known.origins.push(origin);
  if (known.given.value !== item.value) known.spellings = [...(known.spellings ?? []), item.value];
}

function join(drafts: Drafts, part: CatalogPart, sources: PartSources, keyOf: ReturnType<typeof keyBy>, isFirst: boolean): void {
  const items = partItems(part, sources);
  const id = partOrigin(part);
  if (part.join === 'or' || isFirst) {
    for (const item of items) add(drafts, keyOf(item), item, originOf(part.kind, id, item));
    return;
  }
  const keys = new Set(items.map(keyOf));
  for (const key of [...drafts.keys()]) if (keys.has(key) === (part.join === 'without')) drafts.delete(key);
}

function joined(definition: CatalogDefinition, sources: PartSources): Iterable<Draft> {
  const { parts, distinct } = definition;
  const [only] = parts;
  // A part gives each value once by itself; with one part there is nothing to join.
  if (only && parts.length === 1 && distinct === 'value') {
    const id = partOrigin(only);
    return partItems(only, sources).map((given): Draft => ({ given, origins: [originOf(only.kind, id, given)], spellings: undefined }));
  }
  const drafts: Drafts = new Map();
  const keyOf = keyBy(definition);
  parts.forEach((part, at) => join(drafts, part, sources, keyOf, at === 0));
  return drafts.values();
}

/** Removes what does not pass the filter; a parent stays as long as one of its children does. */
function filtered(items: readonly Item[], definition: CatalogDefinition): readonly Item[] {
  const { filter } = definition;
  if (!filter || filter.conditions.length === 0) return items;
  const parents = new Set(items.flatMap(({ path }) => path.map((_, at) => path.slice(0, at + 1).join('\u001F'))));
  const textOf = (item: Item) => (field: string) =>
    field === 'value'
      ? item.value
      : field === 'label'
        ? item.label
        : field === 'note'
          ? (item.note ?? '')
          : (item.companions?.[field] ?? '');
  const stays = items.filter((item) => parents.has(itemKey(item)) || passes(filter, textOf(item)));
  const wanted = new Set(
    stays.filter((item) => !parents.has(itemKey(item))).flatMap(({ path }) => path.map((_, at) => path.slice(0, at + 1).join('\u001F'))),
  );
  return stays.filter((item) => !parents.has(itemKey(item)) || wanted.has(itemKey(item)));
}

const noNames: readonly string[] = [];

function finished({ given, origins, spellings }: Draft, kept: KeptItem | undefined): Item {
  const { value, path, label = value, companions, item } = given;
  // Nearly all items are plain; they are made without a look at what there could be.
  if (!kept && !item && !spellings)
    return companions
      ? { value, path, label, otherNames: noNames, companions, state: 'offered', from: origins }
      : { value, path, label, otherNames: noNames, state: 'offered', from: origins };
  const note = kept?.note ?? item?.note;
  const colour = kept?.colour ?? item?.colour;
  const validFrom = kept?.validFrom ?? item?.validFrom;
  const validUntil = kept?.validUntil ?? item?.validUntil;
  return {
    value,
    path,
    label: kept?.label ?? label,
    otherNames: [...new Set([...(kept?.otherNames ?? []), ...(item?.otherNames ?? []), ...(spellings ?? [])])],
    ...(note && { note }),
    ...(colour && { colour }),
    ...(validFrom && { validFrom }),
    ...(validUntil && { validUntil }),
    ...(companions && { companions }),
    state: kept?.retired ? 'retired' : 'offered',
    from: origins,
  };
}

/** A retired value that no source gives any more: standing entries stay right. */
const retired = (kept: KeptItem): Item => {
  const { value, path, otherNames, label = value, note, colour, validFrom, validUntil } = kept;
  return {
    value,
    path,
    label,
    otherNames,
    ...(note && { note }),
    ...(colour && { colour }),
    ...(validFrom && { validFrom }),
    ...(validUntil && { validUntil }),
    state: 'retired',
    from: [],
  };
};

/**
 * The items of a catalog: its parts joined in order, what it keeps by hand laid over them, filtered and ordered. Retired
 * values that no source gives, or that do not pass, follow at the end.
 */
export function composeCatalog(definition: CatalogDefinition, kept: readonly KeptItem[], sources: PartSources): Item[] {
  const keptByKey = new Map(kept.map((item) => [itemKey(item), item]));
  const items: Item[] = [];
  for (const draft of joined(definition, sources))
    items.push(finished(draft, keptByKey.size === 0 ? undefined : keptByKey.get(itemKey(draft.given))));
  const wanted = ordered(filtered(items, definition), definition.order, sources.locale.language);
  const gone = kept.filter((item) => item.retired);
  if (gone.length === 0) return [...wanted];
  const given = new Set(wanted.map(itemKey));
  return [...wanted, ...gone.filter((item) => !given.has(itemKey(item))).map(retired)];
}

/** The companions that the items of a catalog have, in the order of its parts. */
export function companionsOf(definition: CatalogDefinition, sources: PartSources, ofCatalog: CompanionsOf): CompanionField[] {
  const fields = new Map<string, CompanionField>();
  for (const part of definition.parts) {
    for (const field of partCompanions(part, sources, ofCatalog)) if (!fields.has(field.key)) fields.set(field.key, field);
  }
  return [...fields.values()];
}
