// A sheet with its rules and lists out of a JSON Schema (draft 2020-12) that somebody else wrote: the other direction of `schemaOf.ts`, for
// what of such a schema one entry of plain values can be asked. Nothing that a schema points at outside of itself is followed.
import { clean, freeAmong, freeFieldKey, longestName, longestText, longestValue, storable } from '../text/index.js';
import { isOfKind, type FieldKind } from '../values/index.js';
import {
  newRule,
  patternFault,
  plainPicking,
  type CatalogRule,
  type LengthRule,
  type NumberRule,
  type Rule,
  type RuleBase,
  type TypedRule,
} from '../rules/index.js';
import { conceptParts, type ConceptParts } from './conceptParts.js';
import type { PartsField, PartsRegister } from './houseParts.js';
import { storedFor } from './plainValue.js';
import type { ReadConcept, ReadScheme } from './readConcepts.js';
import { cascadesIn, type Cascade } from './schemaCascades.js';
import { deref, elsewhereIn, isObject, objectsIn, offeredIn, textIn, type Members, type Offered } from './schemaMembers.js';

export interface SchemaParts extends ConceptParts {
  /** What of the schema is not taken over, in sentences. */
  readonly said: readonly string[];
}

const width = 140;
const longestHint = 400;
const longestNote = 500;
const longestPattern = 500;
/** So many of several values can be asked for at most. */
const mostPicked = 100;
/** So many values are typed into a rule at most. */
const mostInRule = 1000;
/** A sheet gets so many fields at most. */
const mostFields = 300;
/** More values are a list of their own. */
const mostTyped = 12;
/** Numbers with so many digits after the mark are asked for by a rule. */
const mostDecimals = 9;

/** A field as the schema has it. */
interface ReadField {
  /** Its name there. */
  readonly name: string;
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly said: Members;
  /** What one value of it is. */
  readonly one: Members;
  readonly required: boolean;
  readonly offered: Offered | undefined;
}

/** Undefined for what is no schema of objects with properties. `newId`: an id that is nobody's. */
export function schemaParts(held: unknown, newId: () => string): SchemaParts | undefined {
  const schema = entrySchema(held);
  if (!schema || !isObject(schema['properties'])) return undefined;
  const left: string[] = [];
  const fields = fieldsIn(schema, left);
  if (fields.length === 0) return undefined;
  const { cascades, dependent } = cascadesIn(
    schema,
    new Map(fields.map(({ name, offered }) => [name, offered?.values.map(({ value }) => value) ?? []])),
  );
  const lists = listsOf(fields, cascades);
  const made = conceptParts(
    lists.map(({ scheme }) => scheme),
    newId,
    'Lists',
  );
  const listed = new Map(
    lists.flatMap(({ members }, at) =>
      members.map((member) => [member.name, { ...member, catalogId: made.parts.catalogs[at]!.id }] as const),
    ),
  );
  const title = nameOf(textIn(schema['title'])) || 'Entries';
  const keys = new Map(fields.map(({ name, key }) => [name, key]));
  const register: PartsRegister = {
    ...{ id: newId(), title, closing: null },
    fields: fields.map((field): PartsField => {
      const { key, heading, kind } = field;
      return { key, heading, kind, width, group: '', rule: ruleOf(field, listed.get(field.name), keys, left) };
    }),
  };
  left.push(...unlistedIn(fields, dependent, listed), ...unsaidUnder(fields, cascades), ...unsaidIn(schema));
  const sheet = {
    ...{ id: newId(), kind: 'entry' as const, title, note: shortened(textIn(schema['description']), longestNote), shown: false },
    ...{ limited: false, downloads: true, groups: [], registers: [register] },
  };
  return { parts: { ...made.parts, sheets: [sheet, ...made.parts.sheets] }, rows: made.rows, said: left };
}

/** Fields that depend on others in a way that is no list of levels. */
const unlistedIn = (fields: readonly ReadField[], dependent: ReadonlySet<string>, listed: ReadonlyMap<string, Listing>): string[] =>
  fields
    .filter(({ name }) => dependent.has(name) && (listed.get(name)?.parents.length ?? 0) === 0)
    .map(({ heading }) => `“${heading}”: what it may be by what other fields hold is left out.`);

function unsaidUnder(fields: readonly ReadField[], cascades: readonly Cascade[]): string[] {
  const headings = new Map(fields.map(({ name, heading }) => [name, heading]));
  return cascades.flatMap(({ chain, unsaid }) =>
    [...unsaid].map(([name, count]) => {
      const [own, parent] = [headings.get(name)!, headings.get(chain[chain.indexOf(name) - 1]!)!];
      return `“${own}”: it is not said what it may be under ${counted(count)} of “${parent}”; nothing is offered there.`;
    }),
  );
}

