// From a stored value back to a text that means it.
import { format, joinedValues, valuesIn, type Locale } from '../values/index.js';
import { typedAs } from './list.js';
import type { JudgeContext, JudgedField } from './models.js';
import { catalogIdOf, listOf } from './ties.js';

/** The text that is stored as a value again when it is typed: of two items with one label the value itself. */
export function typedValue(
  field: Pick<JudgedField, 'kind' | 'rule'>,
  value: string,
  catalogs: JudgeContext['catalogs'],
  locale: Locale,
  today?: string,
): string {
  const list = catalogIdOf(field.rule) === undefined ? undefined : listOf(field, catalogs, locale);
  if (!list) return format(field.kind, value, locale);
  const typed = (one: string) => typedAs(list, one, field.kind, { locale, ...(today && { today }) });
  return field.kind === 'several values' ? format(field.kind, joinedValues(valuesIn(value).map(typed)), locale) : typed(value);
}
