// Reckoning with calendar days (ISO 8601, no time zone).

const dayLength = 86_400_000;

/** Whole days since 1970-01-01. */
export const dayNumber = (day: string): number => Date.parse(`${day}T00:00:00Z`) / dayLength;
export const dayOf = (number: number): string => new Date(number * dayLength).toISOString().slice(0, 10);

/** The day so many days after another (before, when negative). */
export const daysAfter = (day: string, days: number): string => dayOf(dayNumber(day) + days);

/** The same day so many months on; the last day of a month that is too short for it. */
export function monthsAfter(day: string, months: number): string {
  const at = Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1 + months;
  const [year, month] = [Math.floor(at / 12), (at % 12) + 1];
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
  return `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(Math.min(Number(day.slice(8)), last)).padStart(2, '0')}`;
}
