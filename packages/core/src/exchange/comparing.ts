// A sheet that went out and came back, compared three ways: as it went out, as it came back, and as its entries are now. What was changed
// there alone is proposed, what was changed here alone stays, and what was changed in both places is asked about.
import type { Cells, EntryId, FieldId } from '../registers/index.js';
import { dayOf, isNumeric, isOfKind, parse, type Locale } from '../values/index.js';
import { shownInColumn, type ShownColumn } from './bookOf.js';
import { cellValue, epoch, exactDigits } from './cellValue.js';

/** A cell as a file holds it; a blank one is none. Numbers are written as JSON writes them. */
export type CameBack =
  | { readonly is: 'text'; readonly text: string }
  | { readonly is: 'number'; readonly number: number }
  /** Days since 1899-12-30. */
  | { readonly is: 'day'; readonly serial: number };

export interface RowBack {
  /** Its number in the file, for saying where it stands. */
  readonly row: number;
  /** The entry that it was when it went out, where it still says so. */
  readonly entry: EntryId | undefined;
  /** Of the columns that are still there. */
  readonly cells: ReadonlyMap<FieldId, CameBack>;
}

export interface SheetBack {
  /** The columns that came back, as they went out; what is not among them was not changed. */
  readonly columns: readonly ShownColumn[];
  readonly rows: readonly RowBack[];
  /** The entries that went out, as they were. */
  readonly out: ReadonlyMap<EntryId, Cells>;
  /** The same entries as they are now; one that was deleted is not there. */
  readonly now: ReadonlyMap<EntryId, Cells>;
  readonly locale: Locale;
}

/** A cell that came back otherwise than it went out. */
export interface CellBack {
  readonly row: number;
  readonly entry: EntryId;
  readonly field: FieldId;
  /** As it came back, to be judged as if it had been typed; blank: ''. */
  readonly text: string;
  /** As it went out, stored. */
  readonly was: string;
  /** What is stored now. */
  readonly now: string;
}

export interface TypedCell {
  readonly field: FieldId;
  readonly text: string;
}

export interface RowDifferences {
  /** Changed there alone. */
  readonly proposed: readonly CellBack[];
  /** Changed there and here, each to something else. */
  readonly asked: readonly CellBack[];
  /** Rows that were not there when it went out. */
  readonly added: readonly { readonly row: number; readonly cells: readonly TypedCell[] }[];
  /** Rows that were changed there, of entries that were deleted here. */
  readonly deleted: readonly { readonly row: number; readonly entry: EntryId }[];
}
export interface Differences extends RowDifferences {
  /** Entries whose row did not come back, and which are still there. */
  readonly missing: readonly EntryId[];
}

/** What has changed on a sheet that came back as a whole. */
export function differences(back: SheetBack): Differences {
  const seen = new Set<EntryId>();
  const found = rowDifferences(back, seen);
  return { ...found, missing: [...back.out.keys()].filter((entry) => !seen.has(entry) && back.now.has(entry)) };
}

/** What has changed in some of its rows. `seen`: the entries that the rows before have named; those of these rows are added. */
export function rowDifferences(back: SheetBack, seen: Set<EntryId>): RowDifferences {
  const { columns, rows, out, now, locale } = back;
  const [proposed, asked]: [CellBack[], CellBack[]] = [[], []];
  const added: RowDifferences['added'][number][] = [];
  const deleted: RowDifferences['deleted'][number][] = [];
  for (const { row, entry, cells } of rows) {
    const was = entry !== undefined && !seen.has(entry) ? out.get(entry) : undefined;
    // A row without an entry of its own is new; so is the second of two that were copied from one another.
    if (entry === undefined || !was) {
      const typed = typedIn(columns, cells, locale);
      if (typed.length > 0) added.push({ row, cells: typed });
      continue;
    }
    seen.add(entry);
    const changed = columns.filter((column) => !isAs(column, was, cells.get(column.key), locale));
    const stands = now.get(entry);
    if (!stands) {
      if (changed.length > 0) deleted.push({ row, entry });
      continue;
    }
    for (const column of changed) {
      const held = cells.get(column.key);
      if (isAs(column, stands, held, locale)) continue;
      const [before, today] = [was[column.key] ?? '', stands[column.key] ?? ''];
      const cell = { row, entry, field: column.key, text: typedBack(column, held, locale), was: before, now: today };
      (today === before ? proposed : asked).push(cell);
    }
  }
  return { proposed, asked, added, deleted };
}

