// The days of a house: where they begin and end, and which one it is.
import type { Locale } from '@dellum/core';
import { sql } from 'kysely';
import type { Reader } from '../database/database.js';

const ownZone = new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The time zone in which the days of a house begin and end: its own, or that of the server. */
export const zoneOf = ({ timeZone }: Pick<Locale, 'timeZone'>): string => timeZone ?? ownZone;

/** The last second of a day (ISO 8601) of the house. */
export async function endOfDay(db: Reader, day: string, locale: Pick<Locale, 'timeZone'>): Promise<Date> {
  const { rows } = await sql<{ at: Date }>`
    select (${day}::date + 1)::timestamp at time zone ${zoneOf(locale)} - interval '1 second' as at`.execute(db);
  return rows[0]!.at;
}

/** One a time zone: making it takes longer than all else of an edit that is reckoned here. */
const formats = new Map<string, Intl.DateTimeFormat>();

function formatIn(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone) ?? new Intl.DateTimeFormat('en', { year: 'numeric', month: '2-digit', day: '2-digit', timeZone });
  formats.set(timeZone, known);
  return known;
}

/** The house's day (ISO 8601). */
export function todayOf(moment: Date, locale: Pick<Locale, 'timeZone'>): string {
  const parts = new Map(
    formatIn(zoneOf(locale))
      .formatToParts(moment)
      .map(({ type, value }) => [type, value]),
  );
  return `${parts.get('year')}-${parts.get('month')}-${parts.get('day')}`;
}
