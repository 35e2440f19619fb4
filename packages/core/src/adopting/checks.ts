// Drop-downs and other checks that stand in a workbook already (ISO/IEC 29500, 18.3.1.32 dataValidation), as what they say of the columns
// of the tables that are found: the values of a list, bounds, and the words for whoever types.
import { columnOf } from '../exchange/readCells.js';
import { epoch } from '../exchange/cellValue.js';
import { plainNumber } from '../exchange/comparing.js';
import { clean, longestText, matchKey } from '../text/index.js';
import type { DayBound, NumberBound } from '../rules/index.js';
import { dayNumber, dayOf, isOfKind } from '../values/index.js';
import type { AdoptedKind } from './columns.js';
import type { AdoptedTable } from './found.js';
import { Meanings } from './meanings.js';

/** Rows and columns of a sheet: rows counted from 1, columns from 0; both ends are in it. */
export interface Area {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}
export type CheckType = 'list' | 'whole' | 'decimal' | 'date' | 'textLength';
/** A check as it stands in a file. */
export interface FileCheck {
  readonly areas: readonly Area[];
  readonly type: CheckType;
  readonly operator: string;
  /** Formulas, without the sign of equality. */
  readonly first: string;
  readonly second: string;
  readonly mayBeBlank: boolean;
  readonly others: 'refuse' | 'confirm' | 'accept';
  readonly hintTitle: string;
  readonly hint: string;
  readonly refusalText: string;
}
/** A name of a workbook, and what it stands for. */
export interface FileName {
  readonly name: string;
  readonly formula: string;
}
export interface CheckedSheet {
  readonly title: string;
  readonly checks: readonly FileCheck[];
}
export interface CheckedFile {
  readonly sheets: readonly CheckedSheet[];
  readonly names: readonly FileName[];
}

/** A drop-down that offers under each value of another column what a name of the file stands for. */
export interface DependentList {
  readonly takes: 'dependent';
  /** Where the other column stands. */
  readonly parent: number;
  readonly under: readonly { readonly parent: string; readonly values: readonly string[] }[];
  /** Where these values stand, so that they are not taken for entries. */
  readonly from: readonly { readonly table: string; readonly at: number }[];
  /** Values of the other column for which the file has a list, whose name is written otherwise or missing: nothing was offered. */
  readonly misnamed: readonly string[];
  /** Those for which it has none. */
  readonly missing: readonly string[];
}
/** What a check takes. */
export type Taken =
  /** Typed into the check itself. */
  | { readonly takes: 'typed'; readonly values: readonly string[] }
  /** From the column of a table; `missed`: values that stand below the end of the drop-down, and were not offered. */
  | { readonly takes: 'column'; readonly table: string; readonly at: number; readonly values: readonly string[]; readonly missed: number }
  /** By what stands in another column of the table. */
  | DependentList
  /** Bounds that are of a field name a column by where it stands. */
  | { readonly takes: 'number'; readonly least: NumberBound | null; readonly most: NumberBound | null; readonly whole: boolean }
  | { readonly takes: 'date'; readonly from: DayBound | null; readonly until: DayBound | null }
  | { readonly takes: 'length'; readonly least: number | null; readonly most: number | null };

/** What a column is checked against already. */
export interface FoundCheck extends Pick<FileCheck, 'mayBeBlank' | 'others' | 'hintTitle' | 'hint' | 'refusalText'> {
  /** Null where it cannot be said here: only its words are taken over. */
  readonly taken: Taken | null;
  /** Rows of the table that it does not reach. */
  readonly beyond: number;
}

/** So many values are typed into a rule at most. */
const mostTyped = 1000;

/**
 * What the drop-down of a column of numbers or days offers, in the stored form: such a column is in no list, and its rule holds the values
 * itself. Undefined where they are not all of its kind, or too many.
 */
export function valuesInRule({ taken }: FoundCheck, kind: AdoptedKind): readonly string[] | undefined {
  if (kind === 'text' || kind === 'yes/no' || (taken?.takes !== 'typed' && taken?.takes !== 'column')) return undefined;
  const values = [...new Set(taken.values.map(clean))];
  return values.length <= mostTyped && values.every((value) => isOfKind(kind, value)) ? values : undefined;
}

