// How a language writes dates and numbers, as its own tables (CLDR) have it; each can be chosen otherwise.
import type { Locale } from './models.js';

type Written = Pick<Locale, 'dateOrder' | 'decimalMark' | 'listMark' | 'firstDay'>;

/** The ways of writing that go with a language (BCP 47). Throws a RangeError where the tag is none. */
export function writtenIn(language: string): Required<Written> {
  const order = new Intl.DateTimeFormat(language, { year: 'numeric', month: '2-digit', day: '2-digit', timeZone: 'UTC' })
    .formatToParts(new Date(Date.UTC(2026, 10, 28)))
    .flatMap(({ type }) => (type === 'year' || type === 'month' || type === 'day' ? [type[0]] : []))
    .join('');
  const mark = new Intl.NumberFormat(language).formatToParts(1.5).find(({ type }) => type === 'decimal')?.value;
  const decimalMark = mark === ',' ? ',' : '.';
  return {
    dateOrder: order === 'mdy' || order === 'ymd' ? order : 'dmy',
    decimalMark,
    listMark: decimalMark === ',' ? ';' : ',',
    firstDay: firstDayIn(language),
  };
}

interface WeekInfo {
  readonly firstDay: number;
}

/** The first day of a week in the region of a language, 0 for Sunday; Monday where the tables are not there. */
function firstDayIn(language: string): number {
  const tag = new Intl.Locale(language) as Intl.Locale & { getWeekInfo?: () => WeekInfo; weekInfo?: WeekInfo };
  return ((tag.getWeekInfo?.() ?? tag.weekInfo)?.firstDay ?? 1) % 7;
}
