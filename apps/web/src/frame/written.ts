// How the house writes counts and moments on every page; set as soon as it is known in which house one is.
import type { Locale } from '@dellum/core';

type Writing = Pick<Locale, 'language' | 'decimalMark' | 'timeZone'>;

const made = (writing: Writing) => ({
  writing,
  numbers: new Intl.NumberFormat(writing.language, { maximumFractionDigits: 4 }),
  moments: new Intl.DateTimeFormat(writing.language, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', ...(writing.timeZone && { timeZone: writing.timeZone }) }),
});

let now = made({ language: 'en-GB', decimalMark: '.' });

/** From now on counts and moments are written as this house writes them. */
export function writeAs({ language, decimalMark, timeZone }: Writing): void {
  const { writing } = now;
  if (writing.language === language && writing.decimalMark === decimalMark && writing.timeZone === timeZone) return;
  now = made({ language, decimalMark, ...(timeZone && { timeZone }) });
}

/** A count, or a number with decimals, with the signs of the house. */
export const number = {
  format: (value: number): string => {
    const mark = now.writing.decimalMark;
    return now.numbers
      .formatToParts(value)
      .map((part) => (part.type === 'decimal' ? mark : part.type === 'group' && part.value === mark ? (mark === ',' ? '.' : ',') : part.value))
      .join('');
  },
};

/** A day with its time, in the zone of the house. */
export const moment = { format: (value: Date): string => now.moments.format(value) };
