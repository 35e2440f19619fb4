// What is wrong with a layout, found while it is made: whoever fills the form must be able to get through it.
import type { Catalog } from '../catalogs/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import { cellsOfNew, filledBy, judge, parentsOf, type CascadeField } from '../rules/index.js';
import { format, type Locale } from '../values/index.js';
import { neverHolds } from './conditions.js';
import { controlOf, lengthOfList, mostIn } from './controls.js';
import { askedIn, type Control, type FormField, type FormLayout } from './models.js';
import { conditionsOf } from './shown.js';

export interface LayoutFinding {
  readonly what:
    | 'nothing asked'
    | 'gone'
    | 'twice'
    | 'child first'
    | 'parent not asked'
    | 'unreachable'
    | 'never holds'
    | 'goes round'
    | 'list too long'
    | 'begins refused'
    | 'read only';
  /** The field, or the section, at which it stands; neither where it is about the whole form. */
  readonly field?: FieldId;
  readonly section?: string;
  readonly message: string;
}
export interface LayoutContext {
  readonly fields: readonly CascadeField[];
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly locale: Locale;
  readonly today: string;
}

/** Whether a form with this fault cannot be published; the others are worth a look. */
export const stopsPublishing = ({ what }: LayoutFinding): boolean => what !== 'list too long';

/** A layout that asks all fields in one section, parents before their children. */
export function newLayout(fields: readonly CascadeField[]): FormLayout {
  const depth = ({ rule }: CascadeField) => parentsOf(rule).length;
  const first = new Map<FieldId, number>();
  fields.forEach((field, at) => first.set(field.key, at));
  // A child comes after the last of its parents, all else stays where it is.
  const place = (field: CascadeField): number =>
    Math.max(first.get(field.key)!, ...parentsOf(field.rule).map((key) => (first.get(key) ?? -1) + 0.5));
  const ordered = [...fields].sort((a, b) => place(a) - place(b) || depth(a) - depth(b));
  const asked = ordered.map(({ key }): FormField => ({ field: key, help: '', control: null, wide: false, begins: null, where: null }));
  return { intro: '', thanks: '', sections: [{ id: 'first', heading: '', help: '', columns: 2, where: null, fields: asked }] };
}

/** The faults of a layout, those of the whole form first, then as the fields are asked. */
export function layoutFindings(layout: FormLayout, context: LayoutContext): LayoutFinding[] {
  const asked = askedIn(layout);
  const known = new Map(context.fields.map((field) => [field.key, field]));
  if (asked.length === 0) return [{ what: 'nothing asked', message: 'The form asks nothing yet. Put a field into it.' }];
  const begins = cellsOfNew(
    context.fields.filter(({ key }) => !asked.some(({ field }) => field === key)),
    undefined,
    context.today,
  );
  const standing = standingOf(layout, context, begins);
  return [
    ...unreachable(asked, context, begins, standing),
    ...roundFindings(layout, known),
    ...layout.sections.flatMap(({ id, heading, where, fields }): LayoutFinding[] => {
      const never = where && neverHolds([where], standing);
      const own = never
        ? [
            {
              what: 'never holds' as const,
              section: id,
              message: `${heading === '' ? 'This section' : heading} is shown only where ${never}.`,
            },
          ]
        : [];
      return [
        ...own,
        ...fields.flatMap((one) =>
          fieldFindings(one, asked, never ? [] : [where, one.where].flatMap((filter) => filter ?? []), {
            ...context,
            known,
            begins,
            standing,
          }),
        ),
      ];
    }),
  ];
}

type Standing = Parameters<typeof neverHolds>[1];

/**
 * What fields can hold while the form is filled: those that it asks and can show, those that begin with something, and those that are
 * brought along.
 */
function standingOf(layout: FormLayout, { fields, catalogs }: LayoutContext, begins: Cells): Standing {
  const conditions = conditionsOf(layout);
  const brought = broughtBy(fields, new Set(conditions.keys()));
  const working = new Set<FieldId>();
  const answers = new Map<FieldId, boolean>();
  const standing: Standing = {
    fields,
    catalogs,
    canHold(field) {
      const asked = conditions.get(field);
      if (!asked) return begins[field] !== undefined || brought.has(field);
      const before = answers.get(field);
      if (before !== undefined) return before;
      if (working.has(field)) return true;
      working.add(field);
      const can = neverHolds(asked, standing) === undefined;
      working.delete(field);
      answers.set(field, can);
      return can;
    },
  };
  return standing;
}

/** The fields that some asked fields fill: with companions, and parents upwards. */
const broughtBy = (fields: readonly CascadeField[], asked: ReadonlySet<FieldId>): ReadonlySet<FieldId> =>
  new Set(fields.flatMap(({ key, rule }) => (asked.has(key) ? filledBy(rule) : [])));

function unreachable(asked: readonly FormField[], { fields }: LayoutContext, begins: Cells, standing: Standing): LayoutFinding[] {
  const places = new Set(asked.map(({ field }) => field));
  const brought = broughtBy(fields, places);
  return fields.flatMap(({ key, heading, rule }): LayoutFinding[] => {
    if (!rule || rule.mayBeBlank || rule.where) return [];
    if (places.has(key))
      return standing.canHold(key)
        ? []
        : [{ what: 'unreachable', field: key, message: `${heading} must not be blank, but the form never comes to ask it.` }];
    return begins[key] !== undefined || brought.has(key)
      ? []
      : [
          {
            what: 'unreachable',
            message: `${heading} must not be blank, but the form does not ask it. Put it into the form, or let new entries begin with a value.`,
          },
        ];
  });
}

