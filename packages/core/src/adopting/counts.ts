// What the rows of a table hold, counted row by row as they are read: however many they are, only what differs is kept.
import type { Locale } from '../values/index.js';
import { ColumnCounts, type Counted } from './columns.js';
import type { SheetRow } from './tables.js';

/** A row that is not blank: its number, and what it holds by column, as texts. */
export interface CountedRow {
  readonly number: number;
  readonly texts: ReadonlyMap<number, string>;
}

/** A table of more rows is no list. */
const mostListed = 2000;

/** So many rows are noted in one piece: what grows is not copied. */
const piece = 1 << 16;

/** By row, a whole number; 0 for rows of which none was set. */
class Numbers {
  private readonly pieces: (Uint16Array | Uint32Array)[] = [];

  constructor(private readonly Piece: typeof Uint16Array | typeof Uint32Array) {}

  set(row: number, number: number): void {
    const at = Math.floor(row / piece);
    const own = (this.pieces[at] ??= new this.Piece(piece));
    own[row % piece] = number;
  }
  get(row: number): number {
    return this.pieces[Math.floor(row / piece)]?.[row % piece] ?? 0;
  }
}

interface CountedColumn {
  readonly counts: ColumnCounts;
  /** By row, the number of what stands there: of so few that 16 bits hold it; undefined once it holds too much to be a list. */
  places: Numbers | undefined;
}

export class TableCounts {
  /** By place; what is between them is not there. */
  private readonly columns: (CountedColumn | undefined)[] = [];
  private readonly numbers = new Numbers(Uint32Array);
  private readonly first: CountedRow[] = [];
  /** The cells of the row that is being counted: where they stand, and what they hold. */
  private readonly places: number[] = [];
  private readonly held: Counted[] = [];
  /** How many rows there are. */
  rows = 0;

  constructor(readonly house: Locale) {}

  /** Counts what stands in a row between two columns. False where it adds up others, and is counted nowhere. */
  add(row: SheetRow, from: number, to: number): boolean {
    const { places, held } = this;
    let count = 0;
    let isTotal = false;
    row.cells.forEach((cell, at) => {
      if (isTotal || at < from || at > to) return;
      const one = this.columnAt(at).counts.look(cell);
      if (!one) return;
      isTotal = one.isTotal;
      places[count] = at;
      held[count++] = one;
    });
    if (isTotal) return false;
    if (count === 0) return true;
    for (let nth = 0; nth < count; nth++) {
      const column = this.columnAt(places[nth]!);
      const one = held[nth]!;
      column.counts.count(one);
      if (column.places && column.counts.isTooMuch) column.places = undefined;
      column.places?.set(this.rows, one.nth);
    }
    if (this.first.length <= mostListed)
      this.first.push({ number: row.number, texts: new Map(places.slice(0, count).map((at, nth) => [at, held[nth]!.held.text])) });
    this.numbers.set(this.rows, row.number);
    this.rows += 1;
    return true;
  }

  private columnAt(at: number): CountedColumn {
    return (this.columns[at] ??= { counts: new ColumnCounts(this.house), places: new Numbers(Uint16Array) });
  }

  /** What stands in a column; undefined for one in which nothing does. */
  at(column: number): ColumnCounts | undefined {
    return this.columns[column]?.counts;
  }
  has(column: number): boolean {
    return this.columns[column] !== undefined;
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
  /**
   * What stands in a column by row, as the number of it among what stands there; 0 for blank. Undefined where it is too much to be a list.
   */
  placesIn(column: number): ((row: number) => number) | undefined {
    const places = this.columns[column]?.places;
    return places && ((row) => places.get(row));
  }
}
