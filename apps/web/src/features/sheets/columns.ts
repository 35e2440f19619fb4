// The columns of an entry sheet and what their headings say of the rule.
import { catalogIdOf, isNumeric, kindLabel, picksFrom, ruleAs, ruleTakes } from '@dellum/core';
import { mayDesign, type BuildView, type FieldView, type Me, type RegisterView } from '@dellum/contract';
import type { GridColumn } from '../../grid/index.js';
import { plainNames } from '../bindings/plainNames.js';

/** Which rule a field has, in a few words. */
export function ruleInShort(field: FieldView, register: RegisterView, build: BuildView, me: Me): string {
  const taken = takenInShort(field, register, build, me);
  return field.rule?.readOnly && !mayDesign(me.role) ? `read only; ${taken}` : taken;
}

function takenInShort(field: FieldView, register: RegisterView, build: BuildView, me: Me): string {
  const catalogId = catalogIdOf(field.rule);
  if (catalogId !== undefined) return build.catalogs.find(({ id }) => id === catalogId)?.title ?? 'a catalog';
  if (field.rule && !ruleAs('plain', field.rule)) return ruleTakes(field.rule, plainNames({ field, register, build, me }));
  return field.kind === 'text' ? 'any text' : kindLabel(field.kind);
}

/** `fields`: those that are shown, in their order. */
export const columnsOf = (fields: readonly FieldView[], register: RegisterView, build: BuildView, me: Me): GridColumn[] =>
  fields.map((field) => ({
    key: field.key,
    heading: field.heading,
    rule: ruleInShort(field, register, build, me),
    fromCatalog: catalogIdOf(field.rule) !== undefined,
    width: field.width,
    align: isNumeric(field.kind) ? 'end' : 'start',
    ...openedBy(field),
  }));

/** What a cell of the field opens: the list of its rule, or the calendar of a date. */
function openedBy({ kind, rule }: FieldView): Pick<GridColumn, 'opens'> {
  if (picksFrom(rule)) return { opens: 'list' };
  return kind === 'date' ? { opens: 'calendar' } : {};
}