const counted = (values: number): string => (values === 1 ? '1 value' : `${values.toLocaleString('en-GB')} values`);

/** Keywords by which more is said of an entry than a sheet asks. */
const unknownHere = [
  'not',
  'else',
  'anyOf',
  'oneOf',
  'dependentRequired',
  'patternProperties',
  'propertyNames',
  'minProperties',
  'maxProperties',
];
function unsaidIn(schema: Members): string[] {
  const parts = [schema, ...objectsIn(schema['allOf'])];
  const found = unknownHere.filter((keyword) => parts.some((part) => part[keyword] !== undefined));
  return found.length === 0 ? [] : [`What the schema says of whole entries by ${found.map((one) => `“${one}”`).join(', ')} is left out.`];
}

/** The schema of one entry: of what a list holds, where it is of a list. What it points at stands in the root. */
function entrySchema(held: unknown): Members | undefined {
  if (!isObject(held)) return undefined;
  const root = whole(held, held);
  const own = isObject(root['items']) && !isObject(root['properties']) ? whole(root['items'], held) : root;
  return { ...own, $defs: held['$defs'], definitions: held['definitions'] };
}

/** A schema of objects with what it points at, and with the members of all that it is made of. */
function whole(held: Members, root: Members): Members {
  const target = typeof held['$ref'] === 'string' ? deref({ $ref: held['$ref'] }, root) : {};
  const parts = [target, ...objectsIn(held['allOf']).map((part) => deref(part, root)), held];
  const own = { ...target, ...held };
  const properties = parts.map((part) => part['properties']).filter(isObject);
  if (properties.length === 0) return own;
  return { ...own, properties: Object.assign({}, ...properties) as Members, required: parts.flatMap(({ required }) => required ?? []) };
}

/** So much of a text as is kept of it. */
const shortened = (text: string | undefined, most: number): string => clean(storable((text ?? '').slice(0, most)));
const nameOf = (text: string | undefined): string => shortened(text, longestName);

function fieldsIn(schema: Members, left: string[]): ReadField[] {
  const required = new Set(Array.isArray(schema['required']) ? schema['required'] : []);
  const fields: ReadField[] = [];
  const all = Object.entries(schema['properties'] as Members);
  for (const [name, held] of all.slice(0, mostFields)) {
    const said = isObject(held) ? deref(held, schema) : {};
    const several = typesIn(said).includes('array');
    const one = several && isObject(said['items']) ? deref(said['items'], schema) : said;
    const offered = offeredIn(one);
    const heading = freeAmong(
      nameOf(textIn(said['title']) ?? name) || 'Field',
      fields.map((field) => field.heading),
    );
    const key = freeFieldKey(
      name,
      fields.map((field) => field.key),
    );
    const kind = several ? 'several values' : kindOf(said, offered);
    const elsewhere = elsewhereIn(held) ?? elsewhereIn(said['items']);
    if (elsewhere !== undefined) left.push(`“${heading}”: what is said of it elsewhere (${elsewhere.slice(0, 100)}) is not asked.`);
    if (typesIn(said).includes('object') || typesIn(one).includes('array'))
      left.push(`“${heading}” is made of several members there; it is kept as a text.`);
    fields.push({ name, key, heading, kind, said, one, required: required.has(name) && !typesIn(said).includes('null'), offered });
  }
  if (all.length > mostFields) left.push(`${(all.length - mostFields).toLocaleString('en-GB')} fields more than a sheet has are left out.`);
  return fields;
}

const typesIn = ({ type }: Members): readonly unknown[] => (Array.isArray(type) ? type : [type]);

function kindOf(said: Members, offered: Offered | undefined): FieldKind {
  const types = typesIn(said);
  const values = offered?.plain ?? [];
  const are = (type: string) => values.length > 0 && values.every((value) => typeof value === type);
  if (types.includes('integer') || types.includes('number') || are('number')) return 'number';
  if (types.includes('boolean') || are('boolean')) return 'yes/no';
  return said['format'] === 'date' ? 'date' : 'text';
}

/** A list, and the fields that choose from it, each at its level. */
interface SchemaList {
  readonly scheme: ReadScheme;
  readonly members: readonly Listed[];
}
interface Listed {
  readonly name: string;
  /** Null where the list has but one. */
  readonly level: number | null;
  /** The names of the fields that hold its parents. */
  readonly parents: readonly string[];
}