/** A check belongs to a column whose rows it reaches in at least this share. */
const mostly = 0.5;
const lastRow = 1_048_576;
/** The last day that programs of the standards know, 9999-12-31, as they count. */
const lastSerial = 2_958_465;

/** Areas in A1 notation, blanks between them: "B2:B500 D2". Undefined where none is. */
export function areasOf(references: string): Area[] {
  return references.split(/\s+/u).flatMap((reference) => areaOf(reference) ?? []);
}

function areaOf(reference: string): Area | undefined {
  const [first, second = first] = reference.replaceAll('$', '').split(':');
  const [left, right] = [columnOf(first!), columnOf(second!)];
  if (left === undefined || right === undefined) return undefined;
  const rowOf = (cell: string, otherwise: number) => Number(/\d+$/u.exec(cell)?.[0] ?? otherwise);
  return { left, right, top: rowOf(first!, 1), bottom: rowOf(second!, lastRow) };
}

/** Where a formula of a list points: to cells of a sheet, open downwards where it grows by itself. */
interface Pointed extends Area {
  readonly sheet: number;
  readonly grows: boolean;
}

const reference = /^(?:('(?:[^']|'')+'|[^'!(),\s]+)!)?(\$?[A-Za-z]{1,3}(?:\$?\d{1,7})?(?::\$?[A-Za-z]{1,3}(?:\$?\d{1,7})?)?)$/u;
/** A range that grows by counting what is filled, as offices write it. */
const growing = /^OFFSET\(\s*([^,;]+)[,;]/iu;

function pointedAt(formula: string, sheet: number, file: CheckedFile, depth = 0): Pointed | undefined {
  const grown = growing.exec(formula)?.[1]?.trim();
  const found = reference.exec(grown ?? formula);
  if (found) {
    const [, quoted, cells] = found;
    const title = quoted?.replace(/^'|'$/gu, '').replaceAll("''", "'");
    const own = title === undefined ? sheet : file.sheets.findIndex((one) => clean(one.title).toLowerCase() === clean(title).toLowerCase());
    const area = areaOf(cells!);
    if (own < 0 || !area) return undefined;
    const grows = grown !== undefined || area.bottom === lastRow;
    return { ...area, sheet: own, grows, ...(grows && { bottom: lastRow }) };
  }
  const named = file.names.find(({ name }) => name.toLowerCase() === formula.toLowerCase());
  return named && depth < 3 ? pointedAt(named.formula, sheet, file, depth + 1) : undefined;
}

const quotedItem = /"((?:[^"]|"")*)"/gu;

/** The items of a list that are typed into its formula: "a,b,c" in quotes, or each in quotes of its own. */
function typedItems(formula: string): string[] | undefined {
  if (/^"(?:[^"]|"")*"(?:;"(?:[^"]|"")*")+$/u.test(formula))
    return [...formula.matchAll(quotedItem)].map(([, item]) => clean(item!.replaceAll('""', '"'))).filter((item) => item !== '');
  const quoted = /^"(.*)"$/su.exec(formula)?.[1];
  return quoted
    ?.replaceAll('""', '"')
    .split(',')
    .map(clean)
    .filter((item) => item !== '');
}

/** Larger bounds are none that anybody meant, nor those of so many days. */
const largest = 1e15;
const farthest = 40_000;

/** A number, or a day as the number of its day. */
function constant(formula: string): number | undefined {
  const written = formula.trim();
  if (/^-?\d+(?:\.\d+)?$/u.test(written)) return Number(written);
  const [, year, month, day] = /^DATE\(\s*(\d{4})\s*[,;]\s*(\d{1,2})\s*[,;]\s*(\d{1,2})\s*\)$/iu.exec(written) ?? [];
  const serial = year === undefined ? NaN : dayNumber(`${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}`) - epoch;
  return Number.isNaN(serial) ? undefined : serial;
}

