// A table that somebody pastes: its headings, and the kind that the texts under each of them are of.
import { lookUp, type Catalog } from '../catalogs/index.js';
import { clean } from '../text/index.js';
import { parse, type FieldKind, type Locale } from '../values/index.js';

/** A field that the table could have. */
export interface ProposedField {
  readonly heading: string;
  readonly kind: FieldKind;
  /** How many cells are filled, and how many of them the kind does not read. */
  readonly filled: number;
  readonly unread: number;
  /** How often each text stands in the column, cleaned. */
  readonly counts: ReadonlyMap<string, number>;
}

/** A kind is proposed when it reads at least this share of what is filled. */
const mostly = 0.9;
/** What a kind is only when more than its reading says so: 1 and 0 are numbers, and 7 is no percentage. */
const looksLike: { readonly [Kind in FieldKind]?: RegExp } = { percent: /[%\uFF05\uFE6A]\s*$/u, 'yes/no': /^\D+$/u };
/** Leading zeros are part of a code: a text that begins so is no number. */
const isCode = /^0\d/u;

const guessed: readonly FieldKind[] = ['yes/no', 'date', 'percent', 'number', 'amount'];

/** The value that a text is where it is not known that it is of the kind; undefined when it is likely none: a code is no number. */
export function takenFor(kind: FieldKind, text: string, locale: Locale): string | undefined {
  if ((kind === 'number' || kind === 'amount') && isCode.test(text)) return undefined;
  const parsed = parse(kind, text, locale);
  return parsed.ok && (looksLike[kind]?.test(text) ?? true) ? parsed.value : undefined;
}

function proposed(heading: string, texts: readonly string[], locale: Locale): ProposedField {
  const counts = new Map<string, number>();
  for (const text of texts) if (text !== '') counts.set(text, (counts.get(text) ?? 0) + 1);
  const filled = texts.filter((text) => text !== '').length;
  const unreadBy = (kind: FieldKind) =>
    [...counts].reduce((sum, [text, entries]) => sum + (takenFor(kind, text, locale) !== undefined ? 0 : entries), 0);
  const kind = filled === 0 ? undefined : guessed.find((one) => filled - unreadBy(one) >= mostly * filled);
  return { heading, kind: kind ?? 'text', filled, unread: kind ? unreadBy(kind) : 0, counts };
}

/**
 * What a pasted text becomes in a field: as its kind reads it, as the value of its catalog that it means, or as it was written. Blank for a
 * blank.
 */
export function readCell(
  { kind, catalog }: { readonly kind: FieldKind; readonly catalog: Catalog | undefined },
  text: string,
  locale: Locale,
  today: string,
): string {
  if (clean(text) === '') return '';
  const parsed = parse(kind, text, locale, today);
  const value = parsed.ok ? parsed.value : text;
  const found = catalog && lookUp(catalog, value);
  return found?.found === 'item' ? found.item.value : value;
}

/** Headings that are missing or stand twice are told apart by a number. */
function named(headings: readonly string[]): string[] {
  const taken = new Set<string>();
  return headings.map((heading, at) => {
    const own = heading === '' ? `Field ${at + 1}` : heading;
    let name = own;
    for (let number = 2; taken.has(name); number++) name = `${own} ${number}`;
    taken.add(name);
    return name;
  });
}

/** The fields of a pasted table: its first row has the headings, the others are read for their kind. As wide as its widest row. */
export function proposedFields(rows: readonly (readonly string[])[], locale: Locale): ProposedField[] {
  const [first = [], ...rest] = rows;
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  const headings = named(Array.from({ length: width }, (_, at) => clean(first[at] ?? '')));
  return headings.map((heading, at) =>
    proposed(
      heading,
      rest.map((row) => clean(row[at] ?? '')),
      locale,
    ),
  );
}
