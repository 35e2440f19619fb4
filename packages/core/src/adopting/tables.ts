// The tables on a sheet of a file as somebody laid it out for the eye: titles above them, totals below, several side by side or one under
// another.
import { clean, matchKey, storable } from '../text/index.js';
import type { Locale } from '../values/index.js';
import type { CameBack } from '../exchange/index.js';
import { TableCounts } from './counts.js';
import { heldOf } from './held.js';

/** A row of a sheet: its number, counted from 1, and its cells by column, counted from 0; what is blank is not there. */
export interface SheetRow {
  readonly number: number;
  readonly cells: ReadonlyMap<number, CameBack>;
}

export interface FoundTable {
  /** What stands above it, a line each. */
  readonly titles: readonly string[];
  /** The number of the row under which it begins; null where it has no headings. */
  readonly heading: number | null;
  /** Where its columns stand, and their headings; '' for none. */
  readonly columns: readonly { readonly at: number; readonly heading: string }[];
  /** The numbers of its first and last row. */
  readonly first: number;
  readonly last: number;
  /** Rows between them that are none of its own: they add up the others. */
  readonly totals: readonly number[];
  /** Stretches of rows between them that are those of other tables. */
  readonly others: readonly Stretch[];
}
/** The numbers of a first and a last row. */
export type Stretch = readonly [first: number, last: number];

/** Which rows of the sheet are those of a table, by their numbers. */
export function isRowOf({ first, last, totals, others = [] }: RowsOf): (number: number) => boolean {
  const added = new Set(totals);
  return (number) =>
    number >= first && number <= last && !added.has(number) && !others.some(([from, to]) => number >= from && number <= to);
}
type RowsOf = Pick<FoundTable, 'first' | 'last' | 'totals'> & { readonly others?: readonly Stretch[] | undefined };

/** A table with what its rows hold. */
export interface CountedTable extends FoundTable {
  readonly counts: TableCounts;
}

/** Rows that stand together, and the columns that are filled in them. */
interface Block {
  readonly rows: readonly SheetRow[];
  readonly from: number;
  readonly to: number;
}

/** A title stands so many rows above its table at most. */
const titleWithin = 3;
/** Side by side and equally high from so many rows on: one table with a blank column in it. */
const fewRows = 3;
/** How so many rows in a row are laid out tells how those below them are: they are read as they come, and held no longer. */
const mostLookedAt = 5000;

const filledIn = ({ cells }: SheetRow, from: number, to: number): [number, CameBack][] =>
  [...cells].filter(([at]) => at >= from && at <= to).sort(([one], [other]) => one - other);