/** A bound as a formula has it: itself, or so much more than today, or than what stands in another column of the row. */
type Bound =
  | { readonly of: 'constant'; readonly number: number }
  | { readonly of: 'today'; readonly plus: number }
  | { readonly of: 'column'; readonly at: number; readonly plus: number };
interface Bounds {
  readonly least: Bound | null;
  readonly most: Bound | null;
}

/** Formulas stand as they do for the first cell that is checked: what moves along with it is another column of the row. */
function boundIn(formula: string, areas: readonly Area[]): Bound | undefined {
  const number = constant(formula);
  if (number !== undefined) return { of: 'constant', number };
  const [, moving, sign = '+', more = '0'] = /^(TODAY\(\)|\$?[A-Z]{1,3}\d{1,7})\s*(?:([+-])\s*(\d{1,5}))?$/iu.exec(formula.trim()) ?? [];
  if (moving === undefined) return undefined;
  const plus = Number(`${sign}${more}`);
  if (/^TODAY/iu.test(moving)) return { of: 'today', plus };
  const row = Number(/\d+$/u.exec(moving)![0]);
  const at = columnOf(moving.replaceAll('$', ''));
  return at === undefined || areas.every(({ top }) => top !== row) ? undefined : { of: 'column', at, plus };
}

const moved = (bound: Bound, by: number): Bound =>
  bound.of === 'constant' ? { ...bound, number: bound.number + by } : { ...bound, plus: bound.plus + by };

/** The bounds of a check, both included; `step`: by which a bound that is not in it is moved. */
function boundsOf({ operator, first, second, areas }: FileCheck, step: number | undefined): Bounds | undefined {
  const [one, other] = [boundIn(first, areas), boundIn(second, areas)];
  if (one === undefined) return undefined;
  switch (operator) {
    case 'between':
      if (other === undefined || (one.of === 'constant' && other.of === 'constant' && other.number < one.number)) return undefined;
      return { least: one, most: other };
    case 'equal':
      return { least: one, most: one };
    case 'greaterThanOrEqual':
      return { least: one, most: null };
    case 'lessThanOrEqual':
      return { least: null, most: one };
    case 'greaterThan':
      return step === undefined ? undefined : { least: moved(one, step), most: null };
    case 'lessThan':
      return step === undefined ? undefined : { least: null, most: moved(one, -step) };
    default:
      return undefined;
  }
}

/** A bound of a number; undefined for one that no rule says. */
function asNumber(bound: Bound | null): NumberBound | null | undefined {
  if (bound === null) return null;
  if (bound.of === 'constant') return Math.abs(bound.number) <= largest ? { of: 'number', number: plainNumber(bound.number) } : undefined;
  return bound.of === 'column' && bound.plus === 0 ? { of: 'field', field: String(bound.at) } : undefined;
}

function asDay(bound: Bound | null): DayBound | null | undefined {
  if (bound === null) return null;
  if (bound.of !== 'constant' && Math.abs(bound.plus) > farthest) return undefined;
  if (bound.of === 'today') return bound;
  if (bound.of === 'column') return { of: 'field', field: String(bound.at), plus: bound.plus };
  return bound.number >= 0 && bound.number <= lastSerial ? { of: 'day', day: dayOf(Math.floor(bound.number) + epoch) } : undefined;
}

/** How many characters; undefined for what is none. */
function asLength(bound: Bound | null): number | null | undefined {
  if (bound === null) return null;
  return bound.of === 'constant' && bound.number >= 0 && bound.number <= longestText && Number.isInteger(bound.number)
    ? bound.number
    : undefined;
}

/** What a check is looked at with. */
interface Among {
  readonly file: CheckedFile;
  readonly tables: readonly AdoptedTable[];
  idOf(table: AdoptedTable): string;
  /** Names as they are, and as they are but for blanks and the signs that are written for them. */
  readonly exact: ReadonlyMap<string, FileName>;
  readonly alike: ReadonlyMap<string, FileName>;
}

