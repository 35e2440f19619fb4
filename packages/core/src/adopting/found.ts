// What is found in files, before anything of it is proposed: tables, what their columns hold, and which of them want to be levels. It is found
// once; whatever is changed by hand afterwards is computed on it, without the files.
import { wantsToBeList } from '../upkeep/index.js';
import type { Locale } from '../values/index.js';
import { ColumnCounts, type Counted, type FoundColumn } from './columns.js';
import { findLevels, type FoundLevels, type LevelColumn } from './levels.js';
import { Meanings } from './meanings.js';
import type { FoundTable, SheetRow } from './tables.js';

/** Where a table stands: in which file, on which of its sheets, and as which table there, each counted from 0. */
export interface TablePlace {
  readonly file: number;
  readonly sheet: number;
  readonly table: number;
}

/** Values that stand beside one another, and in how many rows. */
export interface PathCount {
  readonly path: readonly string[];
  readonly rows: number;
  /** The number of the first of these rows in the file. */
  readonly row: number;
}
/** Columns that want to be levels, the outermost first. */
export interface FoundChain {
  readonly columns: readonly number[];
  readonly paths: readonly PathCount[];
}

export interface AdoptedTable extends TablePlace {
  /** Its sheet is hidden in its file. */
  readonly hidden?: true;
  /** Of its sheet, or of its file where that has but one. */
  readonly title: string;
  readonly titles: readonly string[];
  readonly heading: number | null;
  readonly first: number;
  readonly last: number;
  readonly totals: readonly number[];
  /** How many rows it has. */
  readonly rows: number;
  readonly columns: readonly FoundColumn[];
  readonly chains: readonly FoundChain[];
  /** Cells of which something cannot be stored: it is left out. */
  readonly cut: number;
  /** The first rows, as texts, in the order of the columns. */
  readonly sample: readonly (readonly string[])[];
  /** All rows, as texts in the order of the columns, with their numbers; null where they are too many for a list. */
  readonly listed: readonly { readonly number: number; readonly texts: readonly string[] }[] | null;
}

const sampleRows = 8;
/** A table of more rows is no list. */
const mostListed = 2000;
/** More different combinations are no levels. */
const mostPaths = 20_000;

/** What stands in a table. `rows`: all rows of its sheet. */
export function adoptedTable(
  place: TablePlace,
  title: string,
  { titles, heading, columns, first, last, totals }: FoundTable,
  rows: readonly SheetRow[],
  house: Locale,
): AdoptedTable {
  const left = new Set(totals);
  const own = rows.filter(({ number }) => number >= first && number <= last && !left.has(number));
  const counts = columns.map(() => new ColumnCounts());
  const filled: Filled[] = [];
  for (const { number, cells } of own) {
    const held = columns.map(({ at }, place) => {
      const cell = cells.get(at);
      return cell && counts[place]!.add(cell);
    });
    if (held.some(Boolean)) filled.push({ number, held });
  }
  const found = columns.map(({ at, heading: name }, place) => counts[place]!.found(at, name, house));
  const textsOf = ({ held }: Filled) => held.map((one) => one?.text ?? '');
  return {
    ...place,
    title,
    titles,
    heading,
    first,
    last,
    totals,
    rows: filled.length,
    columns: found,
    cut: counts.reduce((sum, column) => sum + column.cut, 0),
    chains: chainsIn(found, filled),
    sample: filled.slice(0, sampleRows).map(textsOf),
    listed: filled.length > mostListed ? null : filled.map((row) => ({ number: row.number, texts: textsOf(row) })),
  };
}

/** A row that is not blank: what it holds in each column. */
interface Filled {
  readonly number: number;
  readonly held: readonly (Counted | undefined)[];
}

/** Levels are sought among what the columns mean: a slip of the finger contradicts nothing. */
function chainsIn(columns: readonly FoundColumn[], rows: readonly Filled[]): FoundChain[] {
  const lists = columns.flatMap((column, place) => {
    if (column.kind !== 'text' || column.values === null) return [];
    const meanings = new Meanings(undefined, column.values);
    return wantsToBeList(meanings.values.size, column.filled) ? [{ place, meanings }] : [];
  });
  const level = ({ place, meanings }: (typeof lists)[number]): LevelColumn => ({
    at: place,
    values: rows.map(({ held }) => {
      const text = held[place]?.text ?? '';
      return meanings.of(text) ?? text;
    }),
  });
  return findLevels(lists.map(level)).flatMap((found) => chainOf(found, rows) ?? []);
}

function chainOf({ columns }: FoundLevels, rows: readonly Filled[]): FoundChain | undefined {
  const paths = new Map<string, { path: string[]; rows: number; row: number }>();
  for (const { number, held } of rows) {
    const path = columns.map((place) => held[place]?.text ?? '');
    const key = path.join('\u001F');
    const known = paths.get(key);
    if (known) known.rows++;
    else paths.set(key, { path, rows: 1, row: number });
    if (paths.size > mostPaths) return undefined;
  }
  return { columns, paths: [...paths.values()] };
}
