// What is found in files, before anything of it is proposed: tables, what their columns hold, and which of them want to be levels. It is found
// once; whatever is changed by hand afterwards is computed on it, without the files.
import { clean, forbiddenCharacter, longestText } from '../text/index.js';
import { cleanedCounts, lookAlikes, wantsToBeList, type LookAlike } from '../upkeep/index.js';
import type { CameBack } from '../exchange/index.js';
import type { Locale } from '../values/index.js';
import { ColumnCounts, type FoundColumn } from './columns.js';
import { heldOf, readHeld, type Held } from './held.js';
import { findLevels, type FoundLevels, type LevelColumn } from './levels.js';
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
  /** All rows, as texts; null where they are too many for a list. */
  readonly listed: readonly (readonly string[])[] | null;
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
  const held = own.map(({ cells }) => columns.map(({ at }) => heldOf(cells.get(at))));
  const filled = own.flatMap(({ number }, row) => (held[row]!.some(Boolean) ? [{ number, held: held[row]! }] : []));
  const found = columns.map(({ at, heading: name }, column) => {
    const counts = new ColumnCounts();
    for (const row of filled) if (row.held[column]) counts.add(row.held[column]);
    return counts.found(at, name, house);
  });
  const textAt = (cells: readonly (Held | undefined)[], column: number) => shownIn(cells[column], found[column]!, house);
  const textsOf = ({ held: cells }: { held: readonly (Held | undefined)[] }) => found.map((_, column) => textAt(cells, column));
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
    cut: own.reduce((sum, { cells }) => sum + [...cells.values()].filter(isCut).length, 0),
    chains: chainsIn(found, filled, textAt),
    sample: filled.slice(0, sampleRows).map(textsOf),
    listed: filled.length > mostListed ? null : filled.map(textsOf),
  };
}

const isCut = (cell: CameBack): boolean =>
  cell.is === 'text' && (cell.text.length > longestText || forbiddenCharacter(cell.text) !== undefined);

const shownIn = (held: Held | undefined, column: FoundColumn, house: Locale): string =>
  held === undefined ? '' : clean(readHeld('text', held, { ...house, ...column.writing }).value);

type Filled = readonly { readonly number: number; readonly held: readonly (Held | undefined)[] }[];
type TextAt = (cells: readonly (Held | undefined)[], column: number) => string;

/** Levels are sought among what the columns mean: a slip of the finger contradicts nothing. */
function chainsIn(columns: readonly FoundColumn[], rows: Filled, textAt: TextAt): FoundChain[] {
  const lists = columns.flatMap((column, place) => {
    if (column.kind !== 'text' || column.values === null) return [];
    const alike = lookAlikes(cleanedCounts(new Map(column.values.map(({ value, entries }) => [value, entries]))));
    return wantsToBeList(column.values.length - slipsIn(alike), column.filled) ? [{ place, right: rightOf(alike) }] : [];
  });
  const level = ({ place, right }: (typeof lists)[number]): LevelColumn => ({
    at: place,
    values: rows.map(({ held }) => right.get(textAt(held, place)) ?? textAt(held, place)),
  });
  return findLevels(lists.map(level)).flatMap((found) => chainOf(found, rows, textAt) ?? []);
}

/** Of each spelling that is likely a slip, the one that it likely means. */
export const rightOf = (alike: readonly LookAlike[]): ReadonlyMap<string, string> =>
  new Map(alike.flatMap(([right, ...others]) => others.map(({ value }) => [value, right!.value] as const)));
export const slipsIn = (alike: readonly LookAlike[]): number => alike.reduce((sum, group) => sum + group.length - 1, 0);

function chainOf({ columns }: FoundLevels, rows: Filled, textAt: TextAt): FoundChain | undefined {
  const paths = new Map<string, { path: string[]; rows: number; row: number }>();
  for (const { number, held } of rows) {
    const path = columns.map((column) => textAt(held, column));
    const key = path.join('\u001F');
    const known = paths.get(key);
    if (known) known.rows++;
    else paths.set(key, { path, rows: 1, row: number });
    if (paths.size > mostPaths) return undefined;
  }
  return { columns, paths: [...paths.values()] };
}