function takenBy(check: FileCheck, table: AdoptedTable, among: Among, depth = 0): Taken | null {
  if (check.type === 'list') {
    const values = typedItems(check.first);
    if (values) return values.length > 0 ? { takes: 'typed', values } : null;
    const pointed = pointedAt(check.first.trim(), table.sheet, among.file);
    return (pointed ? fromColumn(pointed, among) : dependentOn(check.first, table, among, depth)) ?? null;
  }
  const bounds = boundsOf(check, check.type === 'decimal' ? undefined : 1);
  if (!bounds) return null;
  switch (check.type) {
    case 'textLength': {
      const [least, most] = [asLength(bounds.least), asLength(bounds.most)];
      return least === undefined || most === undefined ? null : { takes: 'length', least, most };
    }
    case 'date': {
      const [from, until] = [asDay(bounds.least), asDay(bounds.most)];
      return from === undefined || until === undefined ? null : { takes: 'date', from, until };
    }
    default: {
      const [least, most] = [asNumber(bounds.least), asNumber(bounds.most)];
      return least === undefined || most === undefined ? null : { takes: 'number', least, most, whole: check.type === 'whole' };
    }
  }
}

/**
 * The values of a column from where a drop-down begins: those below its end, too, since whoever typed them there meant them to be offered.
 */
function fromColumn({ sheet, top, bottom, left, grows }: Pointed, { tables, idOf }: Among): Taken | undefined {
  for (const table of tables) {
    const place = table.columns.findIndex(({ at }) => at === left);
    if (table.sheet !== sheet || place < 0 || table.listed === null) continue;
    const rows = table.listed.filter(({ number, texts }) => number >= top && texts[place] !== '');
    const values = [...new Set(rows.map(({ texts }) => texts[place]!))];
    if (values.length === 0) continue;
    const offered = new Set(rows.filter(({ number }) => grows || number <= bottom).map(({ texts }) => texts[place]!));
    return { takes: 'column', table: idOf(table), at: left, values, missed: values.filter((value) => !offered.has(value)).length };
  }
  return undefined;
}

/**
 * The cell of another column in the same row, as a name: as it stands, or with some signs written as others, since names have no blanks.
 */
const nameInCell =
  /^INDIRECT\(\s*(?:SUBSTITUTE\(\s*)?\$?([A-Z]{1,3})\$?\d{1,7}\s*(?:[,;]\s*"([^"]{1,20})"\s*[,;]\s*"([^"]{0,20})"\s*\)\s*)?(?:[,;]\s*(?:TRUE|1)\s*)?\)$/iu;
const squeezed = (name: string): string => matchKey(name).replaceAll(/[\s_.-]/gu, '');

/** Drop-downs depend on one another so deep. */
const deepest = 5;

function dependentOn(formula: string, table: AdoptedTable, among: Among, depth: number): DependentList | undefined {
  const [, letters, sign, instead = ''] = nameInCell.exec(formula.trim()) ?? [];
  const parent = letters === undefined ? undefined : columnOf(letters);
  const column = table.columns.find(({ at }) => at === parent);
  if (parent === undefined || !column?.values || depth > deepest) return undefined;
  const { file, tables, idOf, exact, alike } = among;
  const standing = [...new Meanings(undefined, column.values).values];
  const named = [...new Set([...offeredIn(parent, table, among, depth + 1), ...standing])].map((value) => {
    const name = matchKey(sign ? value.replaceAll(sign, instead) : value);
    const like = exact.get(name) ?? alike.get(squeezed(value));
    const pointed = like && pointedAt(like.formula, table.sheet, file);
    return { parent: value, isExact: exact.has(name), list: pointed && listIn(pointed, tables) };
  });
  const beside = new Set(named.flatMap(({ list }) => list?.table ?? []));
  // A list that nobody named stands beside those that have names, under what it is for.
  const found = named.map((one) => ({ ...one, list: one.list ?? listUnder(one.parent, beside) }));
  const under = found.flatMap(({ parent: value, list }) => (list ? [{ parent: value, values: list.values }] : []));
  if (under.length === 0) return undefined;
  return {
    takes: 'dependent',
    parent,
    under,
    from: found.flatMap(({ list }) => (list ? [{ table: idOf(list.table), at: list.at }] : [])),
    misnamed: found.filter(({ isExact, list }) => list && !isExact).map((one) => one.parent),
    missing: found.filter(({ list }) => !list).map((one) => one.parent),
  };
}

