// What a picker offers in a cell: the list of its rule, as it stands in the entry.
import {
  closedHere,
  compileCatalog,
  listOf,
  meantIn,
  offerOf,
  pickingOf,
  ruleAs,
  searchIndex,
  textOfItem,
  typedAs,
  type Catalog,
  type CatalogRule,
  type FieldKind,
  type Item,
  type JudgeContext,
  type Lookup,
  type Picking,
  type Rule,
  type SearchIndex,
} from '@dellum/core';

export interface PickList {
  readonly catalog: Catalog;
  readonly search: SearchIndex;
  /** What stands at the head of the open list: the catalog, and the parents the list lies under. */
  readonly title: string;
  readonly picking: Picking;
  /** The item that a typed text means. */
  means(text: string): Lookup;
  /** The text that would mean the item if it were typed. */
  textOf(item: Pick<Item, 'value'>): string;
  /** What is shown of the item. */
  shownOf(item: Item): string;
}

const indexes = new WeakMap<Catalog, Map<string, SearchIndex>>();

/** The index of a list on a day; made once, when the list is first opened, since most cells of a field share it. */
function indexOf(list: Catalog, day: string): SearchIndex {
  const known = indexes.get(list) ?? new Map<string, SearchIndex>();
  indexes.set(list, known);
  const index = known.get(day) ?? searchIndex(list, day);
  known.set(day, index);
  return index;
}

/** The list to pick from; undefined where the rule has none, or its catalog is still loading. */
export function pickList(rule: Rule | null, kind: FieldKind, context: JudgeContext): PickList | undefined {
  const list = pickedFrom(rule, kind, context);
  return (
    list && {
      ...list,
      means: (text) => meantIn(list.catalog, text, kind, context),
      textOf: ({ value }) => typedAs(list.catalog, value, kind, context),
      shownOf: (item) => (item.label === item.value ? textOfItem(item, kind, context.locale) : item.label),
    }
  );
}

function pickedFrom(rule: Rule | null, kind: FieldKind, context: JudgeContext): Omit<PickList, 'means' | 'textOf' | 'shownOf'> | undefined {
  const whole = rule && listOf({ rule, kind }, context.catalogs, context.locale);
  const picking = pickingOf(rule);
  if (!whole || !picking?.list) return undefined;
  const ofCatalog = ruleAs('catalog', rule);
  if (!ofCatalog) return { catalog: whole, search: indexOf(whole, ''), title: `${whole.items.length} choices`, picking };
  return offered(ofCatalog, picking, context);
}

/** What a catalog offers in the entry. */
function offered(rule: CatalogRule, picking: Picking, context: JudgeContext): Omit<PickList, 'means' | 'textOf' | 'shownOf'> {
  const offer = offerOf(rule, context);
  if ('right' in offer) {
    const nothing = compileCatalog('', offer.message, []);
    return { catalog: nothing, search: indexOf(nothing, ''), title: offer.message, picking };
  }
  const { offers } = offer;
  const parents = rule.parents.flatMap((key) => context.entry?.[key] ?? []);
  const title = [offers.title, ...(offer.fillsUp ? [] : parents)].join(' › ');
  const day = (rule.day && context.entry?.[rule.day]) || context.today || '';
  if (rule.fitting.length === 0) return { catalog: offers, search: indexOf(offers, day), title, picking };
  const fitting = offers.items.filter((item) => !closedHere(rule, item, context));
  const [first] = offers.items;
  // Where nothing fits the entry, the first value says what is wrong with it.
  if (fitting.length === 0 && first)
    return {
      catalog: offers,
      search: searchIndex({ items: [] }, day),
      title: `None of ${offers.items.length} fits. ${closedHere(rule, first, context)!.message}`,
      picking,
    };
  return { catalog: offers, search: searchIndex({ items: fitting }, day), title, picking };
}
