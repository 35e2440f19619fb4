// Calendar days without a time zone, stored as ISO 8601 (2026-11-24).
import { matchKey } from '../text/index.js';
import { dayNumber, daysAfter } from './days.js';
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

const nearDays: ReadonlyMap<string, number> = new Map([
  ['today', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
]);

/** "today", "tomorrow", "yesterday", "+3", "-1" (days from today; a real minus too). */
function nearDay(text: string, today: string): string | undefined {
  const typed = matchKey(text).replace('−', '-');
  const days = nearDays.get(typed) ?? (/^[+-]\d{1,4}$/u.test(typed) ? Number(typed) : undefined);
  return days === undefined ? undefined : daysAfter(today, days);
}

/** The names of months in a language, long and short, alone and beside a day, by their match key without the dot. */
const monthNames = new Map<string, ReadonlyMap<string, number>>();

function monthsOf(language: string): ReadonlyMap<string, number> {
  const known = monthNames.get(language);
  if (known) return known;
  const names = new Map<string, number>();
  for (let month = 1; month <= 12; month++) {
    const first = new Date(Date.UTC(2026, month - 1, 1));
    for (const width of ['long', 'short'] as const) {
      const alone = new Intl.DateTimeFormat(language, { month: width, timeZone: 'UTC' }).format(first);
      const beside = new Intl.DateTimeFormat(language, { day: 'numeric', month: width, timeZone: 'UTC' })
        .formatToParts(first)
        .find(({ type }) => type === 'month')?.value;
      for (const name of [alone, beside ?? alone]) names.set(matchKey(name).replace(/\.$/u, ''), month);
    }
  }
  monthNames.set(language, names);
  return names;
}

/** So many letters of a month's name are enough when no other month begins with them. */
const leastLetters = 3;

/** The month that a name, or its beginning, means in the language of the house. */
function namedMonth(word: string, { language }: Locale): number | undefined {
  const names = monthsOf(language);
  const whole = names.get(word);
  if (whole !== undefined || word.length < leastLetters) return whole;
  const meant = new Set([...names].filter(([name]) => name.startsWith(word)).map(([, month]) => month));
  return meant.size === 1 ? [...meant][0] : undefined;
}

/** The year that brings a day without one nearest to today; the later of two equally near. 29 February looks further. */
function nearestYear(month: number, day: number, today: string): number | undefined {
  const now = Number(today.slice(0, 4));
  const years = [0, 1, -1, 2, -2, 3, -3, 4, -4].map((by) => now + by).filter((year) => day <= daysIn(year, month));
  const away = (year: number) => Math.abs(dayNumber(`${pad(year, 4)}-${pad(month, 2)}-${pad(day, 2)}`) - dayNumber(today));
  return years.sort((a, b) => away(a) - away(b) || b - a)[0];
}

/** Year, month and day as they were typed; the year may be left out. */
interface TypedDay {
  readonly year: string | undefined;
  readonly month: string;
  readonly day: string;
}

/** "28 November 2026", "Nov 28", "2026 Nov 28": one word is the month. */
function dayWithName(parts: readonly string[], locale: Locale): TypedDay | undefined {
  const at = parts.findIndex((part) => /\p{L}/u.test(part) && !/\d/u.test(part));
  const month = at < 0 ? undefined : namedMonth(parts[at]!, locale);
  const numbers = parts.filter((_, place) => place !== at).map((part) => part.replace(/^(\d{1,2})(?:st|nd|rd|th)$/u, '$1'));
  if (month === undefined || numbers.length === 0 || numbers.length > 2) return undefined;
  const [first, second] = numbers as [string, string | undefined];
  return first.length === 4 ? { year: first, month: String(month), day: second ?? '' } : { year: second, month: String(month), day: first };
}

function dayInNumbers(parts: readonly string[], locale: Locale): TypedDay | undefined {
  if (parts.length === 3) return partsInOrder(parts, locale);
  if (parts.length !== 2) return undefined;
  const [a, b] = parts as [string, string];
  return locale.dateOrder === 'dmy' ? { year: undefined, day: a, month: b } : { year: undefined, month: a, day: b };
}

const wrong = (text: string) => unread(`“${text}” is not a day of the calendar.`);

/** Whether a text is a day of the calendar as it is stored. */
export function isDay(text: string): boolean {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/u.exec(text);
  if (!found) return false;
  const [year, month, day] = [Number(found[1]), Number(found[2]), Number(found[3])];
  return year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysIn(year, month);
}

export const dateKind: ValueKind = {
  kind: 'date',
  label: 'a date',
  parse(text, locale, today) {
    const near = today === undefined ? undefined : nearDay(text, today);
    if (near !== undefined) return read(near);
    const parts = matchKey(text)
      .split(/[-./,\s]+/u)
      .filter((part) => part !== '');
    const typed = dayWithName(parts, locale) ?? dayInNumbers(parts, locale);
    if (!typed || [typed.month, typed.day].some((part) => !/^\d{1,2}$/u.test(part)) || !/^(?:\d\d|\d{4})?$/u.test(typed.year ?? ''))
      return wrong(text);
    const month = Number(typed.month);
    const day = Number(typed.day);
    if (month < 1 || month > 12 || day < 1) return wrong(text);
    const year =
      typed.year === undefined ? (today === undefined ? undefined : nearestYear(month, day, today)) : fullYear(typed.year, locale);
    if (year === undefined || year < 1 || day > daysIn(year, month)) return wrong(text);
    return read(`${pad(year, 4)}-${pad(month, 2)}-${pad(day, 2)}`);
  },
  format(value, locale) {
    const [year, month, day] = value.split('-') as [string, string, string];
    if (locale.dateOrder === 'ymd') return value;
    return locale.dateOrder === 'dmy' ? `${day}.${month}.${year}` : `${month}/${day}/${year}`;
  },
};
