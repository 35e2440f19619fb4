// Door of the values: kinds, parse and format.
import { amountKind } from './amount.js';
import { dateKind, isDay } from './date.js';
import type { FieldKind, Locale, Parsed, ValueKind } from './models.js';
import { numberKind } from './number.js';
import { percentKind } from './percent.js';
import { severalKind } from './several.js';
import { textKind } from './text.js';
import { yesNoKind } from './yesNo.js';
import { longestValue } from '../text/index.js';

export { Exact } from './exact.js';
export { dayNumber, dayOf, daysAfter, monthsAfter } from './days.js';
export { joinedMark, joinedValues, namesNone, valuesIn, writeSeveral } from './several.js';
export { readTypedList, writeTypedList, type TypedList } from './typedList.js';
export { readChoices, type ReadChoices } from './choices.js';
export { writtenIn } from './localeOf.js';
export { dateOrders, decimalMarks, fieldKinds, houseLocale, listMarks, type FieldKind, type Locale, type Parsed } from './models.js';

const kinds: { readonly [Kind in FieldKind]: ValueKind } = {
  text: textKind,
  number: numberKind,
  amount: amountKind,
  percent: percentKind,
  date: dateKind,
  'yes/no': yesNoKind,
  'several values': severalKind,
};

/** What a kind is called in a sentence: "a date", "text". */
export const kindLabel = (kind: FieldKind): string => kinds[kind].label;

/** What a field of this kind takes without a rule: "any text", "any percentage", "yes or no". */
export const anyOfKind = (kind: FieldKind): string => (kind === 'yes/no' ? 'yes or no' : `any ${kindLabel(kind).replace(/^an? /u, '')}`);

/** Reads what was typed into a field of this kind: the value to store, or the reason why it cannot be one. */
export function parse(kind: FieldKind, text: string, locale: Locale, today?: string): Parsed {
  // No number and no day is that long; reading it would take its time.
  if (kind !== 'text' && kind !== 'several values' && text.length > longestValue)
    return { ok: false, reason: `A text of ${text.length} characters is not ${kindLabel(kind)}. Shorten it.` };
  return kinds[kind].parse(text, locale, today);
}

/** Shows a stored value. A value that the kind did not make (the kind was changed since) is shown as it is. */
export function format(kind: FieldKind, value: string, locale: Locale): string {
  return isOfKind(kind, value) ? kinds[kind].format(value, locale) : value;
}

const isDecimal = (value: string): boolean => /^-?(?:0|[1-9]\d*)(?:\.\d*[1-9])?$/u.test(value);
const isAny = () => true;

const isStored: { readonly [Kind in FieldKind]: (value: string) => boolean } = {
  text: isAny,
  number: isDecimal,
  amount: isDecimal,
  percent: isDecimal,
  date: isDay,
  'yes/no': (value) => value === 'yes' || value === 'no',
  'several values': isAny,
};

/** Whether values of this kind are numbers: they are compared by size and can be added up. */
export const isNumeric = (kind: FieldKind): boolean => kind === 'number' || kind === 'amount' || kind === 'percent';

/** True when a stored value is in the canonical form of the kind. */
export const isOfKind = (kind: FieldKind, value: string): boolean => isStored[kind](value);
