// Reads tables that are described as Tabular Data on the Web (CSVW, W3C 2015): CSV files, packed with what says what their columns hold.
import { posix } from 'node:path';
import { columnName, dayNumber, freeAmong, isOfKind, writeSeveral, type CameBack, type CheckType, type FileCheck } from '@dellum/core';
import { shapeFault } from '../../api/bodyShape.js';
import type { Archive } from './archive.js';
import { bytesOf, wholeOf } from './fileBytes.js';
import { countAnew, nothingNoticed, UnreadableFile, type OpenedFile, type Piece, type ReadRow } from './models.js';
import { openTextTable } from './textTable.js';

/** Of the description, bytes and what it is made of. */
const largest = 8 * 1024 * 1024;
const mostMembers = 200_000;
const mostTables = 200;
/** A table may have so many bytes. */
const largestTable = 200 * 1024 * 1024;
const lastRow = 1_048_576;

/** Where the description stands among the parts of an archive; undefined where there is none. */
export const descriptionIn = ({ names }: Archive): string | undefined =>
  names.find((name) => posix.basename(name) === 'csv-metadata.json') ?? names.find((name) => name.endsWith('-metadata.json'));

type Members = Readonly<Record<string, unknown>>;
const isObject = (held: unknown): held is Members => typeof held === 'object' && held !== null && !Array.isArray(held);
const objectsIn = (held: unknown): readonly Members[] => (Array.isArray(held) ? held.filter(isObject) : isObject(held) ? [held] : []);
const textIn = (held: unknown): string | undefined => (typeof held === 'string' && held.trim() !== '' ? held : undefined);
const textsIn = (held: unknown): readonly string[] =>
  Array.isArray(held) ? held.flatMap((one) => textIn(one) ?? []) : [textIn(held)].flatMap((one) => one ?? []);

interface DescribedTable {
  readonly title: string;
  readonly part: string;
  readonly hasHeadings: boolean;
  readonly columns: readonly DescribedColumn[];
  /** By the name of a column, in which table its values stand, and in which column there. */
  readonly lists: ReadonlyMap<string, { readonly part: string; readonly column: string }>;
}
interface DescribedColumn {
  readonly name: string;
  readonly heading: string;
  readonly datatype: Members;
  readonly separator: string | undefined;
  readonly required: boolean;
  readonly hint: string;
}

export async function openDescribedTables(archive: Archive, at: string): Promise<OpenedFile> {
  const tables = await described(archive, at);
  const noticed = nothingNoticed();
  return {
    noticed,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      for (const table of tables) {
        yield { piece: 'sheet', title: table.title, hidden: false };
        const opened = openTextTable(bytesOf(await heldPart(archive, table.part, largestTable)), table.title);
        if (!table.hasHeadings) yield { piece: 'rows', rows: [headingsOf(table)] };
        for await (const piece of opened.pieces())
          if (piece.piece === 'rows') yield { piece: 'rows', rows: piece.rows.map((row) => rowOf(row, table)) };
        noticed.beyond += opened.noticed.beyond;
        const checks = table.columns.flatMap((_, place) => checkOf(table, place, tables));
        if (checks.length > 0) yield { piece: 'checks', checks };
      }
    },
  };
}

async function heldPart(archive: Archive, part: string, most: number): Promise<Buffer> {
  let size = 0;
  const parts = async function* () {
    for await (const chunk of archive.part(part)) {
      size += chunk.length;
      if (size > most) throw new UnreadableFile(`The part “${part.slice(0, 100)}” of the file is too large. Bring a part of it.`);
      yield chunk;
    }
  };
  return wholeOf({ parts });
}

async function described(archive: Archive, at: string): Promise<DescribedTable[]> {
  const text = (await heldPart(archive, at, largest)).toString('utf8').replace(/^\uFEFF/u, '');
  const wrong = (words: string) => new UnreadableFile(`The description of the tables (${posix.basename(at).slice(0, 100)}) ${words}`);
  if (shapeFault(text, { members: mostMembers, objects: mostMembers })) throw wrong('is nested too deep, or has too many members.');
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw wrong('is no JSON. Mend it where the file was made, and bring it again.');
  }
  const all = isObject(said) ? objectsIn(said['tables'] ?? said) : [];
  const tables = all.slice(0, mostTables).flatMap((table) => tableOf(table, at));
  if (tables.length === 0) throw wrong('names no table. Bring the tables themselves.');
  // Lists are pointed at by their titles.
  return tables.reduce<DescribedTable[]>(
    (titled, table) => [
      ...titled,
      {
        ...table,
        title: freeAmong(
          table.title,
          titled.map(({ title }) => title),
        ),
      },
    ],
    [],
  );
}