function hasIn({ cells }: SheetRow, from: number, to: number): boolean {
  for (const at of cells.keys()) if (at >= from && at <= to) return true;
  return false;
}
const isText = (cell: CameBack): boolean => cell.is === 'text';
const textOf = (cell: CameBack): string => (cell.is === 'text' ? clean(storable(cell.text)) : '');
/** Digits with what stands between them: an amount, a day or a code, however it is written. */
const isWrittenNumber = (text: string): boolean => /\d/u.test(text) && /^[\d\s.,:/%'’+\-€$£]+$/u.test(text);

/** The blocks of a band: parted by blank columns, unless what they part begins and ends together. */
function blocksOf(band: readonly SheetRow[]): Block[] {
  const places = new Set<number>();
  for (const { cells } of band) for (const at of cells.keys()) places.add(at);
  const filled = [...places].sort((one, other) => one - other);
  const runs: { from: number; to: number }[] = [];
  for (const at of filled) {
    const run = runs.at(-1);
    if (run && at === run.to + 1) run.to = at;
    else runs.push({ from: at, to: at });
  }
  if (runs.length === 1) return [{ rows: band.filter(({ cells }) => cells.size > 0), ...runs[0]! }];
  const blocks = runs.map(({ from, to }): Block => ({ rows: band.filter((row) => hasIn(row, from, to)), from, to }));
  return blocks.reduce<Block[]>((found, block) => {
    const before = found.at(-1);
    const together =
      before &&
      before.rows.length > fewRows &&
      before.rows[0] === block.rows[0] &&
      before.rows.at(-1) === block.rows.at(-1) &&
      block.from === before.to + 2;
    return together
      ? [...found.slice(0, -1), { rows: band.filter((row) => hasIn(row, before.from, block.to)), from: before.from, to: block.to }]
      : [...found, block];
  }, []);
}

/** Whether a row could name columns: texts that differ, none of them a number written out, in at least half of them. */
function namesColumns(row: SheetRow, { from, to }: Block): boolean {
  const cells = filledIn(row, from, to).map(([, cell]) => cell);
  const texts = cells.map(textOf);
  const isWide = cells.length * 2 > to - from;
  return (
    isWide && cells.every(isText) && texts.every((text) => !isWrittenNumber(text)) && new Set(texts.map(matchKey)).size === texts.length
  );
}

/** Whether a row groups the columns that the one below it names: a few texts over many. */
function groupsColumns(row: SheetRow, below: SheetRow, block: Block): boolean {
  const [cells, named] = [filledIn(row, block.from, block.to), filledIn(below, block.from, block.to)];
  return (
    cells.every(([, cell]) => isText(cell) && !isWrittenNumber(textOf(cell))) &&
    cells.length * 2 <= named.length &&
    namesColumns(below, block)
  );
}

/** The parts of a block: lines above it, headings (one row, or two of which the upper one groups), and rows. */
function partsOf(block: Block): { titles: SheetRow[]; headings: SheetRow[]; rows: SheetRow[] } {
  const { rows, from, to } = block;
  const isLine = (row: SheetRow) => to > from && filledIn(row, from, to).length === 1;
  const lines = rows.findIndex((row) => !isLine(row));
  const titles = lines <= 0 ? [] : rows.slice(0, lines);
  const rest = rows.slice(titles.length);
  const [first, second, third] = rest;
  if (first && second && third && groupsColumns(first, second, block)) return { titles, headings: [first, second], rows: rest.slice(2) };
  if (!first || !namesColumns(first, block) || (rest.length === 1 && titles.length === 0)) return { titles, headings: [], rows: rest };
  const gaps = filledIn(first, from, to).length < to - from + 1;
  const two =
    gaps && second && third && namesColumns(second, block) && filledIn(second, from, to).length > filledIn(first, from, to).length;
  const headings = two ? [first, second] : [first];
  return { titles, headings, rows: rest.slice(headings.length) };
}

/** The headings of two rows say both: the upper one holds until the next of its row. */
function headingAt(headings: readonly SheetRow[], at: number, from: number): string {
  const own = headings.map((row, index) => {
    const isLast = index === headings.length - 1;
    for (let place = at; place >= from; place--) {
      const cell = row.cells.get(place);
      if (cell) return textOf(cell);
      if (isLast) return '';
    }
    return '';
  });
  return own.filter((text, index) => text !== '' && own.indexOf(text) === index).join(' ');
}

/** A table that is being found: what more rows are compared with is noted as they come. */
class Finding {
  private readonly counts: TableCounts;
  private readonly totals: number[] = [];
  private readonly others: Stretch[] = [];
  private first: number | undefined;
  private last: number | undefined;

  constructor(
    private block: Block,
    private readonly titles: readonly SheetRow[],
    private readonly headings: readonly SheetRow[],
    house: Locale,
  ) {
    this.counts = new TableCounts(house);
  }

  add(rows: readonly SheetRow[]): void {
    for (const row of rows) this.addRow(row, this.block.from, this.block.to);
  }

  /** Rows follow from one on: what stands between is not its own where another table lies there. */
  goesOnAt(number: number, all: readonly Finding[]): void {
    const { last } = this;
    if (last !== undefined && all.some((other) => other !== this && other.liesUnder(this.block, last)))
      this.others.push([last + 1, number - 1]);
  }

  private liesUnder({ from, to }: Block, row: number): boolean {
    const lowest = this.last ?? this.headings.at(-1)?.number ?? 0;
    return lowest > row && this.block.from <= to && this.block.to >= from;
  }

  /** Takes what stands in a row between two columns, be it beyond those that were filled before. */
  goOn(row: SheetRow, from: number, to: number): void {
    let [low, high] = [Infinity, -1];
    row.cells.forEach((_, at) => {
      if (at < from || at > to) return;
      if (at < low) low = at;
      if (at > high) high = at;
    });
    if (high < 0) return;
    if (low < this.block.from || high > this.block.to)
      this.block = { ...this.block, from: Math.min(this.block.from, low), to: Math.max(this.block.to, high) };
    this.addRow(row, from, to);
  }

  private addRow(row: SheetRow, from: number, to: number): void {
    if (!this.counts.add(row, from, to)) {
      this.totals.push(row.number);
      return;
    }
    this.first ??= row.number;
    this.last = row.number;
  }

  /** Whether rows go on with it: they stand under it, and their first one holds what its columns hold, not what they are called. */
  takes({ rows: [first], from, to }: Block): boolean {
    if (this.headings.length === 0 || this.block.from > from || this.block.to < to || !first) return false;
    const beside = filledIn(first, from, to).flatMap(([at, cell]) => {
      const held = this.counts.at(at);
      return held ? [{ cell, held }] : [];
    });
    if (beside.some(({ cell, held }) => isText(cell) && !held.hasTexts)) return false;
    return beside.some(({ cell, held }) => cell.is !== 'text' || held.holdsText(textOf(cell)));
  }

  found(): CountedTable[] {
    const { block, headings, counts, first, last } = this;
    if (first === undefined || last === undefined) return [];
    const columns = Array.from({ length: block.to - block.from + 1 }, (_, at) => block.from + at).filter(
      (at) => counts.has(at) || headings.some(({ cells }) => cells.has(at)),
    );
    return [
      {
        titles: this.titles.flatMap((row) => [...row.cells.values()].map(textOf)),
        heading: headings.at(-1)?.number ?? null,
        columns: columns.map((at) => ({ at, heading: headingAt(headings, at, block.from) })),
        first,
        last,
        totals: this.totals.filter((number) => number > first && number < last),
        others: this.others.filter(([from]) => from < last),
        counts,
      },
    ];
  }
}

/** Lines of text alone: titles of what follows. */
const isTitle = ({ rows, from, to }: Block): boolean =>
  rows.length < titleWithin &&
  rows.every(
    (row) => row.cells.size > 0 && filledIn(row, from, to).length === 1 && filledIn(row, from, to).every(([, cell]) => isText(cell)),
  );

/** What the rows of a long band come into: from each column on to where the next one begins. */
interface Lane {
  readonly from: number;
  readonly to: number;
  readonly into: Finding;
}

/** Finds the tables of a sheet, from above to below and from the left to the right, as its rows are read; holds few of them. */
export class TablesFinder {
  private readonly found: Finding[] = [];
  private waiting: Block[] = [];
  /** Rows that follow one another without a blank one between them. */
  private band: SheetRow[] = [];
  private lanes: readonly Lane[] = [];
  private last = 0;

  /** `house`: how numbers and days are written where a column does not tell. */
  constructor(private readonly house: Locale) {}

  add(rows: readonly SheetRow[]): void {
    for (const row of rows) {
      if (row.number !== this.last + 1) this.endBand();
      this.last = row.number;
      if (this.lanes.length > 0) for (const { from, to, into } of this.lanes) into.goOn(row, from, to);
      else this.band.push(row);
      if (this.band.length === mostLookedAt) this.lanes = lanesOf(this.place());
    }
  }

  end(): CountedTable[] {
    this.endBand();
    return this.found.flatMap((one) => one.found());
  }

  private endBand(): void {
    this.place();
    this.lanes = [];
  }

  /**
   * Each block of the band is of a table that it begins, or goes on with, or a title of what follows. A row of several blocks of one table
   * is one row.
   */
  private place(): Placed[] {
    const { band } = this;
    this.band = [];
    const placed = band.length === 0 ? [] : blocksOf(band).flatMap((block) => this.placed(block));
    for (const into of new Set(placed.map((one) => one.into))) {
      const own = placed.filter((one) => one.into === into);
      const [first] = own;
      into.goesOnAt(band[0]!.number, this.found);
      if (own.length === 1) into.add(first!.rows);
      else into.add(band.filter((row) => own.some(({ block }) => hasIn(row, block.from, block.to))));
    }
    return placed;
  }

  private placed(block: Block): Placed[] {
    const { titles, headings, rows } = partsOf(block);
    if (headings.length === 0 && isTitle(block)) {
      this.waiting.push(block);
      return [];
    }
    const above = this.waiting.length === 0 ? this.found.findLast((one) => one.takes(block)) : undefined;
    if (above) return [{ block, rows: block.rows, into: above }];
    const before = this.waiting
      .filter((lines) => block.rows[0]!.number - lines.rows.at(-1)!.number <= titleWithin)
      .flatMap((lines) => lines.rows);
    this.waiting = [];
    const into = new Finding(block, [...before, ...titles], headings, this.house);
    this.found.push(into);
    return [{ block, rows, into }];
  }
}

/** A block, with those of its rows that are rows of the table that it is of. */
interface Placed {
  readonly block: Block;
  readonly rows: readonly SheetRow[];
  readonly into: Finding;
}

/** The lanes lie beside one another without a gap, so that nothing is left that stands further down in a column that was blank. */
function lanesOf(placed: readonly Placed[]): Lane[] {
  const begun = placed.filter(({ into }, at) => at === 0 || into !== placed[at - 1]!.into);
  return begun.map(({ block, into }, at) => ({ from: at === 0 ? 0 : block.from, to: (begun[at + 1]?.block.from ?? Infinity) - 1, into }));
}

/** The tables of a sheet that is read already. */
export function findTables(sheet: readonly SheetRow[], house: Locale): CountedTable[] {
  const finder = new TablesFinder(house);
  finder.add(sheet);
  return finder.end();
}

/**
 * Reads a table again with its headings in another row of it, or with none: what stood above them is titles, what stands below is its rows.
 */
export class WithHeading {
  private counts: TableCounts;
  private named: SheetRow | undefined;
  private first: number | undefined;
  private readonly from: number;
  private readonly to: number;
  private readonly top: number;
  private readonly isOwn: (number: number) => boolean;

  constructor(
    private readonly table: CountedTable,
    private readonly heading: number | null,
  ) {
    this.counts = new TableCounts(table.counts.house);
    this.from = table.columns[0]?.at ?? 0;
    this.to = table.columns.at(-1)?.at ?? 0;
    this.top = Math.min(table.heading ?? table.first, heading ?? table.first);
    this.isOwn = isRowOf({ ...table, first: this.top });
  }

  /** Rows of the sheet, in their order. */
  add(rows: readonly SheetRow[]): void {
    for (const row of rows) {
      const { number } = row;
      if (!this.isOwn(number) || !hasIn(row, this.from, this.to)) continue;
      if (number === this.heading) {
        this.named = row;
        this.first = undefined;
        this.counts = new TableCounts(this.table.counts.house);
      } else {
        this.first ??= number;
        this.counts.add(row, this.from, this.to);
      }
    }
  }

  end(): CountedTable {
    const { table, named, counts } = this;
    return {
      ...table,
      heading: named ? named.number : null,
      columns: table.columns.map(({ at }) => ({ at, heading: named ? writtenIn(named.cells.get(at)) : '' })),
      first: this.first ?? table.last,
      totals: table.totals.filter((number) => named === undefined || number > named.number),
      counts,
    };
  }
}

const writtenIn = (cell: CameBack | undefined): string => (cell === undefined ? '' : (heldOf(cell)?.text ?? ''));
