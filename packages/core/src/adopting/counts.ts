// What the rows of a table hold, counted row by row as they are read: however many they are, only what differs is kept.
import type { Locale } from '../values/index.js';
import { ColumnCounts, type Counted } from './columns.js';
import type { SheetRow } from './tables.js';

/** A row that is not blank: its number, and what it holds by column. */
export interface CountedRow {
  readonly number: number;
  readonly held: ReadonlyMap<number, Counted>;
}

/** A table of more rows is no list. */
const mostListed = 2000;

/** Whole numbers, one after another; 0 for those that were never set. */
class Numbers {
  private kept = new Uint32Array(16);

  set(at: number, number: number): void {
    if (at >= this.kept.length) {
      const more = new Uint32Array(Math.max(at + 1, this.kept.length * 2));
      more.set(this.kept);
      this.kept = more;
    }
    this.kept[at] = number;
  }
  get(at: number): number {
    return this.kept[at] ?? 0;
  }
}

interface CountedColumn {
  readonly counts: ColumnCounts;
  /** By row, the number of what stands there; undefined once it holds too much to be a list. */
  places: Numbers | undefined;
}

export class TableCounts {
  private readonly columns = new Map<number, CountedColumn>();
  private readonly numbers = new Numbers();
  private readonly first: CountedRow[] = [];
  /** The cells of the row that is being counted. */
  private readonly filled: { readonly at: number; readonly column: CountedColumn; readonly one: Counted }[] = [];
  /** How many rows there are. */
  rows = 0;

  constructor(readonly house: Locale) {}

  /** Counts what stands in a row between two columns. False where it adds up others, and is counted nowhere. */
  add(row: SheetRow, from: number, to: number): boolean {
    const { filled } = this;
    let count = 0;
    for (const [at, cell] of row.cells) {
      if (at < from || at > to) continue;
      const column = this.columnAt(at);
      const one = column.counts.look(cell);
      if (!one) continue;
      if (one.isTotal) return false;
      filled[count++] = { at, column, one };
    }
    if (count === 0) return true;
    for (let nth = 0; nth < count; nth++) {
      const { column, one } = filled[nth]!;
      column.counts.count(one);
      if (column.places && column.counts.isTooMuch) column.places = undefined;
      column.places?.set(this.rows, one.nth);
    }
    if (this.first.length <= mostListed)
      this.first.push({ number: row.number, held: new Map(filled.slice(0, count).map(({ at, one }) => [at, one])) });
    this.numbers.set(this.rows, row.number);
    this.rows += 1;
    return true;
  }

  private columnAt(at: number): CountedColumn {
    const known = this.columns.get(at);
    if (known) return known;
    const column: CountedColumn = { counts: new ColumnCounts(this.house), places: new Numbers() };
    this.columns.set(at, column);
    return column;
  }

  /** What stands in a column; undefined for one in which nothing does. */
  at(column: number): ColumnCounts | undefined {
    return this.columns.get(column)?.counts;
  }
  has(column: number): boolean {
    return this.columns.has(column);
  }

  /** All rows, where they are few enough for a list; the first of them otherwise. */
  get begins(): readonly CountedRow[] {
    return this.first;
  }
  get isShort(): boolean {
    return this.rows <= mostListed;
  }

  numberOf(row: number): number {
    return this.numbers.get(row);
  }
  /** What stands in a column by row, as the number of it among what stands there; 0 for blank. Undefined where it is too much to be a list. */
  placesIn(column: number): ((row: number) => number) | undefined {
    const places = this.columns.get(column)?.places;
    return places && ((row) => places.get(row));
  }
}
