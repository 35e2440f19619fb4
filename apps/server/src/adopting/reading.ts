// Reads the files of a proposal and finds what is in them; in a thread, since it takes long and holds much.
import {
  adoptedTable,
  longestText,
  tableId,
  TablesFinder,
  withChecks,
  WithHeading,
  type AdoptedTable,
  type CountedTable,
  type FileCheck,
  type FoundTable,
  type Locale,
  type TablePlace,
} from '@dellum/core';
import { counted, noticedIn } from '../exchange/noticed.js';
import { openFile, UnreadableFile, type FileBytes, type OpenedFile } from '../exchange/reading/index.js';

export interface ToRead {
  readonly files: readonly { readonly name: string; readonly bytes: FileBytes }[];
  readonly locale: Locale;
  /** Of more rows together nothing is read. */
  readonly mostRows: number;
  /** Called with how many rows are read so far. */
  tell(rows: number): void;
  /** Rows of headings that were said by hand. */
  readonly headings: readonly { readonly table: string; readonly heading: number | null }[];
}
/** `why`: no file of these can be read so, in a sentence. */
export type Read = { readonly found: readonly AdoptedTable[]; readonly said: readonly string[] } | { readonly why: string };

interface SheetRead {
  readonly title: string;
  /** It holds what was not meant to be seen: lists for drop-downs, mostly. */
  readonly hidden: boolean;
  tables: readonly CountedTable[];
  readonly checks: FileCheck[];
}

export async function read({ files, locale, headings, mostRows, tell }: ToRead): Promise<Read> {
  const found: AdoptedTable[] = [];
  const said: string[] = [];
  let rows = 0;
  for (const [file, { name, bytes }] of files.entries()) {
    try {
      const opened = await openFile(bytes, name);
      const sheets = await sheetsOf(opened, locale, (more) => {
        rows += more;
        tell(rows);
        if (rows > mostRows)
          throw new UnreadableFile(
            `The files hold more than ${mostRows.toLocaleString('en-GB')} rows together, which is more than one proposal takes. Bring fewer of them, or a part of the long one.`,
          );
      });
      await readAgain(opened, file, sheets, new Map(headings.map(({ table, heading }) => [table, heading])));
      const tables = tablesOf(file, sheets, name);
      if (tables.length === 0) said.push(`“${name}” holds no table.`);
      found.push(...withChecks(tables, { sheets, names: opened.names ?? [] }, tableId));
      const cut = tables.reduce((sum, table) => sum + table.cut, 0);
      if (cut > 0)
        said.push(
          `“${name}”: ${counted(cut, 'cell holds', 'cells hold')} what cannot be stored: more than ${longestText.toLocaleString('en-GB')} characters, or characters that are none. That is left out.`,
        );
      said.push(...noticedIn(opened.noticed).map((sentence) => `“${name}”: ${sentence}`));
    } catch (error) {
      if (!(error instanceof UnreadableFile)) throw error;
      return { why: files.length === 1 ? error.message : `“${name}”: ${error.message}` };
    }
  }
  return { found, said };
}

/** The sheets of a file, with their tables; none of their rows is held. */
async function sheetsOf(opened: OpenedFile, locale: Locale, come: (rows: number) => void): Promise<SheetRead[]> {
  const sheets: SheetRead[] = [];
  let finder = new TablesFinder(locale);
  for await (const piece of opened.pieces()) {
    switch (piece.piece) {
      case 'sheet':
        endSheet(sheets.at(-1), finder);
        finder = new TablesFinder(locale);
        sheets.push({ title: piece.title, hidden: piece.hidden, tables: [], checks: [] });
        break;
      case 'rows':
        come(piece.rows.length);
        finder.add(piece.rows);
        break;
      case 'checks':
        sheets.at(-1)!.checks.push(...piece.checks);
    }
  }
  endSheet(sheets.at(-1), finder);
  return sheets;
}

function endSheet(sheet: SheetRead | undefined, finder: TablesFinder): void {
  if (sheet) sheet.tables = finder.end();
}

/** Reads those tables once more whose headings were said by hand to stand elsewhere. */
async function readAgain(
  opened: OpenedFile,
  file: number,
  sheets: readonly SheetRead[],
  headings: ReadonlyMap<string, number | null>,
): Promise<void> {
  const again = sheets.map(({ tables }, sheet) =>
    tables.map((table, at) => {
      const id = tableId({ file, sheet, table: at });
      return headings.has(id) ? new WithHeading(table, headings.get(id)!) : undefined;
    }),
  );
  if (again.flat().every((one) => one === undefined)) return;
  let sheet = -1;
  for await (const piece of opened.pieces()) {
    if (piece.piece === 'sheet') sheet += 1;
    if (piece.piece === 'rows') for (const one of again[sheet]!) one?.add(piece.rows);
  }
  for (const [nth, one] of sheets.entries()) one.tables = one.tables.map((table, at) => again[nth]![at]?.end() ?? table);
}

const tablesOf = (file: number, sheets: readonly SheetRead[], name: string): AdoptedTable[] =>
  sheets.flatMap(({ title, hidden, tables }, sheet) =>
    tables.map((table, at) => {
      const place: TablePlace = { file, sheet, table: at };
      return { ...adoptedTable(place, titleOf(table, title, name, { at, count: tables.length }), table), ...(hidden && { hidden }) };
    }),
  );

/** A sheet that nobody named says nothing; its file does. */
const plainName = /^(?:sheet|tabelle|feuil|blatt|hoja|foglio|table)?\s*\d*$/iu;
/** Longer lines over a table are remarks. */
const longestTitle = 60;

/** A table alone on its sheet is called as that; one of several by the line above it. */
function titleOf({ titles }: FoundTable, sheet: string, name: string, among: { readonly at: number; readonly count: number }): string {
  const of = plainName.test(sheet) ? fileTitle(name) : words(sheet);
  if (among.count === 1) return of;
  const line = titles.at(-1);
  return line !== undefined && line.length <= longestTitle ? line : `${of} ${among.at + 1}`;
}

const words = (name: string): string => name.replaceAll(/_+/gu, ' ').trim();
const fileTitle = (name: string): string => words(name.replace(/\.[^.]+$/u, '')) || name;
