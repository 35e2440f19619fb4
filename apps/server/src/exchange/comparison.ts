// A file under comparison: its columns, what its rows so far have shown, and what is to be said of it.
import { createHash, randomUUID } from 'node:crypto';
import {
  ColumnWriting,
  copied,
  heldInRow,
  inHouseWriting,
  isNumeric,
  rowDifferences,
  shownInColumn,
  typedIn,
  type CellBack,
  type FieldKind,
  type Writing,
  type Cells,
  type Locale,
  type RowBack,
  type ShownColumn,
  type TypedCell,
} from '@dellum/core';
import type { FileColumn, FileHeading, ReturnedCell, SentColumn } from '@dellum/contract';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { counted } from './noticed.js';
import type { ReadRow } from './reading/index.js';
import type { SentFile } from './sent.store.js';
import { markOfText } from './signed.js';
import { textOf, type Survey } from './survey.js';

export interface WhereFrom {
  readonly registerId: string | null;
  /** What went out, where it is known. */
  readonly sent: SentFile | undefined;
  /** Its mark says so. */
  readonly isSure: boolean;
  readonly said: readonly string[];
}

export interface Change {
  readonly row: number;
  readonly what: 'changed' | 'new' | 'deleted';
  readonly entry: string;
  readonly about: string;
  readonly cells: readonly (TypedCell & Partial<Pick<CellBack, 'was' | 'now'>> & { readonly asked?: boolean })[];
  readonly mark?: Buffer;
}

/** A file under comparison: its columns, and what its rows so far have shown. */
export class Comparison {
  readonly seen = new Set<string>();
  /** How often the new rows of files before hold the same, as far as it was asked. */
  private readonly before = new Map<string, number>();
  readonly locale: Locale;
  private readonly places: readonly (readonly [at: number, column: ShownColumn])[];
  private readonly columns: readonly ShownColumn[];
  /** All that went out, as they went. */
  private readonly sentColumns: readonly ShownColumn[];
  private readonly now: ReadonlyMap<string, ShownColumn>;
  /** What rows that went out show, and how often. */
  private readonly known = new Map<string, number>();
  private readonly headingOf: (field: string) => string;
  private readonly gone: readonly string[];
  private readonly unread: readonly string[];
  /** How columns write their numbers and days, where they do otherwise than the house. */
  private writings: ReadonlyMap<string, Writing> = new Map();
  private again = 0;
  private count = 0;

  constructor(
    readonly build: HouseBuild,
    readonly register: RegisterBuild,
    columnsNow: readonly ShownColumn[],
    readonly from: WhereFrom,
    columns: readonly FileColumn[],
    private readonly survey: Survey,
  ) {
    this.locale = build.locale;
    this.now = new Map(columnsNow.map((column) => [column.key, column]));
    this.sentColumns = (from.sent?.columns ?? []).map(asShown);
    const out = new Map(this.sentColumns.map((column) => [column.key, column]));
    const headingAt = (at: number) => survey.headings.find((heading) => heading.at === at)?.heading ?? '';
    const read = columns.flatMap(({ at, field }) =>
      field !== null && this.now.has(field) ? [[at, out.get(field) ?? this.now.get(field)!] as const] : [],
    );
    // A parent is judged with what it decides: in the order of the sheet.
    this.places = read.toSorted(([one], [other]) => one - other);
    this.columns = this.places.map(([, column]) => column);
    this.headingOf = (field) => register.fields.find(({ key }) => key === field)?.heading ?? field;
    const wentOut = new Set((from.sent?.columns ?? []).filter(({ key }) => !this.now.has(key)).map(({ heading }) => heading));
    const others = columns.filter(({ field }) => field === null || !this.now.has(field)).map(({ at }) => headingAt(at));
    this.gone = others.filter((heading) => wentOut.has(heading));
    this.unread = others.filter((heading) => !wentOut.has(heading));
  }

