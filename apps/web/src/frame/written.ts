// How the house writes counts and moments on every page; set as soon as it is known in which house one is.
import { format, houseLocale, type FieldKind, type Locale } from '@dellum/core';

const made = (writing: Locale) => ({
  exact: new Intl.DateTimeFormat(writing.language, {
    dateStyle: 'medium',
    timeStyle: 'medium',
    ...(writing.timeZone && { timeZone: writing.timeZone }),
  }),
  writing,
  numbers: new Intl.NumberFormat(writing.language, { maximumFractionDigits: 4 }),
  moments: new Intl.DateTimeFormat(writing.language, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    ...(writing.timeZone && { timeZone: writing.timeZone }),
  }),
});

let now = made(houseLocale);

/** From now on counts and moments are written as this house writes them. */
export function writeAs(locale: Locale): void {
  if (now.writing !== locale) now = made(locale);
}

/** How this house writes. */
export const writing = (): Locale => now.writing;

/** A stored value of a kind. */
export const written = (kind: FieldKind, value: string): string => format(kind, value, now.writing);

/** In what manner the house writes now. */
export const houseWriting = (): Locale => now.writing;

/** A count, or a number with decimals, with the signs of the house. */
export const number = {
  format: (value: number): string => {
    const mark = now.writing.decimalMark;
    return now.numbers
      .formatToParts(value)
      .map((part) =>
        part.type === 'decimal' ? mark : part.type === 'group' && part.value === mark ? (mark === ',' ? '.' : ',') : part.value,
      )
      .join('');
  },
};

/** A day of its year with its time to the second, in the zone of the house. */
export const exactMoment = { format: (value: Date): string => now.exact.format(value) };

/** A day with its time, in the zone of the house. */
export const moment = { format: (value: Date): string => now.moments.format(value) };

/** So many entries, in words. */
export const entries = (count: number): string => `${number.format(count)} ${count === 1 ? 'entry' : 'entries'}`;
