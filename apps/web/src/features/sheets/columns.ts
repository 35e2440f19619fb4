// The columns of an entry sheet and what their headings say of the rule.
import { kindLabel } from '@dellum/core';
import type { BuildView, FieldView, RegisterView } from '@dellum/contract';
import type { GridColumn } from '../../grid/index.js';

/** Which rule a field has, in a few words. */
export function ruleInShort(field: FieldView, build: BuildView): string {
  if (field.rule) return build.catalogs.find(({ id }) => id === field.rule!.catalogId)?.title ?? 'a catalog';
  return field.kind === 'text' ? 'any text' : kindLabel(field.kind);
}

export const columnsOf = (register: RegisterView, build: BuildView): GridColumn[] =>
  register.fields.map((field) => ({
    key: field.key,
    heading: field.heading,
    rule: ruleInShort(field, build),
    fromCatalog: field.rule !== null,
    width: field.width,
    align: field.kind === 'number' || field.kind === 'percent' ? 'end' : 'start',
  }));