  /** By its place, what is to be looked at of each column that holds numbers or days. */
  writingsToTell(): ReadonlyMap<number, ColumnWriting> {
    const told = this.places.filter(([, { kind }]) => isNumeric(kind) || kind === 'date');
    return new Map(told.map(([at, { kind }]) => [at, new ColumnWriting(kind, this.locale)]));
  }
  readAs(told: ReadonlyMap<number, ColumnWriting>): void {
    this.writings = new Map(
      this.places.flatMap(([at, { key }]) => {
        const writing = told.get(at)?.found;
        return writing ? [[key, writing] as const] : [];
      }),
    );
  }

  private shows(field: string, value: string): string {
    const column = this.now.get(field);
    return column ? shownInColumn(column, { [field]: value }, this.locale) : value;
  }

  /** A cell as it is to be looked at: what was changed in both places stays as it is here until somebody decides. */
  returnedCell({ field, text, was = '', now = '', asked = false }: Change['cells'][number]): ReturnedCell {
    return { field, text, was: this.shows(field, was), shown: this.shows(field, now), now, asked, takes: asked ? 'here' : 'came' };
  }

  rowsOf(rows: readonly ReadRow[]): RowBack[] {
    const { entryColumn } = this.survey;
    return rows.map(({ number, cells }) => {
      const entry = entryColumn === undefined ? '' : textOf(cells.get(entryColumn)).trim().toLowerCase();
      return {
        row: number,
        // Kept until the end: not with the piece of the file in which it stands.
        entry: isId(entry) ? copied(entry) : undefined,
        cells: new Map(
          this.places.flatMap(([at, { key, kind }]) => {
            const held = cells.get(at);
            const writing = this.writings.get(key);
            return held ? [[key, writing ? inHouseWriting(kind, held, writing, this.locale) : held] as const] : [];
          }),
        ),
      };
    });
  }

  /** Without the rows that are as they went out: of these nothing needs to be known. */
  notAsSent(rows: readonly RowBack[], marks: ReadonlyMap<string, Buffer>): RowBack[] {
    return rows.filter(({ entry, cells }) => {
      const mark = entry === undefined || this.seen.has(entry) ? undefined : marks.get(entry);
      if (!mark?.equals(markOfText(heldInRow(this.sentColumns, cells)))) return true;
      this.seen.add(entry!);
      return false;
    });
  }

  willKnow(cells: Cells): void {
    const typed = this.columns.flatMap((column) => {
      const text = shownInColumn(column, cells, this.locale);
      return text === '' ? [] : [{ field: column.key, text }];
    });
    const key = keyOf(markOfRow(typed));
    this.known.set(key, (this.known.get(key) ?? 0) + 1);
  }

  changesIn(rows: readonly RowBack[], out: ReadonlyMap<string, Cells>, now: ReadonlyMap<string, Cells>): Change[] {
    const { columns, locale } = this;
    const found = rowDifferences({ columns, rows, out, now, locale }, this.seen);
    const byEntry = new Map<string, { row: number; cells: Change['cells'][number][] }>();
    const isKnown = this.from.sent !== undefined;
    const gather = (cell: CellBack, asked: boolean) => {
      const held = byEntry.get(cell.entry) ?? { row: cell.row, cells: [] };
      held.cells.push({ ...cell, asked });
      byEntry.set(cell.entry, held);
    };
    for (const cell of found.proposed) gather(cell, !isKnown);
    for (const cell of found.asked) gather(cell, true);
    const changed = [...byEntry].map(([entry, { row, cells }]): Change => ({
      row,
      what: 'changed',
      entry,
      about: this.aboutEntry(now.get(entry) ?? {}),
      cells,
    }));
    const added = found.added.flatMap(({ row, cells }): Change[] => {
      const mark = markOfRow(cells);
      return [{ row, what: 'new', entry: randomUUID(), about: aboutTyped(cells), cells, mark }];
    });
    const rowOf = new Map(rows.map((row) => [row.row, row]));
    const deleted = found.deleted.map(({ row, entry }): Change => ({
      row,
      what: 'deleted',
      entry,
      about: aboutTyped(typedIn(columns, rowOf.get(row)!.cells, locale)),
      cells: [],
    }));
    return [...changed, ...added, ...deleted].sort((one, other) => one.row - other.row);
  }