const isWord = ({ kind }: ReadField): boolean => kind === 'text' || kind === 'several values';
/** Values are typed into a rule where they are few, nobody else chooses from them, and they are called as they are. */
const isShort = (offered: Offered, among: readonly ReadField[]): boolean =>
  offered.values.length <= mostTyped &&
  offered.values.every(({ label }) => label === undefined) &&
  among.filter((other) => other.offered && sameAs(other.offered) === sameAs(offered)).length === 1;
const sameAs = ({ values }: Offered): string => JSON.stringify(values);

function listsOf(fields: readonly ReadField[], cascades: readonly Cascade[]): SchemaList[] {
  const known = new Map(fields.map((field) => [field.name, field]));
  const lists: SchemaList[] = [];
  const done = new Set<string>();
  for (const { chain, paths } of cascades) {
    const members = chain.flatMap((name) => known.get(name) ?? []);
    if (members.length < chain.length || members.some((field, at) => (at < chain.length - 1 ? field.kind !== 'text' : !isWord(field))))
      continue;
    lists.push({
      scheme: { title: members.at(-1)!.heading, concepts: conceptsOf(paths, members) },
      members: chain.flatMap((name, level) => (done.has(name) ? [] : [{ name, level, parents: chain.slice(0, level) }])),
    });
    for (const name of chain) done.add(name);
  }
  const shared = new Map<string, ReadField[]>();
  for (const field of fields) {
    if (!field.offered || !isWord(field) || done.has(field.name) || isShort(field.offered, fields)) continue;
    const key = sameAs(field.offered);
    shared.set(key, [...(shared.get(key) ?? []), field]);
  }
  for (const own of shared.values()) {
    const { offered, heading } = own[0]!;
    const paths = offered!.values.map(({ value }) => [value]);
    lists.push({
      scheme: { title: nameOf(offered!.title) || heading, concepts: conceptsOf(paths, own.slice(0, 1)) },
      members: own.map(({ name }) => ({ name, level: null, parents: [] })),
    });
  }
  return lists;
}

/** Values under their parents, each once. */
function conceptsOf(paths: readonly (readonly string[])[], members: readonly ReadField[]): ReadConcept[] {
  const labels = members.map(({ offered }) => new Map(offered?.values.map(({ value, label }) => [value, label])));
  return paths.map((all): ReadConcept => {
    const value = all.at(-1)!;
    return { value, path: all.slice(0, -1), label: labels[all.length - 1]?.get(value) ?? value, otherNames: [], retired: false };
  });
}

/** What a new entry holds at first; '' for nothing, and for what cannot stand in it. */
function beginningOf(plain: unknown, kind: FieldKind): string {
  const stored = plain === undefined ? '' : (storedFor(kind, plain) ?? '');
  return stored === '' || !isOfKind(kind, stored) || stored.length > longestValue || storable(stored) !== stored ? '' : stored;
}

type Listing = Listed & { readonly catalogId: string };

function ruleOf(field: ReadField, listed: Listing | undefined, keys: ReadonlyMap<string, string>, left: string[]): Rule | null {
  const { said, kind, required } = field;
  const begins = beginningOf(said['default'], kind);
  const words: Partial<RuleBase> = {
    mayBeBlank: !required,
    hint: shortened(textIn(said['description']), longestHint),
    ...(said['readOnly'] === true && { readOnly: true }),
    ...(begins !== '' && { begins: { with: 'value' as const, value: begins } }),
  };
  const rule = listed ? listedRule(listed, keys) : (offeredRule(field, left) ?? boundedRule(field, left));
  const isPlain = required === false && words.hint === '' && !words.readOnly && !words.begins;
  if (!rule) return isPlain ? null : { ...newRule('plain'), ...words };
  const most = said['maxItems'];
  return 'picking' in rule && kind === 'several values' && Number.isInteger(most) && Number(most) > 0 && Number(most) <= mostPicked
    ? { ...rule, ...words, picking: { ...plainPicking, most: Number(most) } }
    : { ...rule, ...words };
}

const listedRule = ({ catalogId, level, parents }: Listing, keys: ReadonlyMap<string, string>): CatalogRule => ({
  ...newRule('catalog'),
  ...{ catalogId, level, parents: parents.map((name) => keys.get(name)!) },
});

function offeredRule({ offered, kind, heading }: ReadField, left: string[]): TypedRule | undefined {
  if (!offered || kind === 'yes/no') return undefined;
  const stored =
    isNumber(kind) || kind === 'date'
      ? offered.plain.flatMap((plain) => storedFor(kind, plain) ?? [])
      : offered.values.map(({ value }) => value);
  const values = [...new Set(stored)].filter((value) => value !== '' && isOfKind(kind, value));
  if (values.length > mostInRule) {
    left.push(`“${heading}”: which ${values.length.toLocaleString('en-GB')} values it may have is left out; a rule holds ${mostInRule}.`);
    return undefined;
  }
  return values.length > 0 ? { ...newRule('typed'), values } : undefined;
}

