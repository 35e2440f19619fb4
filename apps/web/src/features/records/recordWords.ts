// What a record is called: by its first fields that hold something.
import type { EntryView, FieldView, RegisterView } from '@dellum/contract';

/** So many fields name a record, beside its first one. */
const besides = 1;

export function recordTitle(register: RegisterView, entry: EntryView, shown: (entry: EntryView, field: FieldView) => string): string {
  const texts = register.fields.map((field) => shown(entry, field)).filter((text) => text !== '');
  return texts.length === 0 ? 'Blank entry' : texts.slice(0, 1 + besides).join(' · ');
}
