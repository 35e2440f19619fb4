// What somebody gives for a field: a text to be understood, or the value they chose. Neither is ever read as the other: a chosen 1 in a
// percentage is 100 %, a typed one is 1 %.
import { clean, isBlank } from '../text/index.js';
import { format, isOfKind, joinedValues, kindLabel, namesNone, parse, readTypedList, valuesIn } from '../values/index.js';
import type { FieldKind, Locale, Parsed } from '../values/index.js';
import type { JudgeContext } from './models.js';

/** `typed`: as it was typed. `chosen`: the value as it is stored, blank for none. */
export type Given = { readonly typed: string; readonly chosen?: undefined } | { readonly chosen: string; readonly typed?: undefined };

export const isNothing = (given: Given): boolean => isBlank(given.typed ?? given.chosen);

/** The text itself, or what is shown of what was chosen. */
export const wordsOf = (kind: FieldKind, given: Given, locale: Locale): string => given.typed ?? format(kind, given.chosen, locale);

/** What it means by the kind of the field alone. */
export function readGiven(kind: FieldKind, given: Given, { locale, today }: Pick<JudgeContext, 'locale' | 'today'>): Parsed {
  if (given.typed !== undefined) return parse(kind, given.typed, locale, today);
  // A text is written in one way only, whoever gives it.
  if (kind === 'text') return parse(kind, given.chosen, locale, today);
  if (kind === 'several values') return { ok: true, value: joinedValues(chosenParts(given.chosen)) };
  if (isOfKind(kind, given.chosen)) return { ok: true, value: given.chosen };
  return { ok: false, reason: `“${given.chosen}” is not ${kindLabel(kind)}.` };
}

const chosenParts = (chosen: string): string[] =>
  valuesIn(chosen)
    .map(clean)
    .filter((one) => !isBlank(one));

/** Each of several values by itself. */
export const partsOf = (given: Given, locale: Locale): Given[] =>
  given.typed !== undefined
    ? readTypedList(given.typed, locale).values.map((typed) => ({ typed }))
    : chosenParts(given.chosen).map((chosen) => ({ chosen }));

/** Nothing but the marks between several values is nothing. */
export const asMeant = (kind: FieldKind, given: Given, locale: Locale): Given =>
  kind === 'several values' && given.typed !== undefined && !isBlank(given.typed) && namesNone(given.typed, locale) ? { typed: '' } : given;
