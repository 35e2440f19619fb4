// What a stored value shows: the label of its item where the rule takes values from a catalog, else by its kind.
import { catalogIdOf, format, itemWithValue, listOf, joinedValues, valuesIn, type Catalog, type Item, type Locale } from '@dellum/core';
import type { FieldView } from '@dellum/contract';

type Shown = Pick<FieldView, 'kind' | 'rule'>;

/** The item that a value is in the catalog of its field; undefined where there is none, or its catalog is still coming. */
export function itemOf(field: Shown, value: string, catalogs: ReadonlyMap<string, Catalog>, locale: Locale): Item | undefined {
  const list = catalogIdOf(field.rule) === undefined ? undefined : listOf(field, catalogs, locale);
  return list && itemWithValue(list, value);
}

export function shownValue(field: Shown, value: string, catalogs: ReadonlyMap<string, Catalog>, locale: Locale): string {
  if (field.kind === 'several values')
    return format(field.kind, joinedValues(valuesIn(value).map((one) => itemOf(field, one, catalogs, locale)?.label ?? one)), locale);
  return itemOf(field, value, catalogs, locale)?.label ?? format(field.kind, value, locale);
}
