// A value from a catalog, or from one of its levels under the parents that the entry holds.
import { catalogAmong, catalogAtLevel, catalogUnder, depthOf, pathsTo } from '../cascades/index.js';
import { compareTexts, filterClause, itemWithValue, type Catalog, type Item } from '../catalogs/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import { valuesIn, type FieldKind } from '../values/index.js';
import { wordsOf, type Given } from './given.js';
import { headingOf } from './headings.js';
import { closedOn, findAllIn, findIn, howMany, outOfDay, plainPicking, tooMany } from './list.js';
import type {
  CatalogRule,
  Judgment,
  JudgeContext,
  JudgedField,
  Rule,
  RuleFault,
  RuleKind,
  RuleNames,
  SentencePart,
  Standing,
} from './models.js';

const dayOf = (rule: CatalogRule, context: JudgeContext): string | undefined =>
  rule.day ? (context.entry?.[rule.day] ?? context.today) : context.today;
const parentsIn = ({ parents }: CatalogRule, entry: Cells): string[] => parents.map((key) => entry[key] ?? '');

/** What a rule offers in an entry, or why it offers nothing. */
export type Offer = { readonly offers: Catalog; readonly fillsUp: boolean } | Extract<Judgment, { right: false }>;

/** The list that the rule offers in an entry. Without the entry all of the level is offered. */
export function offerOf(rule: CatalogRule, context: JudgeContext): Offer {
  const catalog = context.catalogs.get(rule.catalogId)!;
  const level = catalogAtLevel(catalog, rule.level);
  if (rule.parents.length === 0 || !context.entry) return { offers: level, fillsUp: false };
  const parents = parentsIn(rule, context.entry);
  const blank = parents.indexOf('');
  if (blank < 0) return { offers: catalogUnder(catalog, parents), fillsUp: false };
  // Parents that are filled narrow the list all the same.
  if (rule.blankParent === 'all')
    return { offers: parents.some((parent) => parent !== '') ? catalogAmong(catalog, parents) : level, fillsUp: true };
  const heading = headingOf(rule.parents[blank]!, context);
  return { right: false, code: 'parent blank', message: `${heading} is blank. Choose it first; then its values are offered here.` };
}

/** The first fitting that an item does not meet in the entry; blanks on either side meet it. */
function unmet({ fitting }: CatalogRule, item: Item, context: JudgeContext) {
  return fitting.find(({ companion, is, field }) => {
    const [own, wanted] = [item.companions?.[companion], context.entry?.[field]];
    return own !== undefined && wanted !== undefined && !compareTexts(is, own, wanted);
  });
}

/** Why the item cannot be chosen in the entry now, or undefined. */
export function closedHere(rule: CatalogRule, item: Item, context: JudgeContext): Extract<Judgment, { right: false }> | undefined {
  const { title } = context.catalogs.get(rule.catalogId)!;
  return closedOn(item, title, dayOf(rule, context), context) ?? misfit(rule, item, context);
}

/** Why the item does not fit the entry, or undefined. */
function misfit(rule: CatalogRule, item: Item, context: JudgeContext): Extract<Judgment, { right: false }> | undefined {
  const fitting = unmet(rule, item, context);
  if (!fitting) return undefined;
  const called =
    context.catalogs.get(rule.catalogId)?.companions?.find(({ key }) => key === fitting.companion)?.heading ?? fitting.companion;
  return {
    right: false,
    code: 'condition',
    message: `${item.label} does not fit: its ${called} (${item.companions![fitting.companion]}) is not ${fitting.is} ${headingOf(fitting.field, context)} (${context.entry![fitting.field]}).`,
  };
}

/**
 * Under which parents a value that the field of an entry may hold stands in its catalog; undefined where the rule offers none, or it is not
 * there.
 */
export function pathOf(rule: Rule | null, catalog: Catalog, entry: Cells, value: string): readonly string[] | undefined {
  if (rule?.kind !== 'catalog') return undefined;
  if (rule.parents.length > 0) return pathsTo(catalog, value, parentsIn(rule, entry))[0];
  const level = rule.level ?? catalog.levels - 1;
  return catalog.all.find((item) => item.value === value && item.path.length === level)?.path;
}

/** Where the parents are blank and all is offered: the one way that leads to the value fills them. */
function fillsFor(rule: CatalogRule, value: string, context: JudgeContext): Record<FieldId, string> | undefined {
  const given = parentsIn(rule, context.entry!);
  const paths = pathsTo(context.catalogs.get(rule.catalogId)!, value, given);
  if (paths.length !== 1) return undefined;
  return Object.fromEntries(rule.parents.flatMap((key, at) => (given[at] === '' ? [[key, paths[0]![at]!]] : [])));
}