const isNumber = (kind: FieldKind): boolean => kind === 'number';

/** The longest text that `schemaOf` says by a pattern. */
const mostCharacters = /\{0,(\d+)\}\|\[\\s\\S\]\*\[\\r/u;

function boundedRule({ one, heading, kind }: ReadField, left: string[]): Rule | undefined {
  if (isNumber(kind)) return numberRule(one, heading, left);
  if (kind === 'several values' && (lengthRule(one) || one['pattern'] !== undefined))
    left.push(`“${heading}”: how each of its values must be written is left out.`);
  if (kind !== 'text') return undefined;
  const pattern = textIn(one['pattern']);
  const most = pattern === undefined ? undefined : mostCharacters.exec(pattern)?.[1];
  const length = lengthRule(most === undefined ? one : { ...one, maxLength: Number(most) });
  if (pattern === undefined || most !== undefined) return length;
  const whole = wholePattern(pattern);
  if (whole.length > longestPattern || storable(whole) !== whole || patternFault(whole) !== undefined) {
    left.push(`“${heading}”: its pattern (${pattern.slice(0, 100)}) is none that is understood here, and is left out.`);
    return length;
  }
  if (length) left.push(`“${heading}”: its length is left out, since it has a pattern, too.`);
  return { ...newRule('pattern'), pattern: whole };
}

function lengthRule(one: Members): LengthRule | undefined {
  const asLength = (held: unknown) => (Number.isInteger(held) && Number(held) > 0 && Number(held) <= longestText ? Number(held) : null);
  const [least, most] = [asLength(one['minLength']), asLength(one['maxLength'])];
  // One character at least is what is no blank.
  const from = least === 1 ? null : least;
  return from === null && most === null ? undefined : { ...newRule('length'), least: from, most };
}

function numberRule(one: Members, heading: string, left: string[]): NumberRule | undefined {
  const isWhole = typesIn(one).includes('integer');
  const decimals = isWhole ? 0 : decimalsIn(one['multipleOf']);
  if (one['multipleOf'] !== undefined && decimals === null)
    left.push(`“${heading}”: that it goes in steps of ${String(one['multipleOf'])} is left out.`);
  const bound = (included: string, excluded: string, step: number) => {
    const [with_, without] = [one[included], one[excluded]];
    if (typeof without === 'number' && decimals === 0 && Number.isInteger(without)) return without + step;
    if (typeof without === 'number') left.push(`“${heading}”: ${without} itself is taken, too.`);
    return typeof with_ === 'number' ? with_ : typeof without === 'number' ? without : undefined;
  };
  const as = (number: number | undefined) => {
    const stored = number === undefined ? undefined : storedFor('number', number);
    return stored === undefined ? null : { of: 'number' as const, number: stored };
  };
  const [least, most] = [as(bound('minimum', 'exclusiveMinimum', 1)), as(bound('maximum', 'exclusiveMaximum', -1))];
  return least === null && most === null && decimals === null ? undefined : { ...newRule('number'), least, most, decimals };
}

/** Digits after the mark: 2 for steps of 0.01; null for what are no such steps. */
function decimalsIn(step: unknown): number | null {
  if (typeof step !== 'number') return null;
  for (let digits = 0; digits <= mostDecimals; digits++) if (step === Number(`1e-${digits}`)) return digits;
  return null;
}

/** A pattern of ECMAScript, which is sought anywhere in a text, as one of RE2 that the whole text matches. */
function wholePattern(pattern: string): string {
  const written = pattern.replaceAll(/\\u\{?([\da-f]{4,6})\}?/giu, '\\x{$1}');
  const inner = /^\^(?:\(\?:(.*)\)|(.*))\$$/su.exec(written);
  const own = inner?.[1] ?? inner?.[2];
  if (own !== undefined && !own.endsWith('\\') && isWhole(own, inner?.[1] !== undefined)) return own;
  return `(?s:.*)(?:${written})(?s:.*)`;
}

/** Whether it may stand without what was around it: no sign of it parts it, or closes what was opened before. */
function isWhole(pattern: string, wasGrouped: boolean): boolean {
  let [depth, inClass] = [0, false];
  for (const [sign] of pattern.matchAll(/\\.|[^\\]/gsu)) {
    if (inClass) inClass = sign !== ']';
    else if (sign === '[') inClass = true;
    else if (sign === '(') depth += 1;
    else if (sign === ')') depth -= 1;
    else if (sign === '|' && depth === 0 && !wasGrouped) return false;
    if (depth < 0) return false;
  }
  return depth === 0;
}
