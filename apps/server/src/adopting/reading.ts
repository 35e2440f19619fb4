// Reads the files of a proposal and finds what is in them; in a thread, since it takes long and holds whole files.
import {
  adoptedTable,
  findTables,
  longestText,
  tableId,
  withChecks,
  withHeading,
  type AdoptedTable,
  type FileCheck,
  type FoundTable,
  type Locale,
  type SheetRow,
} from '@dellum/core';
import { mostAdoptedRows } from '@dellum/contract';
import { counted } from '../exchange/comparison.js';
import { noticedIn } from '../exchange/noticed.js';
import { openFile, UnreadableFile, type OpenedFile } from '../exchange/reading/index.js';

export interface ToRead {
  readonly files: readonly { readonly name: string; readonly bytes: Uint8Array }[];
  readonly locale: Locale;
  /** Rows of headings that were said by hand. */
  readonly headings: readonly { readonly table: string; readonly heading: number | null }[];
}
/** `why`: no file of these can be read so, in a sentence. */
export type Read = { readonly found: readonly AdoptedTable[]; readonly said: readonly string[] } | { readonly why: string };

interface SheetRead {
  readonly title: string;
  /** It holds what was not meant to be seen: lists for drop-downs, mostly. */
  readonly hidden: boolean;
  readonly rows: SheetRow[];
  readonly checks: FileCheck[];
}

export async function read({ files, locale, headings }: ToRead): Promise<Read> {
  const found: AdoptedTable[] = [];
  const said: string[] = [];
  let rows = 0;
  for (const [file, { name, bytes }] of files.entries()) {
    try {
      const opened = await openFile(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), name);
      const sheets = await sheetsOf(opened, (more) => {
        rows += more;
        if (rows > mostAdoptedRows)
          throw new UnreadableFile(
            `The files hold more than ${mostAdoptedRows.toLocaleString('en-GB')} rows together, which is more than one proposal takes. Bring fewer of them, or a part of the long one.`,
          );
      });
      const tables = tablesOf(file, sheets, name, locale, new Map(headings.map(({ table, heading }) => [table, heading])));
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

async function sheetsOf(opened: OpenedFile, come: (rows: number) => void): Promise<SheetRead[]> {
  const sheets: SheetRead[] = [];
  for await (const piece of opened.pieces()) {
    switch (piece.piece) {
      case 'sheet':
        sheets.push({ title: piece.title, hidden: piece.hidden, rows: [], checks: [] });
        break;
      case 'rows':
        come(piece.rows.length);
        sheets.at(-1)!.rows.push(...piece.rows);
        break;
      case 'checks':
        sheets.at(-1)!.checks.push(...piece.checks);
    }
  }
  return sheets;
}

function tablesOf(
  file: number,
  sheets: readonly SheetRead[],
  name: string,
  locale: Locale,
  headings: ReadonlyMap<string, number | null>,
): AdoptedTable[] {
  return sheets.flatMap(({ title, hidden, rows }, sheet) => {
    const tables = findTables(rows);
    return tables.map((table, at) => {
      const place = { file, sheet, table: at };
      const id = tableId(place);
      const own = headings.has(id) ? withHeading(table, rows, headings.get(id)!) : table;
      return {
        ...adoptedTable(place, titleOf(own, title, name, { at, count: tables.length }), own, rows, locale),
        ...(hidden && { hidden }),
      };
    });
  });
}

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
