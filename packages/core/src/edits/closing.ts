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
export const isClosed = (closing: Closing, cells: Cells, today: string): boolean =>
  Object.keys(cells).length > 0 && closes(closing, cells, today);

/** Whether what an entry holds closes it, where it holds anything at all; the fields that are read are enough. */
export function closes({ where, after }: Closing, cells: Cells, today: string): boolean {
  if (where && where.conditions.length > 0 && passes(where, (key) => cells[key] ?? '')) return true;
  const since = after ? (cells[after.field] ?? '') : '';
  return after !== null && isOfKind('date', since) && dayNumber(today) - dayNumber(since) > after.days;
}

/** The fields that say whether an entry is closed. */
export const closingReads = ({ where, after }: Closing): readonly FieldId[] => [
  ...new Set([...(where?.conditions.map(({ field }) => field) ?? []), ...(after ? [after.field] : [])]),
];

/** What closes an entry, in words: "Status is “Departed” or Arrival is more than 30 days ago". */
export function closingClause(
  { where, after }: Closing,
  fields: readonly Pick<RegisterField, 'key' | 'heading' | 'kind'>[],
  locale: Locale,
): string {
  const known = new Map(fields.map((field) => [field.key, field]));
  const heading = (key: FieldId) => known.get(key)?.heading ?? key;
  const shown = (key: FieldId, value: string) => format(known.get(key)?.kind ?? 'text', value, locale);
  const ago = ({ days }: { days: number }) => (days === 0 ? 'before today' : `more than ${days} ${days === 1 ? 'day' : 'days'} ago`);
  return [
    ...(where && where.conditions.length > 0 ? [filterClause(where, heading, shown)] : []),
    ...(after ? [`${heading(after.field)} is ${ago(after)}`] : []),
  ].join(', or ');
}

/** When entries are closed, in a sentence. */
export const closingSentence = (...said: Parameters<typeof closingClause>): string => `An entry is closed where ${closingClause(...said)}.`;

/** What is said to whoever would change a closed entry. */
export const closedWords = (...said: Parameters<typeof closingClause>): string =>
  `This entry is closed, since ${closingClause(...said)}. Only administrators change it now.`;