function tableOf(said: Members, at: string): DescribedTable[] {
  const url = textIn(said['url']);
  if (url === undefined) return [];
  const schema = isObject(said['tableSchema']) ? said['tableSchema'] : {};
  const part = partAt(url, at);
  const dialect = isObject(said['dialect']) ? said['dialect'] : {};
  return [
    {
      title: textIn(said['dc:title']) ?? posix.basename(part).replace(/\.[^.]+$/u, ''),
      part,
      hasHeadings: dialect['header'] !== false,
      columns: objectsIn(schema['columns'])
        .filter(({ virtual }) => virtual !== true)
        .map(columnOf),
      lists: new Map(objectsIn(schema['foreignKeys']).flatMap((key) => listOf(key, at))),
    },
  ];
}

function partAt(url: string, at: string): string {
  try {
    return posix.join(posix.dirname(at), decodeURIComponent(url));
  } catch {
    return url;
  }
}

function columnOf(said: Members, place: number): DescribedColumn {
  const titles = isObject(said['titles']) ? Object.values(said['titles']).flatMap(textsIn) : textsIn(said['titles']);
  const name = textIn(said['name']) ?? `_col.${place + 1}`;
  const { datatype } = said;
  return {
    name,
    heading: titles[0] ?? name,
    datatype: isObject(datatype) ? datatype : { base: textIn(datatype) ?? 'string' },
    separator: typeof said['separator'] === 'string' && said['separator'] !== '' ? said['separator'] : undefined,
    required: said['required'] === true,
    hint: textIn(said['dc:description']) ?? '',
  };
}

/** What stands under something else is named by its own column, the last of the key. */
function listOf(key: Members, at: string): [string, { part: string; column: string }][] {
  const reference = isObject(key['reference']) ? key['reference'] : {};
  const [own, there, resource] = [
    textsIn(key['columnReference']).at(-1),
    textsIn(reference['columnReference']).at(-1),
    textIn(reference['resource']),
  ];
  return own !== undefined && there !== undefined && resource !== undefined ? [[own, { part: partAt(resource, at), column: there }]] : [];
}

const headingsOf = ({ columns }: DescribedTable): ReadRow => ({
  number: 1,
  cells: new Map(columns.map(({ heading }, place) => [place, { is: 'text', text: heading }])),
});

function rowOf({ number, cells }: ReadRow, { hasHeadings, columns }: DescribedTable): ReadRow {
  if (hasHeadings && number === 1) return { number, cells };
  const read = new Map([...cells].map(([place, cell]) => [place, cellAs(cell, columns[place])] as const));
  return { number: hasHeadings ? number : number + 1, cells: read };
}

const fractional: ReadonlySet<string> = new Set(['number', 'decimal', 'double', 'float']);
const whole: ReadonlySet<string> = new Set([
  ...['integer', 'long', 'int', 'short', 'byte', 'unsignedLong', 'unsignedInt', 'unsignedShort', 'unsignedByte'],
  ...['nonNegativeInteger', 'positiveInteger', 'nonPositiveInteger', 'negativeInteger'],
]);
const isNumber = (base: string): boolean => fractional.has(base) || whole.has(base);
/** A number of more digits would lose some of them; it is read as it stands. */
const exactDigits = 15;
const baseOf = ({ datatype }: DescribedColumn): string => textIn(datatype['base']) ?? 'string';
const isIsoDay = ({ datatype }: DescribedColumn): boolean => ['yyyy-MM-dd', undefined].includes(textIn(datatype['format']));
const serialOf = (day: string): number => dayNumber(day) - dayNumber('1899-12-30');

