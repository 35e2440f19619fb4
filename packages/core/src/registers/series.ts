// Series: what carries on from the values that are given. 1, 2, 3; "Gate 1, Gate 2"; days, weeks, months; a cycle.
import { dayNumber, dayOf, monthsAfter } from '../values/index.js';

/** A text with a number in it: what stands before and after, and how wide the number is written. */
interface Numbered {
  readonly head: string;
  readonly number: number;
  readonly width: number;
  readonly tail: string;
}

const lastNumber = /^(.*?)(\d+)(\D*)$/u;

function numbered(text: string): Numbered | undefined {
  const found = lastNumber.exec(text);
  if (!found || found[2]!.length > 15) return undefined;
  return { head: found[1]!, number: Number(found[2]), width: found[2]!.startsWith('0') ? found[2]!.length : 0, tail: found[3]! };
}

const isDay = /^\d{4}-\d{2}-\d{2}$/u;

/** Months between two days of the same day of the month; undefined when they are not whole months apart. */
function monthsBetween(from: string, to: string): number | undefined {
  if (from.slice(8) !== to.slice(8)) return undefined;
  const count = (day: string) => Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7));
  return count(to) - count(from);
}

type Next = (at: number) => string;

function days(given: readonly string[]): Next | undefined {
  if (!given.every((text) => isDay.test(text))) return undefined;
  const first = given[0]!;
  if (given.length === 1) return (at) => dayOf(dayNumber(first) + at);
  const months = monthsBetween(first, given[1]!);
  if (months && given.every((day, at) => day === monthsAfter(first, months * at))) return (at) => monthsAfter(first, months * at);
  const step = dayNumber(given[1]!) - dayNumber(first);
  return given.every((day, at) => dayNumber(day) === dayNumber(first) + step * at)
    ? (at) => dayOf(dayNumber(first) + step * at)
    : undefined;
}

function numbers(given: readonly string[]): Next | undefined {
  const parts = given.map(numbered);
  const first = parts[0];
  if (!first) return undefined;
  const step = parts.length > 1 ? (parts[1]?.number ?? NaN) - first.number : 1;
  const fits = parts.every(
    (part, at) => part && part.head === first.head && part.tail === first.tail && part.number === first.number + step * at,
  );
  if (!fits) return undefined;
  return (at) => `${first.head}${String(Math.max(0, first.number + step * at)).padStart(first.width, '0')}${first.tail}`;
}

/**
 * The next `count` values after the given ones: dates by day, week or month; numbers, also inside a text, by their step;
 * anything else repeats as a cycle.
 */
export function series(given: readonly string[], count: number): string[] {
  if (given.length === 0) return [];
  const next = days(given) ?? numbers(given) ?? ((at: number) => given[at % given.length]!);
  return Array.from({ length: count }, (_, at) => next(given.length + at));
}
