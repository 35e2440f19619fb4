// A value from a short list that is typed right into the rule.
import { compileCatalog, itemWithValue, type Catalog, type Item } from '../catalogs/index.js';
import { format, valuesIn, type FieldKind, type Locale } from '../values/index.js';
import { findAllIn, findIn, howMany, plainPicking, tooMany } from './list.js';
import type { RuleKind, TypedRule } from './models.js';

const compiled = new WeakMap<readonly string[], Map<string, Catalog>>();

/** The typed values as a list to look things up in, each shown by the kind of the field in the way of the house; compiled once. */
export function typedList({ values }: TypedRule, kind: FieldKind, locale: Locale): Catalog {
  const way = `${kind} ${JSON.stringify(locale)}`;
  const ways = compiled.get(values) ?? new Map<string, Catalog>();
  compiled.set(values, ways);
  const known = ways.get(way);
  if (known) return known;
  const items = values.map((value): Item => ({
    value,
    path: [],
    label: kind === 'several values' ? value : format(kind, value, locale),
    otherNames: [],
    state: 'offered',
    from: [],
  }));
  const list = compileCatalog('', 'the list', items);
  ways.set(way, list);
  return list;
}

const shownInSentence = 6;

export const typedRule: RuleKind<TypedRule> = {
  kind: 'typed',
  title: 'one value from a list typed here',
  asNew: { values: [], picking: plainPicking },
  fits: ['text', 'number', 'amount', 'percent', 'date', 'yes/no', 'several values'],

  judge: (rule, given, { kind }, context) =>
    kind === 'several values'
      ? findAllIn(typedList(rule, kind, context.locale), given, rule.picking.most, context, () => undefined)
      : findIn(typedList(rule, kind, context.locale), given, kind, context, () => undefined),

  stands(rule, value, { heading, kind }, { locale }) {
    const many = kind === 'several values' ? tooMany(value, rule.picking.most) : undefined;
    if (many) return { right: false, code: many.code, message: many.message };
    const list = typedList(rule, kind, locale);
    const wrong = valuesIn(value).find((one) => !itemWithValue(list, one));
    return wrong === undefined
      ? { right: true }
      : { right: false, code: 'outside', message: `“${wrong}” is not in the list of this ${heading}, so it is outside.` };
  },

  takes({ values, picking }, { several, kind = 'text', locale }) {
    const first = values
      .slice(0, shownInSentence)
      .map((value) => format(kind, value, locale))
      .map((text) => (text.includes(',') ? `“${text}”` : text))
      .join(', ');
    return [
      { text: howMany(picking.most, several), edits: 'kind' },
      { text: ' of ' },
      {
        text:
          values.length === 0
            ? 'no values yet'
            : values.length > shownInSentence
              ? `${first} and ${values.length - shownInSentence} more`
              : first,
        edits: 'values',
      },
    ];
  },

  faults: ({ values }) =>
    values.length === 0 ? [{ part: 'values', message: 'The list has no values yet, so nothing can be entered.' }] : [],
  checkable: ({ values }) => ({ check: { of: 'values', values }, lost: [] }),
  reads: () => [],

  list: (rule, kind, { locale }) => typedList(rule, kind, locale),
  values: ({ values }) => values,
  picking: ({ picking }) => picking,
  parts: ['picking'],
};