/** What the drop-down of a column offers, under all parents. */
function offeredIn(at: number, table: AdoptedTable, among: Among, depth: number): readonly string[] {
  const check = checkOf(at, table, among.file)?.check;
  const taken = check?.type === 'list' ? takenBy(check, table, among, depth) : null;
  if (taken?.takes === 'typed' || taken?.takes === 'column') return taken.values;
  return taken?.takes === 'dependent' ? taken.under.flatMap(({ values }) => values) : [];
}

interface ListedColumn {
  readonly table: AdoptedTable;
  readonly at: number;
  readonly values: readonly string[];
}

/** What stands in the cells that are pointed at: no more, since another list may stand below. */
function listIn({ sheet, top, bottom, left }: Pointed, tables: readonly AdoptedTable[]): ListedColumn | undefined {
  return tables.filter((table) => table.sheet === sheet).flatMap((table) => columnIn(table, left, top, bottom))[0];
}

/** The column that is called as a value. */
function listUnder(value: string, tables: ReadonlySet<AdoptedTable>): ListedColumn | undefined {
  return [...tables].flatMap((table) =>
    table.columns
      .filter(({ heading }) => squeezed(heading) === squeezed(value))
      .flatMap(({ at }) => columnIn(table, at, table.first, table.last)),
  )[0];
}

/** What stands in some rows of a column; nothing where that is none, or the table is too long for lists. */
function columnIn(table: AdoptedTable, at: number, top: number, bottom: number): ListedColumn[] {
  const place = table.columns.findIndex((column) => column.at === at);
  const texts = (table.listed ?? []).flatMap((row) =>
    place >= 0 && row.number >= top && row.number <= bottom ? (row.texts[place] ?? []) : [],
  );
  const values = [...new Set(texts)].filter((text) => text !== '');
  return values.length > 0 ? [{ table, at, values }] : [];
}

/** The check that reaches the most rows of a column. */
function checkOf(at: number, table: AdoptedTable, file: CheckedFile): { readonly check: FileCheck; readonly rows: number } | undefined {
  return (file.sheets[table.sheet]?.checks ?? [])
    .map((check) => ({ check, rows: rowsReached(check, at, table) }))
    .filter(({ rows }) => rows >= mostly * table.rows && rows > 0)
    .sort((one, other) => other.rows - one.rows)[0];
}

/** The tables of one file with what its checks say of their columns. */
export function withChecks(tables: readonly AdoptedTable[], file: CheckedFile, idOf: (table: AdoptedTable) => string): AdoptedTable[] {
  const by = (keyOf: (name: string) => string) => new Map(file.names.map((one) => [keyOf(one.name), one] as const));
  const among: Among = { file, tables, idOf, exact: by(matchKey), alike: by(squeezed) };
  return tables.map((table) => ({
    ...table,
    columns: table.columns.map((column) => {
      const reached = checkOf(column.at, table, file);
      if (!reached) return column;
      const { mayBeBlank, others, hintTitle, hint, refusalText } = reached.check;
      const taken = takenBy(reached.check, table, among);
      const check: FoundCheck = { taken, beyond: table.rows - reached.rows, mayBeBlank, others, hintTitle, hint, refusalText };
      return { ...column, check };
    }),
  }));
}

/** How many rows of a table a check reaches in a column; rows that are blank or of sums between them are not told apart. */
function rowsReached({ areas }: FileCheck, at: number, { first, last, rows }: AdoptedTable): number {
  const reached = areas
    .filter(({ left, right }) => left <= at && at <= right)
    .reduce((sum, { top, bottom }) => sum + Math.max(0, Math.min(bottom, last) - Math.max(top, first) + 1), 0);
  return Math.min(reached, rows);
}
