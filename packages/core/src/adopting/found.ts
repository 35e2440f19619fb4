// What is found in files, before anything of it is proposed: tables, what their columns hold, and which of them want to be levels. It is
// found once; whatever is changed by hand afterwards is computed on it, without the files.
import { wantsToBeList } from '../upkeep/index.js';
import { ColumnCounts, type FoundColumn } from './columns.js';
import type { CountedRow, TableCounts } from './counts.js';
import { findLevels, type FoundLevels, type LevelColumn } from './levels.js';
import { Meanings } from './meanings.js';
import type { CountedTable, Stretch } from './tables.js';

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
  /** Not there in what was found by an older version. */
  readonly others?: readonly Stretch[];
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
/** More different combinations are no levels. */
const mostPaths = 20_000;

/** What stands in a table. */
export function adoptedTable(
  place: TablePlace,
  title: string,
  { titles, heading, columns, first, last, totals, others, counts }: CountedTable,
): AdoptedTable {
  const counted = columns.map(({ at }) => counts.at(at) ?? new ColumnCounts(counts.house));
  const found = columns.map(({ at, heading: name }, nth) => counted[nth]!.found(at, name));
  const textsOf = ({ texts }: CountedRow) => columns.map(({ at }) => texts.get(at) ?? '');
  return {
    ...place,
    title,
    titles,
    heading,
    first,
    last,
    totals,
    others,
    rows: counts.rows,
    columns: found,
    cut: counted.reduce((sum, column) => sum + column.cut, 0),
    chains: chainsIn(found, counts),
    sample: counts.begins.slice(0, sampleRows).map(textsOf),
    listed: counts.isShort ? counts.begins.map((row) => ({ number: row.number, texts: textsOf(row) })) : null,
  };
}

/** Levels are sought among what the columns mean: a slip of the finger contradicts nothing. */
function chainsIn(columns: readonly FoundColumn[], counts: TableCounts): FoundChain[] {
  const lists = columns.flatMap((column, place): LevelColumn[] => {
    const held = counts.placesIn(column.at);
    if (column.kind !== 'text' || column.values === null || !held) return [];
    const meanings = new Meanings(undefined, column.values);
    if (!wantsToBeList(meanings.values.size, column.filled)) return [];
    const numbers = new Map([...meanings.values].map((value, at) => [value, at + 1] as const));
    // What means none of the values stands for itself.
    const meant = [0, ...counts.at(column.at)!.texts.map((text) => numbers.get(meanings.of(text) ?? '') ?? numberedIn(numbers, text))];
    const values = new Uint16Array(counts.rows);
    for (let row = 0; row < values.length; row++) values[row] = meant[held(row)]!;
    return [{ at: place, values }];
  });
  return findLevels(lists).flatMap((found) => chainOf(found, columns, counts) ?? []);
}

function numberedIn(numbers: Map<string, number>, text: string): number {
  const number = numbers.get(text) ?? numbers.size + 1;
  numbers.set(text, number);
  return number;
}

function chainOf({ columns: levels }: FoundLevels, columns: readonly FoundColumn[], counts: TableCounts): FoundChain | undefined {
  const own = levels.map((place) => {
    const { at } = columns[place]!;
    const texts = ['', ...counts.at(at)!.texts];
    const firsts = new Map<string, number>();
    // Texts that are the same once they are cleaned are one.
    for (const [nth, text] of texts.entries()) if (!firsts.has(text)) firsts.set(text, nth);
    const same = texts.map((text) => firsts.get(text)!);
    return { held: counts.placesIn(at)!, texts, same };
  });
  const paths = new Map<string, { path: string[]; rows: number; row: number }>();
  for (let row = 0; row < counts.rows; row++) {
    let key = '';
    for (const { held, same } of own) key += String.fromCharCode(same[held(row)]!);
    const known = paths.get(key);
    if (known) known.rows++;
    else paths.set(key, { path: own.map(({ held, texts }) => texts[held(row)]!), rows: 1, row: counts.numberOf(row) });
    if (paths.size > mostPaths) return undefined;
  }
  return { columns: levels, paths: [...paths.values()] };
}
