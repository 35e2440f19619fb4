// The tables on a sheet of a file as somebody laid it out for the eye: titles above them, totals below, several side by side or one under another.
import { clean, matchKey, storable } from '../text/index.js';
import type { CameBack } from '../exchange/index.js';
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
}

/** Rows that stand together, and the columns that are filled in them. */
interface Block {
  readonly rows: readonly SheetRow[];
  readonly from: number;
  readonly to: number;
}

/** Words by which a row says that it adds up others. */
const totalWords = /^(?:grand |sub ?|sub-)?totals?\b|^sums?\b|^(?:zwischen|end|gesamt)?summe\b|^gesamt\b|^somme\b|^totale\b/iu;
/** A title stands so many rows above its table at most. */
const titleWithin = 3;
/** Side by side and equally high from so many rows on: one table with a blank column in it. */
const fewRows = 3;

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

/** Rows that follow one another without a blank one between them. */
function bandsOf(rows: readonly SheetRow[]): SheetRow[][] {
  const bands: SheetRow[][] = [];
  for (const row of rows) {
    const band = bands.at(-1);
    if (band && row.number === band.at(-1)!.number + 1) band.push(row);
    else bands.push([row]);
  }
  return bands;
}

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

/** Whether a row adds up those above it. */
function addsUp({ cells }: SheetRow, { from, to }: Block): boolean {
  for (const [at, cell] of cells) if (at >= from && at <= to && cell.is === 'text' && totalWords.test(cell.text.trimStart())) return true;
  return false;
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
  /** By column, what is a text as it is written, and how much else there is. */
  private readonly held = new Map<number, { readonly texts: Set<string>; others: number }>();
  readonly rows: SheetRow[] = [];

  constructor(
    readonly block: Block,
    readonly titles: readonly SheetRow[],
    readonly headings: readonly SheetRow[],
    rows: readonly SheetRow[],
  ) {
    this.add(rows);
  }

  add(rows: readonly SheetRow[]): void {
    for (const row of rows) {
      this.rows.push(row);
      for (const [at, cell] of row.cells) {
        const column = this.held.get(at) ?? { texts: new Set<string>(), others: 0 };
        this.held.set(at, column);
        if (cell.is === 'text') column.texts.add(cell.text);
        else column.others++;
      }
    }
  }

  /** Whether rows go on with it: they stand under it, and their first one holds what its columns hold, not what they are called. */
  takes({ rows: [first], from, to }: Block): boolean {
    if (this.headings.length === 0 || this.block.from > from || this.block.to < to || !first) return false;
    const beside = filledIn(first, from, to).flatMap(([at, cell]) => {
      const held = this.held.get(at);
      return held ? [{ cell, held }] : [];
    });
    if (beside.some(({ cell, held }) => isText(cell) && held.texts.size === 0)) return false;
    return beside.some(
      ({ cell, held }) => cell.is !== 'text' || held.texts.has(cell.text) || [...held.texts].some((text) => clean(text) === textOf(cell)),
    );
  }

  found(): FoundTable[] {
    const { block, headings } = this;
    const totals = new Set(this.rows.filter((row) => addsUp(row, block)));
    const own = this.rows.filter((row) => !totals.has(row));
    const [first, last] = [own[0]?.number, own.at(-1)?.number];
    if (first === undefined || last === undefined) return [];
    const columns = Array.from({ length: block.to - block.from + 1 }, (_, at) => block.from + at).filter(
      (at) => this.held.has(at) || headings.some(({ cells }) => cells.has(at)),
    );
    return [
      {
        titles: this.titles.flatMap((row) => [...row.cells.values()].map(textOf)),
        heading: headings.at(-1)?.number ?? null,
        columns: columns.map((at) => ({ at, heading: headingAt(headings, at, block.from) })),
        first,
        last,
        totals: [...totals].map(({ number }) => number).filter((number) => number > first && number < last),
      },
    ];
  }
}

/** The same table with its headings in another row of it, or with none: what stood above them is titles, what stands below is its rows. */
export function withHeading(table: FoundTable, sheet: readonly SheetRow[], heading: number | null): FoundTable {
  const [from, to] = [table.columns[0]?.at ?? 0, table.columns.at(-1)?.at ?? 0];
  const top = Math.min(table.heading ?? table.first, heading ?? table.first);
  const rows = sheet.filter((row) => row.number >= top && row.number <= table.last && hasIn(row, from, to));
  const named = rows.find(({ number }) => number === heading);
  const below = rows.filter(({ number }) => named === undefined || number > named.number);
  return {
    ...table,
    heading: named ? named.number : null,
    columns: table.columns.map(({ at }) => ({ at, heading: named ? writtenIn(named.cells.get(at)) : '' })),
    first: below[0]?.number ?? table.last,
    totals: table.totals.filter((number) => named === undefined || number > named.number),
  };
}

const writtenIn = (cell: CameBack | undefined): string => (cell === undefined ? '' : (heldOf(cell)?.text ?? ''));

/** Lines of text alone: titles of what follows. */
const isTitle = ({ rows, from, to }: Block): boolean =>
  rows.length < titleWithin &&
  rows.every(
    (row) => row.cells.size > 0 && filledIn(row, from, to).length === 1 && filledIn(row, from, to).every(([, cell]) => isText(cell)),
  );

/** The tables of a sheet, from above to below and from the left to the right. Looks at each cell a few times. */
export function findTables(sheet: readonly SheetRow[]): FoundTable[] {
  const found: Finding[] = [];
  let waiting: Block[] = [];
  for (const block of bandsOf(sheet).flatMap(blocksOf)) {
    const { titles, headings, rows } = partsOf(block);
    if (headings.length === 0 && isTitle(block)) {
      waiting.push(block);
      continue;
    }
    const above = waiting.length === 0 ? found.findLast((one) => one.takes(block)) : undefined;
    if (above) {
      above.add(block.rows);
      continue;
    }
    const before = waiting
      .filter((lines) => block.rows[0]!.number - lines.rows.at(-1)!.number <= titleWithin)
      .flatMap((lines) => lines.rows);
    waiting = [];
    found.push(new Finding(block, [...before, ...titles], headings, rows));
  }
  return found.flatMap((one) => one.found());
}
