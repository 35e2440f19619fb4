// Laying out a form: fields and sections are put in, moved and taken out. Whatever is done, a field is asked once.
import type { FieldId } from '../registers/index.js';
import type { FormField, FormLayout, FormSection } from './models.js';

const newField = (field: FieldId): FormField => ({ field, help: '', control: null, wide: false, begins: null, where: null });

/** Puts a field, new or asked already, into a section above another field, or at its end (null). */
export function placeField(layout: FormLayout, field: FieldId, sectionId: string, before: FieldId | null): FormLayout {
  if (before === field || !layout.sections.some(({ id }) => id === sectionId)) return layout;
  const placed = layout.sections.flatMap(({ fields }) => fields).find((one) => one.field === field) ?? newField(field);
  const without = takeOut(layout, field);
  return changeSection(without, sectionId, (section) => {
    const at = section.fields.findIndex((one) => one.field === before);
    const place = at < 0 ? section.fields.length : at;
    return { ...section, fields: [...section.fields.slice(0, place), placed, ...section.fields.slice(place)] };
  });
}

export const takeOut = (layout: FormLayout, field: FieldId): FormLayout => ({
  ...layout,
  sections: layout.sections.map((section) => ({ ...section, fields: section.fields.filter((one) => one.field !== field) })),
});

export const changeField = (layout: FormLayout, field: FieldId, change: Partial<FormField>): FormLayout => ({
  ...layout,
  sections: layout.sections.map((section) => ({
    ...section,
    fields: section.fields.map((one) => (one.field === field ? { ...one, ...change } : one)),
  })),
});

export const changeSection = (layout: FormLayout, id: string, change: (section: FormSection) => FormSection): FormLayout => ({
  ...layout,
  sections: layout.sections.map((section) => (section.id === id ? change(section) : section)),
});

/** A new section at the end. */
export const addSection = (layout: FormLayout, id: string, heading: string): FormLayout => ({
  ...layout,
  sections: [...layout.sections, { id, heading, help: '', columns: 2, where: null, fields: [] }],
});

/** Takes a section out; its fields are not asked any more. */
export const dropSection = (layout: FormLayout, id: string): FormLayout => ({
  ...layout,
  sections: layout.sections.filter((section) => section.id !== id),
});

/** Moves a section so many places down (up, when negative), as far as there are places. */
export function moveSection(layout: FormLayout, id: string, by: number): FormLayout {
  const from = layout.sections.findIndex((section) => section.id === id);
  const section = layout.sections[from];
  if (!section) return layout;
  const rest = layout.sections.filter((other) => other !== section);
  const to = Math.max(0, Math.min(rest.length, from + by));
  return { ...layout, sections: [...rest.slice(0, to), section, ...rest.slice(to)] };
}
