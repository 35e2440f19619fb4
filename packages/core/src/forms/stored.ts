// The values in a layout as their fields store them; what a kind does not read stays as it was typed, and is found.
import type { Condition, Filter } from '../catalogs/index.js';
import type { FieldId, RegisterField } from '../registers/index.js';
import { clean } from '../text/index.js';
import { parse, type Locale } from '../values/index.js';
import type { FormLayout } from './models.js';

/** Comparisons with a whole value; others look for a piece of text. */
const whole: ReadonlySet<Condition['is']> = new Set(['is', 'is not', 'at least', 'at most']);

/** The layout with every value of a condition, and every beginning, as it is stored. Idempotent. */
export function storedLayout(layout: FormLayout, fields: readonly RegisterField[], locale: Locale): FormLayout {
  const stored = (key: FieldId, text: string): string => {
    const field = fields.find((known) => known.key === key);
    const parsed = field && field.kind !== 'several values' ? parse(field.kind, text, locale) : undefined;
    return parsed?.ok ? parsed.value : clean(text);
  };
  const filterOf = (filter: Filter | null): Filter | null =>
    filter && filter.conditions.length > 0
      ? {
          all: filter.all,
          conditions: filter.conditions.map(({ field, is, value }) => ({
            field,
            is,
            value: whole.has(is) ? stored(field, value) : clean(value),
          })),
        }
      : null;
  return {
    ...layout,
    sections: layout.sections.map((section) => ({
      ...section,
      where: filterOf(section.where),
      fields: section.fields.map((one) => ({
        ...one,
        begins: one.begins === null ? null : stored(one.field, one.begins),
        where: filterOf(one.where),
      })),
    })),
  };
}