/** What a row holds, as if it had been typed. */
export const typedIn = (columns: readonly ShownColumn[], cells: RowBack['cells'], locale: Locale): TypedCell[] =>
  columns.flatMap((column) => {
    const text = typedBack(column, cells.get(column.key), locale);
    return text === '' ? [] : [{ field: column.key, text }];
  });

const partMark = '\u001F';
const partOf = (held: CameBack | undefined): string => {
  switch (held?.is) {
    case undefined:
      return '';
    case 'number':
      return `n${plainNumber(held.number)}`;
    case 'day':
      return `d${held.serial}`;
    case 'text':
      return `t${held.text}`;
  }
};

/** All that a row holds, in one text: two rows of the same text hold the same. */
export const heldInRow = (columns: readonly ShownColumn[], cells: RowBack['cells']): string =>
  columns.map(({ key }) => partOf(cells.get(key))).join(partMark);

/** The same of a row as it goes out. */
export const writtenInRow = (columns: readonly ShownColumn[], entry: Cells, locale: Locale): string =>
  columns
    .map((column) => {
      const value = entry[column.key] ?? '';
      if (value === '') return '';
      const written = cellValue(column.kind, value, shownInColumn(column, entry, locale));
      return partOf(written.is === 'number' ? { is: 'number', number: Number(written.number) } : written);
    })
    .join(partMark);

/** Whether a cell came back as a column writes it for an entry, or in another way of writing the same value. */
function isAs(column: ShownColumn, entry: Cells, came: CameBack | undefined, locale: Locale): boolean {
  const value = entry[column.key] ?? '';
  if (value === '' || came === undefined) return value === '' && came === undefined;
  const written = cellValue(column.kind, value, shownInColumn(column, entry, locale));
  if (came.is === 'text' && written.is === 'text') return came.text === written.text;
  if (came.is === 'number' && written.is === 'number') return plainNumber(came.number) === plainNumber(Number(written.number));
  if (came.is === 'day' && written.is === 'day') return came.serial === written.serial;
  return storedBack(column, came, locale) === value;
}

/** The value of its kind that a cell holds; undefined where it holds none, or where a list says what it stands for. */
function storedBack({ kind }: ShownColumn, came: CameBack, locale: Locale): string | undefined {
  switch (came.is) {
    case 'number': {
      const number = plainNumber(came.number);
      return isNumeric(kind) && isOfKind(kind, number) ? number : undefined;
    }
    case 'day':
      return kind === 'date' ? dayOf(came.serial + epoch) : undefined;
    case 'text': {
      const read = isNumeric(kind) || kind === 'date' ? parse(kind, came.text, locale) : undefined;
      return read?.ok ? read.value : undefined;
    }
  }
}

/** The text by which a cell is judged, as if it had been typed. */
export function typedBack(column: ShownColumn, came: CameBack | undefined, locale: Locale): string {
  if (came === undefined) return '';
  const stored = came.is === 'text' ? undefined : storedBack(column, came, locale);
  if (stored !== undefined) return shownInColumn(column, { [column.key]: stored }, locale);
  switch (came.is) {
    case 'text':
      return came.text;
    case 'number':
      return plainNumber(came.number);
    case 'day':
      return dayOf(came.serial + epoch);
  }
}

/**
 * A number as it is stored: without an exponent, and with the digits that such programs keep; a sum of tenths is no longer than it looks.
 */
export function plainNumber(number: number): string {
  const rounded = Number(number.toPrecision(exactDigits));
  if (rounded === 0) return '0';
  const written = String(rounded);
  // Very large and very small ones are written with an exponent; to write them out takes a hundred times as long.
  return written.includes('e') ? rounded.toLocaleString('en-US', { useGrouping: false, maximumFractionDigits: 20 }) : written;
}
