// Which fields of a form are shown: those whose conditions hold, and those of their section. What is hidden counts as blank.
import { passes, type Filter } from '../catalogs/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import type { FormLayout } from './models.js';

/** The conditions under which each field of a layout is asked: its section's and its own. */
export const conditionsOf = ({ sections }: FormLayout): ReadonlyMap<FieldId, readonly Filter[]> =>
  new Map(
    sections.flatMap((section) =>
      section.fields.map((field) => [field.field, [section.where, field.where].flatMap((where) => where ?? [])] as const),
    ),
  );

/** The fields that are shown while the form holds `cells`. Conditions that go round count what closes the round as hidden. */
export function shownIn(layout: FormLayout, cells: Cells): ReadonlySet<FieldId> {
  const conditions = conditionsOf(layout);
  const known = new Map<FieldId, boolean>();
  const isShown = (field: FieldId): boolean => {
    const before = known.get(field);
    if (before !== undefined) return before;
    known.set(field, false);
    const shown = conditions
      .get(field)!
      .every((where) => passes(where, (key) => (!conditions.has(key) || isShown(key) ? (cells[key] ?? '') : '')));
    known.set(field, shown);
    return shown;
  };
  return new Set([...conditions.keys()].filter(isShown));
}
