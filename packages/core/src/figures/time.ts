// Steps of time: the day, week (from Monday, ISO 8601), month or year in which a day lies, named by its first day.
import { dayNumber, dayOf, daysAfter, isOfKind, monthsAfter } from '../values/index.js';
import type { TimeStep } from './models.js';

/** The first day of the step in which a day lies; '' for blank and for what is no day. */
export function stepOf(day: string, step: TimeStep): string {
  if (!isOfKind('date', day)) return '';
  switch (step) {
    case 'day':
      return day;
    case 'week':
      // 1970-01-01 was a Thursday.
      return dayOf(Math.floor((dayNumber(day) + 3) / 7) * 7 - 3);
    case 'month':
      return `${day.slice(0, 7)}-01`;
    case 'year':
      return `${day.slice(0, 4)}-01-01`;
  }
}

/** The first day of the next step. */
export function nextStep(first: string, step: TimeStep): string {
  return step === 'day' ? daysAfter(first, 1) : step === 'week' ? daysAfter(first, 7) : monthsAfter(first, step === 'month' ? 1 : 12);
}

/** The last day of a step. */
export const lastDayOf = (first: string, step: TimeStep): string => daysAfter(nextStep(first, step), -1);

/** So many steps without entries are shown between others; with more, only those that have entries. */
const mostSteps = 400;

/** All steps from the first to the last, those between them as well; blank comes last. */
export function stepsBetween(times: readonly string[], step: TimeStep): string[] {
  const known = [...new Set(times)].filter((time) => time !== '').sort();
  const blank = times.includes('') ? [''] : [];
  const [first, last] = [known[0], known.at(-1)];
  if (first === undefined || last === undefined) return blank;
  const all = [first];
  while (all.at(-1)! < last && all.length <= mostSteps) all.push(nextStep(all.at(-1)!, step));
  return all.length > mostSteps ? [...known, ...blank] : [...all, ...blank];
}