/** The asked fields from which a field may be filled without being typed: by what their item brings along, or as a parent of theirs. */
const fillersOf = (key: FieldId, known: ReadonlyMap<FieldId, CascadeField>): FieldId[] =>
  [...known.values()].filter(({ rule }) => filledBy(rule).includes(key)).map((field) => field.key);

/** Conditions that lead back to their own field: over what they read, and over what fills that. */
function roundFindings(layout: FormLayout, known: ReadonlyMap<FieldId, CascadeField>): LayoutFinding[] {
  const conditions = conditionsOf(layout);
  const conditionsRead = (field: FieldId) =>
    (conditions.get(field) ?? []).flatMap((filter) => filter.conditions.map((condition) => condition.field));
  const reads = (field: FieldId) => [...conditionsRead(field), ...fillersOf(field, known).filter((key) => conditions.has(key))];
  const wayBack = (from: FieldId): FieldId[] | undefined => {
    const queue = conditionsRead(from).map((key) => [key]);
    const met = new Set<FieldId>();
    for (const way of queue) {
      const last = way.at(-1)!;
      if (last === from) return way;
      if (met.has(last)) continue;
      met.add(last);
      queue.push(...reads(last).map((key) => [...way, key]));
    }
    return undefined;
  };
  return [...conditions.keys()].flatMap((field): LayoutFinding[] => {
    const way = wayBack(field);
    const headingOf = (key: FieldId) => known.get(key)?.heading ?? key;
    return way
      ? [
          {
            what: 'goes round',
            field,
            message: `Whether ${headingOf(field)} is shown depends on itself${way.length > 1 ? ` by way of ${way.slice(0, -1).map(headingOf).join(', then ')}` : ''}.`,
          },
        ]
      : [];
  });
}

interface FieldContext extends LayoutContext {
  readonly known: ReadonlyMap<FieldId, CascadeField>;
  readonly begins: Cells;
  readonly standing: Standing;
}

function fieldFindings(
  one: FormField,
  asked: readonly FormField[],
  conditions: Parameters<typeof neverHolds>[0],
  context: FieldContext,
): LayoutFinding[] {
  const field = context.known.get(one.field);
  if (!field)
    return [{ what: 'gone', field: one.field, message: `The sheet has no field “${one.field}” any more. Take it out of the form.` }];
  if (asked.find((other) => other.field === one.field) !== one)
    return [{ what: 'twice', field: one.field, message: `${field.heading} is asked twice.` }];
  const never = neverHolds(conditions, context.standing);
  return [
    ...(never ? [{ what: 'never holds' as const, field: one.field, message: `${field.heading} is shown only where ${never}.` }] : []),
    ...(field.rule?.readOnly
      ? [
          {
            what: 'read only' as const,
            field: one.field,
            message: `Only administrators change ${field.heading}, so nobody could answer it. Take it out of the form.`,
          },
        ]
      : []),
    ...parentFindings(one, field, asked, context),
    ...controlFindings(one, field, context),
    ...beginFindings(one, field, context),
  ];
}

function parentFindings(
  one: FormField,
  { heading, rule }: CascadeField,
  asked: readonly FormField[],
  { known, begins, fields }: FieldContext,
): LayoutFinding[] {
  const own = asked.indexOf(one);
  const fills = filledBy(rule);
  const brought = broughtBy(fields, new Set(asked.map(({ field }) => field)));
  return parentsOf(rule).flatMap((parent): LayoutFinding[] => {
    const at = asked.findIndex(({ field }) => field === parent);
    const above = known.get(parent)?.heading ?? parent;
    if (at > own && !fills.includes(parent))
      return [
        {
          what: 'child first',
          field: one.field,
          message: `${heading} is asked before ${above}, which decides what it offers. Put ${above} first.`,
        },
      ];
    if (at < 0 && !fills.includes(parent) && begins[parent] === undefined && !brought.has(parent))
      return [
        {
          what: 'parent not asked',
          field: one.field,
          message: `${heading} offers what is under ${above}, which the form does not ask, so nothing could be chosen. Put ${above} before it.`,
        },
      ];
    return [];
  });
}

const shows: Partial<Record<Control, string>> = {
  'radio buttons': 'radio buttons, which show',
  'check boxes': 'check boxes, which show',
  'drop-down': 'a drop-down, which shows',
  'open list': 'an open list, which shows',
};

function controlFindings({ field: key, control: chosen }: FormField, field: CascadeField, { catalogs }: FieldContext): LayoutFinding[] {
  const length = lengthOfList(field.rule, catalogs);
  const control = controlOf(field, chosen, length);
  const most = mostIn(control);
  if (most === undefined || length === undefined || length <= most) return [];
  return [
    {
      what: 'list too long',
      field: key,
      message: `${field.heading} has ${length.toLocaleString('en-GB')} values, too many for ${shows[control] ?? control} ${most} well. Let it be picked by typing.`,
    },
  ];
}

function beginFindings(
  { field: key, begins }: FormField,
  field: CascadeField,
  { catalogs, locale, today, fields }: FieldContext,
): LayoutFinding[] {
  const own = field.rule?.begins.with === 'value' ? field.rule.begins.value : '';
  const value = begins ?? own;
  if (value === '') return [];
  // What depends on other answers is judged when they are there.
  const verdict = judge(
    { ...field, rule: field.rule && { ...field.rule, where: null, noRepeats: false } },
    { chosen: value },
    { locale, today, catalogs, fields, designs: true },
  );
  return verdict.verdict === 'refused'
    ? [
        {
          what: 'begins refused',
          field: key,
          message: `${field.heading} begins with “${format(field.kind, value, locale)}”, which its own rule refuses: ${verdict.message}`,
        },
      ]
    : [];
}
