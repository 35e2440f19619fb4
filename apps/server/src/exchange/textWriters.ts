// Entries as CSV (RFC 4180) and as JSON Lines.
import { exactInColumn, type Column } from '@dellum/core';
import Papa from 'papaparse';
import type { FileWriter, Piece } from './writer.js';

const piece = (text: string): Promise<Piece<null>> => Promise.resolve({ bytes: Buffer.from(text), state: null });

/** Lines of CSV (RFC 4180). */
export const csvLines = (data: readonly (readonly string[])[], guarded: boolean): string =>
  data.length === 0 ? '' : `${Papa.unparse(data as string[][], { escapeFormulae: guarded, newline: '\r\n' })}\r\n`;

/**
 * Values are exact: numbers with a point, days as in ISO 8601. `guarded`: a text that a calculating program would take for a formula stays
 * a text.
 */
export function csvWriter(columns: readonly Column[], guarded: boolean): FileWriter<null> {
  const lines = (data: readonly (readonly string[])[]) => csvLines(data, guarded);
  return {
    begin: () => piece(lines([columns.map(({ heading }) => heading)])),
    rows: (entries) => piece(lines(entries.map(({ cells }) => columns.map((column) => exactInColumn(column, cells))))),
    end: () => piece(''),
  };
}

/** One entry a line: its id, its version, and what its cells hold as it is stored, by the keys of the fields. */
export const jsonLinesWriter = (columns: readonly Column[]): FileWriter<null> => ({
  begin: () => piece(''),
  rows: (entries) =>
    piece(
      entries
        .map(({ id, version, cells }) => {
          const held = columns.flatMap(({ key }) => (cells[key] === undefined ? [] : [[key, cells[key]] as const]));
          return `${JSON.stringify({ id, version, cells: Object.fromEntries(held) })}\n`;
        })
        .join(''),
    ),
  end: () => piece(''),
});