  /** The marks of new rows of which it is not known yet how often they were brought before. */
  marksToAsk(changes: readonly Change[]): Buffer[] {
    const asked = new Map<string, Buffer>();
    for (const { mark } of changes) if (mark && !this.before.has(keyOf(mark))) asked.set(keyOf(mark), mark);
    return [...asked.values()];
  }
  /** `counts`: of these marks; one that is not among them was not brought. */
  know(marks: readonly Buffer[], counts: ReadonlyMap<string, number>): void {
    for (const mark of marks) this.before.set(keyOf(mark), counts.get(keyOf(mark)) ?? 0);
  }
  /** Without new rows that went out, or were brought before. */
  withoutThere(changes: readonly Change[]): Change[] {
    return changes.filter(({ mark }) => !mark || !this.isThere(mark));
  }

  private isThere(mark: Buffer): boolean {
    if (takenOnce(this.known, keyOf(mark))) return true;
    const isAgain = takenOnce(this.before, keyOf(mark));
    if (isAgain) this.again += 1;
    return isAgain;
  }

  /** The number of the next of so many rows. */
  next(rows: number): number {
    const from = this.count;
    this.count += rows;
    return from;
  }

  aboutEntry(cells: Cells): string {
    return aboutTyped([...this.now.values()].map((column) => ({ field: column.key, text: shownInColumn(column, cells, this.locale) })));
  }

  said(): string[] {
    const headings = (some: readonly string[]) => some.map((heading) => `“${heading}”`).join(', ');
    return [
      ...this.columns.flatMap(({ key, kind }) => {
        const writing = this.writings.get(key);
        return writing ? [`${headings([this.headingOf(key)])} is read as the file writes: ${writingWords(kind, writing)}.`] : [];
      }),
      ...(this.gone.length > 0
        ? [`${headings(this.gone)} ${this.gone.length === 1 ? 'is' : 'are'} no longer on the sheet, and not read.`]
        : []),
      ...(this.unread.length > 0
        ? [`${headings(this.unread)} ${this.unread.length === 1 ? 'is no field' : 'are no fields'} of the sheet, and not read.`]
        : []),
      ...(this.again > 0
        ? [
            `${counted(this.again, 'new row was', 'new rows were')} stored when the file was brought before; ${this.again === 1 ? 'it is' : 'they are'} not stored again.`,
          ]
        : []),
    ];
  }
}

const dayWords: Readonly<Record<Writing['dateOrder'], string>> = { dmy: 'the day first', mdy: 'the month first', ymd: 'the year first' };
const writingWords = (kind: FieldKind, { decimalMark, dateOrder }: Writing): string =>
  kind === 'date' ? dayWords[dateOrder] : `with a decimal ${decimalMark === ',' ? 'comma' : 'point'}`;

/** Takes one of what is left, where there is any. */
function takenOnce(counts: Map<string, number>, key: string): boolean {
  const left = counts.get(key) ?? 0;
  if (left > 0) counts.set(key, left - 1);
  return left > 0;
}

const asShown = ({ key, kind, labels, under }: SentColumn): ShownColumn => ({ key, kind, labels: labels && new Map(labels), under });

export const namedIn = (rows: readonly RowBack[]): string[] => [
  ...new Set(rows.flatMap(({ entry }) => (entry === undefined ? [] : [entry]))),
];

export const isId = (text: string): boolean => /^[\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12}$/u.test(text);

const hashOf = (held: unknown): Buffer => createHash('sha256').update(JSON.stringify(held)).digest();
const markOfRow = (cells: readonly TypedCell[]): Buffer =>
  hashOf(cells.map(({ field, text }) => [field, text] as const).sort(([one], [other]) => (one < other ? -1 : 1)));
/** A mark as a key of maps. */
export const keyOf = (mark: Buffer): string => mark.toString('base64');
/** Files of the same headings have the same shape. */
export const shapeOf = (headings: readonly FileHeading[]): Buffer => hashOf(headings.map(({ heading }) => heading));

/** What a row begins with. */
const aboutTyped = (cells: readonly TypedCell[]): string =>
  cells
    .filter(({ text }) => text !== '')
    .slice(0, 2)
    .map(({ text }) => (text.length > 40 ? `${text.slice(0, 39)}…` : text))
    .join(', ');
