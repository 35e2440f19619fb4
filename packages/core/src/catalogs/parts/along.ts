// What comes along with a value from its row: its label and its companions.
import type { Entry, FieldId, RegisterState } from '../../registers/index.js';
import { clean } from '../../text/index.js';
import { format, type Locale } from '../../values/index.js';
import type { CompanionField } from '../models.js';

export function companionFields(register: RegisterState | undefined, keys: readonly FieldId[]): CompanionField[] {
  return keys.flatMap((key) => register?.fields.find((field) => field.key === key) ?? []);
}

/** The label and the companions of one row. A value of a kind is labelled as the house writes it: 0.075 as 7.5 %. */
export function alongWith(
  entry: Entry | undefined,
  register: RegisterState,
  value: { key: FieldId; text: string },
  label: FieldId | null,
  companions: readonly FieldId[],
  locale: Locale,
): { label?: string; companions?: Record<string, string> } {
  const kind = register.fields.find(({ key }) => key === value.key)?.kind ?? 'text';
  const labelled = label ? clean(entry?.cells[label] ?? '') : kind === 'text' ? '' : format(kind, value.text, locale);
  const held = companions.flatMap((key) => (entry?.cells[key] === undefined ? [] : [[key, clean(entry.cells[key])] as const]));
  return {
    ...(labelled !== '' && labelled !== value.text && { label: labelled }),
    ...(held.length > 0 && { companions: Object.fromEntries(held) }),
  };
}