/** A cell as its column says that it is written; as it stands where that is said in a way of its own. */
function cellAs(cell: CameBack, column: DescribedColumn | undefined): CameBack {
  if (!column || cell.is !== 'text') return cell;
  const text = cell.text.trim();
  if (column.separator !== undefined) return { is: 'text', text: writeSeveral(cell.text.split(column.separator)) };
  const isExact = text.replaceAll(/\D/gu, '').length <= exactDigits;
  if (isNumber(baseOf(column)) && column.datatype['format'] === undefined && isOfKind('number', text) && isExact)
    return { is: 'number', number: Number(text) };
  if (baseOf(column) === 'date' && isIsoDay(column) && isOfKind('date', text)) return { is: 'day', serial: serialOf(text) };
  return cell;
}

/** What cells of a column are checked against there, as a workbook would say it. */
function checkOf(table: DescribedTable, place: number, tables: readonly DescribedTable[]): FileCheck[] {
  const column = table.columns[place]!;
  const list = table.lists.get(column.name);
  const said = (list && offeredIn(list, tables)) ?? boundsOf(column) ?? typedIn(column);
  if (!said) return [];
  return [
    {
      areas: [{ top: 2, bottom: lastRow, left: place, right: place }],
      ...said,
      ...{ mayBeBlank: !column.required, others: 'refuse', hintTitle: '', hint: column.hint, refusalText: '' },
    },
  ];
}
type Checked = Pick<FileCheck, 'type' | 'operator' | 'first' | 'second'>;

function offeredIn(
  { part, column }: { readonly part: string; readonly column: string },
  tables: readonly DescribedTable[],
): Checked | undefined {
  const table = tables.find((one) => one.part === part);
  const place = table?.columns.findIndex(({ name }) => name === column) ?? -1;
  if (!table || place < 0) return undefined;
  const cells = columnName(place);
  return { type: 'list', operator: '', first: `'${table.title.replaceAll("'", "''")}'!$${cells}$2:$${cells}$${lastRow}`, second: '' };
}

function boundsOf(column: DescribedColumn): Checked | undefined {
  const { datatype } = column;
  const base = baseOf(column);
  const bounded = (type: CheckType, least: unknown, most: unknown, as: (held: unknown) => string | undefined): Checked | undefined => {
    const [from, until] = [as(least), as(most)];
    if (from !== undefined && until !== undefined) return { type, operator: 'between', first: from, second: until };
    if (from !== undefined) return { type, operator: 'greaterThanOrEqual', first: from, second: '' };
    return until === undefined ? undefined : { type, operator: 'lessThanOrEqual', first: until, second: '' };
  };
  // What is neither a text nor a number says nothing.
  const textOf = (held: unknown) => (typeof held === 'string' || typeof held === 'number' ? String(held) : '');
  const asNumber = (held: unknown) => (isOfKind('number', textOf(held)) ? textOf(held) : undefined);
  const asDay = (held: unknown) => (isOfKind('date', textOf(held)) ? String(serialOf(textOf(held))) : undefined);
  const [least, most] = [datatype['minimum'] ?? datatype['minInclusive'], datatype['maximum'] ?? datatype['maxInclusive']];
  if (isNumber(base)) return bounded(whole.has(base) ? 'whole' : 'decimal', least, most, asNumber);
  if (base === 'date') return bounded('date', least, most, asDay);
  return bounded('textLength', datatype['minLength'], datatype['maxLength'], asNumber);
}

/** Values that a pattern names one by one: “open|done”. */
function typedIn(column: DescribedColumn): Checked | undefined {
  const format = baseOf(column) === 'string' ? textIn(column.datatype['format']) : undefined;
  if (format === undefined) return undefined;
  const values = format.split(/(?<!\\)\|/u).map((one) => one.replaceAll(/\\([.*+?^${}()|[\]\\/])/gu, '$1'));
  const isPlain = format.split(/(?<!\\)\|/u).every((one) => !/(?<!\\)[.*+?^${}()[\]]/u.test(one.replaceAll('\\\\', '')));
  if (!isPlain || values.length < 2) return undefined;
  return { type: 'list', operator: '', first: values.map((value) => `"${value.replaceAll('"', '""')}"`).join(';'), second: '' };
}
