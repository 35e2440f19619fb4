// What a cell holds may be taken back, in whatever way it is written.
import { clean } from '../text/index.js';
import { format, isOfKind, joinedValues, parse, readTypedList } from '../values/index.js';
import type { Given } from './given.js';
import type { JudgeContext, JudgedField } from './models.js';

/** Whether what is given and is not blank means what the cell holds: it may always be taken back. */
export function meansHeld(
  { kind }: Pick<JudgedField, 'kind'>,
  { typed: text, chosen }: Given,
  held: string,
  { locale, today }: Pick<JudgeContext, 'locale' | 'today'>,
): boolean {
  if (held === '') return false;
  if (text === undefined) return chosen === held;
  if (kind === 'several values') return text === held || joinedValues(readTypedList(text, locale).values) === held;
  if (kind === 'text' || !isOfKind(kind, held)) return text === held;
  const parsed = parse(kind, text, locale, today);
  // What is shown of it means it, too, where nobody could type it: an amount with more decimals than the currency of today has.
  return parsed.ok ? parsed.value === held : clean(text) === format(kind, held, locale);
}
