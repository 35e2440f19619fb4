// Stored values as other programs write them (JSON): numbers as numbers, days as in ISO 8601, yes and no as true and false, several
// values as a list. A text stays a text.
import { hasList, typedValue, type Given, type JudgeContext, type JudgedField } from '../rules/index.js';
import { isNumeric, isOfKind, joinedValues, valuesIn, type FieldKind } from '../values/index.js';

export type PlainValue = string | number | boolean | readonly string[];

/** The value as other programs read it; a number that JSON would change stays a text. */
export function plainValue(kind: FieldKind, value: string): PlainValue {
  if (kind === 'several values') return valuesIn(value);
  if (kind === 'yes/no' && isOfKind(kind, value)) return value === 'yes';
  return isNumeric(kind) && isOfKind(kind, value) && String(Number(value)) === value ? Number(value) : value;
}

/**
 * What is stored for a value as another program wrote it, blank for null; undefined for what no value of the kind can be. Texts come back
 * as they are: they may be values, or names of them.
 */
export function storedFor(kind: FieldKind, plain: unknown): string | undefined {
  if (plain === null) return '';
  if (typeof plain === 'string') return plain === '' || (kind !== 'several values' && kind !== 'yes/no') ? plain : undefined;
  if (typeof plain === 'boolean') return kind === 'yes/no' ? (plain ? 'yes' : 'no') : undefined;
  if (typeof plain === 'number') return isNumeric(kind) && isOfKind(kind, String(plain)) ? String(plain) : undefined;
  const areTexts =
    Array.isArray(plain) &&
    plain.every((one) => typeof one === 'string' && valuesIn(one).length === 1) &&
    new Set(plain).size === plain.length;
  return areTexts && kind === 'several values' ? joinedValues(plain as string[]) : undefined;
}

const written: { readonly [Kind in FieldKind]: string } = {
  text: 'a text',
  number: 'a number',
  amount: 'a number',
  percent: 'a number, 0.05 for 5 %',
  date: 'a day like 2026-11-05',
  'yes/no': 'true or false',
  'several values': 'a list of texts, each once',
};

/**
 * What a value of another program is judged as: a number, a day or a yes as the value it is, a text as if it had been typed, since it may be
 * the name of one in a list; or why it can be none.
 */
export function givenByPlain(
  field: Pick<JudgedField, 'heading' | 'kind' | 'rule'>,
  plain: unknown,
  { catalogs, locale }: Pick<JudgeContext, 'catalogs' | 'locale'>,
): Given | { readonly fault: string } {
  const { heading, kind, rule } = field;
  const value = storedFor(kind, plain);
  if (value === '') return { typed: '' };
  // What is no value of the kind may be the name of one in a list.
  if (value === undefined || (!isOfKind(kind, value) && !hasList(rule))) return { fault: `${heading} takes ${written[kind]}.` };
  if (!isOfKind(kind, value)) return { typed: value };
  return kind === 'text' || kind === 'several values' ? { typed: typedValue(field, value, catalogs, locale) } : { chosen: value };
}
