// Calendar days without a time zone, stored as ISO 8601 (2026-11-24).
import { matchKey } from '../text/index.js';
import { daysAfter } from './days.js';
import { read, unread, type Locale, type ValueKind } from './models.js';

const daysIn = (year: number, month: number) => new Date(Date.UTC(year, month, 0)).getUTCDate();
const pad = (number: number, width: number) => String(number).padStart(width, '0');

function fullYear(text: string, locale: Locale): number {
  const year = Number(text);
  if (text.length > 2) return year;
  return year <= locale.yearPivot ? 2000 + year : 1900 + year;
}

function partsInOrder(parts: readonly string[], locale: Locale): { year: string; month: string; day: string } {
  const [a, b, c] = parts as [string, string, string];
  if (a.length === 4 || locale.dateOrder === 'ymd') return { year: a, month: b, day: c };
  return locale.dateOrder === 'dmy' ? { day: a, month: b, year: c } : { month: a, day: b, year: c };
}

const nearDays: Readonly<Record<string, number>> = { today: 0, tomorrow: 1, yesterday: -1 };

/** "today", "tomorrow", "yesterday", "+3", "-1" (days from today; a real minus too). */
function nearDay(text: string, today: string): string | undefined {
  const typed = matchKey(text).replace('−', '-');
  const days = nearDays[typed] ?? (/^[+-]\d{1,4}$/u.test(typed) ? Number(typed) : undefined);
  return days === undefined ? undefined : daysAfter(today, days);
}

const wrong = (text: string) => unread(`“${text}” is not a day of the calendar.`);

export const dateKind: ValueKind = {
  kind: 'date',
  label: 'a date',
  parse(text, locale, today) {
    const near = today === undefined ? undefined : nearDay(text, today);
    if (near !== undefined) return read(near);
    const parts = matchKey(text).split(/\s*[-./ ]\s*/u).filter((part) => part !== '');
    if (parts.length !== 3 || parts.some((part) => !/^\d{1,4}$/u.test(part))) return wrong(text);
    const named = partsInOrder(parts, locale);
    if (named.year.length === 3 || named.year.length === 1) return wrong(text);
    const year = fullYear(named.year, locale);
    const month = Number(named.month);
    const day = Number(named.day);
    if (named.month.length > 2 || named.day.length > 2 || year < 1) return wrong(text);
    if (month < 1 || month > 12 || day < 1 || day > daysIn(year, month)) return wrong(text);
    return read(`${pad(year, 4)}-${pad(month, 2)}-${pad(day, 2)}`);
  },
  format(value, locale) {
    const [year, month, day] = value.split('-') as [string, string, string];
    if (locale.dateOrder === 'ymd') return value;
    return locale.dateOrder === 'dmy' ? `${day}.${month}.${year}` : `${month}/${day}/${year}`;
  },
};