/** A text that stands elsewhere in the catalog is said to be under another parent. */
function elsewhere(
  rule: CatalogRule,
  given: Given,
  kind: FieldKind,
  missed: Extract<Judgment, { right: false }>,
  context: JudgeContext,
): Judgment {
  if (rule.parents.length === 0 || !context.entry || missed.code !== 'outside') return missed;
  const level = catalogAtLevel(context.catalogs.get(rule.catalogId)!, rule.level);
  const text = wordsOf(kind, given, context.locale);
  const other = findIn(level, given, kind, { ...context, suggest: false }, () => undefined);
  const above = rule.parents.findLast((key) => context.entry![key]) ?? rule.parents.at(-1)!;
  const parent = context.entry[above] ?? '';
  if (parent === '') return missed;
  if (other.right)
    return {
      right: false,
      code: 'not under parent',
      message: `“${text}” is not under ${parent}. Choose a value of this ${headingOf(above, context)}.`,
      suggestions: missed.suggestions ?? [],
    };
  return { ...missed, message: `“${text}” is not in ${level.title} under ${parent}.` };
}

/** The shallowest parent that does not go with those above it; undefined when all do. */
function failingParent(rule: CatalogRule, catalog: Catalog, parents: readonly string[]): FieldId | undefined {
  const at = parents.findIndex((parent, depth) => parent !== '' && !itemWithValue(catalogAmong(catalog, parents.slice(0, depth)), parent));
  return at < 0 ? undefined : rule.parents[at];
}

/** Whether one stored value is right as it stands. */
function standsAlone(rule: CatalogRule, value: string, { heading }: JudgedField, context: JudgeContext): Standing {
  const catalog = context.catalogs.get(rule.catalogId)!;
  const level = catalogAtLevel(catalog, rule.level);
  const item = itemWithValue(level, value);
  if (!item) return { right: false, code: 'outside', message: `“${value}” is not in ${catalog.title}, so this ${heading} is outside.` };
  if (!context.entry) return { right: true };
  const parents = parentsIn(rule, context.entry);
  const failing = failingParent(rule, catalog, parents);
  if (failing !== undefined)
    return {
      right: false,
      code: 'parent outside',
      message: `${headingOf(failing, context)} is outside itself, so this ${heading} cannot be told right.`,
    };
  const above = parents.findLast((parent) => parent !== '');
  const here = above === undefined ? item : itemWithValue(catalogAmong(catalog, parents), value);
  if (!here)
    return { right: false, code: 'not under parent', message: `“${value}” is not under ${above!}, so this ${heading} is outside.` };
  // Only a day of the entry itself counts for what stands; what expires today stays right, and retiring turns nothing.
  const day = rule.day ? context.entry[rule.day] : undefined;
  const unfit = (day ? outOfDay(here, day, context) : undefined) ?? misfit(rule, here, context);
  return unfit ? { right: false, code: unfit.code, message: unfit.message } : { right: true };
}

function atItsLevel({ catalogId, level }: CatalogRule, catalogs: JudgeContext['catalogs']): Catalog | undefined {
  const catalog = catalogs.get(catalogId);
  return catalog && catalogAtLevel(catalog, level);
}

