// When an entry is closed: nobody but administrators changes or deletes it then.
import { filterClause, passes, type Filter } from '../catalogs/index.js';
import type { Cells, FieldId, RegisterField } from '../registers/index.js';
import { dayNumber, format, isOfKind, type Locale } from '../values/index.js';

export interface Closing {
  /** Entries that pass this are closed; null for none. */
  readonly where: Filter | null;
  /** Entries are closed when so many days have gone by since the date in a field; null for never. */
  readonly after: { readonly field: FieldId; readonly days: number } | null;
}

/** Whether an entry is closed on a day (ISO 8601). One that holds nothing never is. */
export function isClosed({ where, after }: Closing, cells: Cells, today: string): boolean {
  if (Object.keys(cells).length === 0) return false;
  if (where && where.conditions.length > 0 && passes(where, (key) => cells[key] ?? '')) return true;
  const since = after ? (cells[after.field] ?? '') : '';
  return after !== null && isOfKind('date', since) && dayNumber(today) - dayNumber(since) > after.days;
}

/** The fields that say whether an entry is closed. */
export const closingReads = ({ where, after }: Closing): readonly FieldId[] => [
  ...new Set([...(where?.conditions.map(({ field }) => field) ?? []), ...(after ? [after.field] : [])]),
];

/** When entries are closed, in words: "Status is “Departed”, or more than 30 days after Arrival". */
export function closingClause(
  { where, after }: Closing,
  fields: readonly Pick<RegisterField, 'key' | 'heading' | 'kind'>[],
  locale: Locale,
): string {
  const known = new Map(fields.map((field) => [field.key, field]));
  const heading = (key: FieldId) => known.get(key)?.heading ?? key;
  const shown = (key: FieldId, value: string) => format(known.get(key)?.kind ?? 'text', value, locale);
  const days =
    after &&
    (after.days === 0
      ? `after the day in ${heading(after.field)}`
      : `more than ${after.days} ${after.days === 1 ? 'day' : 'days'} after ${heading(after.field)}`);
  return [...(where && where.conditions.length > 0 ? [filterClause(where, heading, shown)] : []), ...(days ? [days] : [])].join(', or ');
}

/** What is said to whoever would change a closed entry. */
export const closedWords = (closing: Closing, fields: Parameters<typeof closingClause>[1], locale: Locale): string =>
  `This entry is closed: ${closingClause(closing, fields, locale)}. Only administrators change it now.`;
