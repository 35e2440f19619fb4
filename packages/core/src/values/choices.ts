// Choices typed or pasted for a field: each read by its kind, so that one kind of value is stored.
import { parse, type FieldKind, type Locale } from './index.js';
import { readTypedList } from './typedList.js';

export type ReadChoices = { readonly ok: true; readonly values: readonly string[] } | { readonly ok: false; readonly reason: string };

/** The stored values of the choices, in their order and each once; or why one of them is no value of the kind. */
export function readChoices(typed: string, kind: FieldKind, locale: Locale, today: string): ReadChoices {
  const values: string[] = [];
  for (const text of readTypedList(typed, locale).values) {
    const parsed = kind === 'several values' ? { ok: true as const, value: text } : parse(kind, text, locale, today);
    if (!parsed.ok) return parsed;
    values.push(parsed.value);
  }
  return { ok: true, values: [...new Set(values)] };
}