export const catalogRule: RuleKind<CatalogRule> = {
  kind: 'catalog',
  title: 'one value from a catalog',
  asNew: {
    catalogId: '',
    level: null,
    parents: [],
    blankParent: 'nothing',
    misfit: 'clear',
    fillsSingle: false,
    day: null,
    fitting: [],
    brings: [],
    picking: plainPicking,
  },
  fits: ['text', 'number', 'amount', 'percent', 'date', 'yes/no', 'several values'],

  judge(rule, given, { kind }, context) {
    const offer = offerOf(rule, context);
    if ('right' in offer) return offer;
    if (kind === 'several values')
      return findAllIn(offer.offers, given, rule.picking.most, context, (item) => closedHere(rule, item, context));
    const found = findIn(offer.offers, given, kind, context, (item) => closedHere(rule, item, context));
    if (!found.right) return elsewhere(rule, given, kind, found, context);
    const fills = offer.fillsUp ? fillsFor(rule, found.value, context) : undefined;
    return fills ? { ...found, fills } : found;
  },

  stands(rule, value, field, context) {
    const many = field.kind === 'several values' ? tooMany(value, rule.picking.most) : undefined;
    if (many) return { right: false, code: many.code, message: many.message };
    const wrong = valuesIn(value)
      .map((one) => standsAlone(rule, one, field, context))
      .find(({ right }) => !right);
    return wrong ?? { right: true };
  },

  takes(rule, names) {
    const parents = rule.parents.map(names.field);
    const level = names.level?.(rule.catalogId, rule.level);
    const parts: SentencePart[] = [
      level === undefined
        ? { text: howMany(rule.picking.most, names.several), edits: 'kind' }
        : { text: `${names.several ? 'several of' : 'one'} ${level}`, edits: 'level' },
      { text: ' from ' },
      { text: names.catalog(rule.catalogId), edits: 'catalog' },
    ];
    if (parents.length > 0)
      parts.push(
        { text: ' under the entry’s ' },
        { text: parents.join(' › '), edits: 'parents' },
        { text: rule.blankParent === 'all' ? ' (all, while that is blank)' : '' },
      );
    if (rule.day) parts.push({ text: ', as offered on ' }, { text: names.field(rule.day), edits: 'day' });
    if (rule.fitting.length > 0) parts.push({ text: ', only where ' }, { text: fittingWords(rule, names), edits: 'fitting' });
    if (rule.brings.length > 0)
      parts.push(
        { text: ', bringing along ' },
        {
          text: rule.brings.map(({ companion, field }) => `${companionName(rule, companion, names)} into ${names.field(field)}`).join(', '),
          edits: 'brings',
        },
      );
    return parts;
  },

  faults(rule, _field, context) {
    const catalog = context.catalogs.get(rule.catalogId);
    if (!catalog) return [{ part: 'catalog', message: 'Choose the catalog that the values come from.' }];
    const faults: RuleFault[] = [];
    const level = rule.level ?? depthOf(catalog) - 1;
    if (level >= depthOf(catalog))
      return [
        { part: 'catalog', message: `${catalog.title} has ${depthOf(catalog)} ${depthOf(catalog) === 1 ? 'level' : 'levels'} only.` },
      ];
    if (!catalogAtLevel(catalog, rule.level).items.some(({ state }) => state === 'offered'))
      faults.push({ part: 'catalog', message: `${catalog.title} offers nothing at this level, so nothing can be entered.` });
    if (rule.parents.length > 0 && rule.parents.length !== level)
      faults.push({
        part: 'parents',
        message: `Name ${level === 1 ? 'the field that holds the parent' : `the ${level} fields that hold the parents`}.`,
      });
    rule.parents.forEach((key, at) => {
      const above = context.rules.get(key);
      if (above?.kind === 'catalog' && (above.level ?? 0) === at && above.catalogId === rule.catalogId) return;
      if (above?.kind === 'catalog' && above.catalogId === rule.catalogId && (above.level ?? depthOf(catalog) - 1) === level) {
        faults.push({
          part: 'parents',
          message: `${headingOf(key, context)} takes the same level of ${catalog.title} as this field, so nothing stands under it. Choose another level here or there.`,
        });
        return;
      }
      // A parent of another catalog can still agree with this one; one without a list is likely a mistake.
      if (above?.kind !== 'catalog')
        faults.push({
          part: 'parents',
          message: `${headingOf(key, context)} takes no values from a catalog, so it may hold what no value stands under.`,
        });
    });
    return faults;
  },

  checkable: ({ catalogId, level, parents, day, fitting, brings, fillsSingle }) => ({
    check: { of: 'list', catalogId, level, parents, day },
    lost: [
      ...(day === null ? [] : ['offers what is valid today, not what is valid on the day of the entry']),
      ...(fitting.length === 0 ? [] : ['offers also what does not fit other fields of the entry']),
      ...(brings.length === 0 && !fillsSingle ? [] : ['fills no other cells there']),
    ],
  }),
  reads: ({ parents, day, fitting }) => [...parents, ...(day ? [day] : []), ...fitting.map(({ field }) => field)],

  catalogId: ({ catalogId }) => catalogId,
  list: (rule, _kind, { catalogs }) => atItsLevel(rule, catalogs),
  values(rule, catalogs) {
    const list = atItsLevel(rule, catalogs);
    // A value may stand under several parents.
    return list && [...new Set(list.items.map(({ value }) => value))];
  },
  picking: ({ picking }) => picking,
  parents: ({ parents }) => parents,
  brings: ({ brings }) => brings,
  fillsUp: ({ blankParent }) => blankParent === 'all',
  fillsItself: ({ fillsSingle }) => fillsSingle,
  parts: ['kind', 'parents', 'day', 'fitting', 'brings', 'picking'],
};

const companionName = ({ catalogId }: CatalogRule, key: string, names: RuleNames): string => names.companion?.(catalogId, key) ?? key;

const fittingWords = (rule: CatalogRule, names: RuleNames): string =>
  rule.fitting
    .map(({ companion, is, field }) =>
      filterClause(
        { all: true, conditions: [{ field: companion, is, value: names.field(field) }] },
        () => `its ${companionName(rule, companion, names)}`,
      ).replaceAll(/[“”]/gu, ''),
    )
    .join(' and ');
