// What the entries of a register must satisfy, as JSON Schema (draft 2020-12) for other programs. It never refuses what Dellum takes; what
// it cannot say is left to the check.
import { isOffered, type Catalog, type Item } from '../catalogs/index.js';
import { grouped } from '../group.js';
import { catalogAtLevel } from '../cascades/index.js';
import type { FieldId } from '../registers/index.js';
import {
  blankIsWrong,
  checkableOf,
  filledBy,
  fillsItself,
  pickingOf,
  type NumberBound,
  type PlainCheck,
  type Rule,
} from '../rules/index.js';
import type { FieldKind } from '../values/index.js';
import { plainValue } from './plainValue.js';

export interface SchemaField {
  readonly key: FieldId;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly rule: Rule | null;
}
export interface SchemaContext {
  /** The catalogs that the rules name, compiled, by id. */
  readonly catalogs: ReadonlyMap<string, Catalog>;
  /** The house's day (ISO 8601): what is offered on it. */
  readonly today: string;
}
export interface JsonSchema {
  readonly [keyword: string]: unknown;
}
type ListCheck = Extract<PlainCheck, { of: 'list' }>;

const types: { readonly [Kind in FieldKind]: JsonSchema } = {
  text: { type: 'string' },
  number: { type: 'number' },
  amount: { type: 'number' },
  percent: { type: 'number' },
  date: { type: 'string', format: 'date' },
  'yes/no': { type: 'boolean' },
  'several values': { type: 'array', items: { type: 'string' }, uniqueItems: true },
};

/** The schema of one entry. Values are as in {@link plainValue}; a blank cell is left out. */
export function schemaOf(title: string, fields: readonly SchemaField[], context: SchemaContext): JsonSchema {
  const lists = new Map<string, JsonSchema>();
  const filled = new Set(fields.flatMap(({ rule }) => filledBy(rule)));
  const properties = fields.map((field) => [field.key, propertyOf(field, lists, context)] as const);
  const under = fields.flatMap((field) => underParents(field, fields, context));
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    type: 'object',
    properties: Object.fromEntries(properties),
    required: fields.filter((field) => mustBeGiven(field) && !filled.has(field.key)).map(({ key }) => key),
    additionalProperties: false,
    ...(under.length > 0 && { allOf: under }),
    ...(lists.size > 0 && { $defs: Object.fromEntries(lists) }),
  };
}

const mustBeGiven = (field: SchemaField): boolean =>
  blankIsWrong(field) && field.rule?.where === null && field.rule.begins.with === 'empty' && !fillsItself(field.rule);

/** Values that a rule refuses; of others each is taken, marked or asked for. */
const refuses = ({ rule }: SchemaField): boolean => rule?.others === 'refuse';

function propertyOf(field: SchemaField, lists: Map<string, JsonSchema>, context: SchemaContext): JsonSchema {
  const { heading, kind, rule } = field;
  const { check } = checkableOf(rule);
  const base = { title: heading, ...(rule?.hint && { description: rule.hint }), ...(rule?.readOnly && { readOnly: true }), ...types[kind] };
  if (!check || !refuses(field)) return base;
  const most = pickingOf(rule)?.most ?? null;
  const oneOf = (values: JsonSchema): JsonSchema =>
    kind === 'several values' ? { ...base, items: values, ...(most !== null && { maxItems: most }) } : { ...base, ...values };
  switch (check.of) {
    case 'list': {
      const name = `${check.catalogId}/${check.level ?? 'deepest'}/${kind}${check.day === null ? '' : '/any day'}`;
      const catalog = context.catalogs.get(check.catalogId)!;
      lists.set(name, { title: catalog.title, enum: valuesOf(catalogAtLevel(catalog, check.level).items, kind, check, context) });
      return oneOf({ $ref: `#/$defs/${encodeURIComponent(name.replaceAll('~', '~0').replaceAll('/', '~1'))}` });
    }
    case 'values':
      return oneOf({ enum: check.values.map((value) => plainOne(kind, value)) });
    case 'numbers':
      return { ...base, ...bound('minimum', check.least), ...bound('maximum', check.most), ...(check.whole && { multipleOf: 1 }) };
    case 'length':
      return {
        ...base,
        ...(check.least !== null && { minLength: check.least }),
        ...(check.most !== null && { pattern: atMost(check.most) }),
      };
    case 'pattern':
      return { ...base, ...(isKnownElsewhere(check.pattern) && { pattern: `^(?:${check.pattern})$` }) };
    case 'days':
      return base;
  }
}

const plainOne = (kind: FieldKind, value: string) => (kind === 'several values' ? value : plainValue(kind, value));

const valuesOf = (items: readonly Item[], kind: FieldKind, { day }: ListCheck, { today }: SchemaContext) => [
  ...new Set(
    items.filter((item) => (day === null ? isOffered(item, today) : item.state === 'offered')).map(({ value }) => plainOne(kind, value)),
  ),
];

/** What a field takes under each choice of its parents. */
function underParents(field: SchemaField, fields: readonly SchemaField[], context: SchemaContext): JsonSchema[] {
  const { check } = checkableOf(field.rule);
  if (check?.of !== 'list' || check.parents.length === 0 || !refuses(field)) return [];
  const { all } = context.catalogs.get(check.catalogId)!;
  const kinds = check.parents.map((key) => fields.find((one) => one.key === key)?.kind ?? 'text');
  const paths = all.filter(({ path }) => path.length === check.parents.length - 1).map(({ path, value }) => [...path, value]);
  const children = grouped(
    all.filter(({ path }) => path.length === check.parents.length),
    ({ path }) => JSON.stringify(path),
  );
  return paths.map((path) => {
    const values = valuesOf(children.get(JSON.stringify(path)) ?? [], field.kind, check, context);
    const holds = check.parents.map((key, at) => [key, { const: plainValue(kinds[at]!, path[at]!) }] as const);
    const allowed = values.length === 0 ? false : field.kind === 'several values' ? { items: { enum: values } } : { enum: values };
    return { if: { properties: Object.fromEntries(holds), required: check.parents }, then: { properties: { [field.key]: allowed } } };
  });
}

const bound = (keyword: string, edge: NumberBound | null): JsonSchema => (edge?.of === 'number' ? { [keyword]: Number(edge.number) } : {});

/** People count characters otherwise than programs do: only where the two cannot differ is a length refused. */
const atMost = (most: number): string => `^(?:[\\u0000-\\u000c\\u000e-\\u007f]{0,${most}}|[\\s\\S]*[\\r\\u0080-\\u{10ffff}][\\s\\S]*)$`;

/** Whether a pattern of RE2 means the same in ECMAScript, which JSON Schema asks for. */
function isKnownElsewhere(pattern: string): boolean {
  if (/\.|\\[^dw\d\\^$.|?*+()[\]{}/-]|\[\[:|\(\?/u.test(pattern.replaceAll(/\\[.\\]/gu, ''))) return false;
  try {
    return new RegExp(pattern, 'u').source !== '';
  } catch {
    return false;
  }
}
