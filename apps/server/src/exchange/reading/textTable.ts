// Reads a table of texts (CSV, RFC 4180, and what is sent under its name): its encoding, its separator and its line ends are found out.
import { setImmediate } from 'node:timers/promises';
import { TextDecoder } from 'node:util';
import Papa from 'papaparse';
import type { CameBack } from '@dellum/core';
import {
  longestText,
  mostColumns,
  countAnew,
  nothingNoticed,
  UnreadableFile,
  type Noticed,
  type OpenedFile,
  type Piece,
  type ReadRow,
} from './models.js';

const chunkSize = 256 * 1024;

export function openTextTable(bytes: Buffer, title: string): OpenedFile {
  const noticed = nothingNoticed();
  return {
    noticed,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      yield { piece: 'sheet', title, hidden: false };
      let number = 0;
      for (const table of tablesOf(bytes)) {
        const rows = table.flatMap((texts): ReadRow[] => {
          number += 1;
          const cells = cellsOf(texts, noticed);
          return cells.size > 0 ? [{ number, cells }] : [];
        });
        if (rows.length > 0) yield { piece: 'rows', rows };
        // Others have their turn.
        await setImmediate();
      }
    },
  };
}

function cellsOf(texts: readonly string[], noticed: Noticed): Map<number, CameBack> {
  const cells = new Map<number, CameBack>();
  for (const [at, text] of texts.entries()) {
    if (text === '') continue;
    if (at >= mostColumns) noticed.beyond += 1;
    else cells.set(at, { is: 'text', text });
  }
  return cells;
}

/** The rows of a table, in the pieces in which they are read; a row that goes on in the next piece is of that. */
function* tablesOf(bytes: Buffer): Iterable<string[][]> {
  const head = new TextDecoder(encodingOf(bytes)).decode(bytes.subarray(0, chunkSize), { stream: true });
  const parser = new Papa.Parser({ delimiter: separatorOf(head), newline: lineEndOf(head) });
  let left = '';
  for (const { text, isLast } of textsOf(bytes)) {
    const all = left + text;
    const { data, meta } = parser.parse(all, 0, !isLast);
    left = all.slice(meta.cursor);
    if (left.length > longestText)
      throw new UnreadableFile(
        'A quotation mark of the file is not closed, so that a cell has no end. Look for it there, and bring the file again.',
      );
    yield data as string[][];
  }
}

function* textsOf(bytes: Buffer): Iterable<{ text: string; isLast: boolean }> {
  const decoder = new TextDecoder(encodingOf(bytes));
  for (let at = 0; at < bytes.length; at += chunkSize) {
    const isLast = at + chunkSize >= bytes.length;
    yield { text: decoder.decode(bytes.subarray(at, at + chunkSize), { stream: !isLast }), isLast };
  }
}

/** As its first line ends. */
function lineEndOf(head: string): '\r\n' | '\n' | '\r' {
  const [end] = /\r\n|\n|\r/u.exec(head.replaceAll(/"(?:[^"]|"")*"/gu, '')) ?? ['\n'];
  return end as '\r\n' | '\n' | '\r';
}

const separators = [';', '\t', '|', ','] as const;
const rowsLookedAt = 50;

/** What most rows have as often as the first one; where several are, the one that makes more columns. A decimal comma parts nothing. */
function separatorOf(head: string): string {
  const scores = separators.map((separator) => {
    const rows = Papa.parse<string[]>(head, { delimiter: separator, preview: rowsLookedAt }).data;
    const columns = rows[0]?.length ?? 1;
    const alike = rows.filter((row) => row.length === columns).length / Math.max(1, rows.length);
    return { separator, columns, score: columns > 1 ? alike : 0 };
  });
  return scores.reduce((best, one) => (one.score > best.score || (one.score === best.score && one.columns > best.columns) ? one : best))
    .separator;
}

const looked = 4096;

/** By its first bytes, and by whether it is UTF-8 at all; what is not is taken for the encoding that offices used before. */
function encodingOf(bytes: Buffer): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, looked);
  const blank = (odd: number) => head.filter((byte, at) => at % 2 === odd && byte === 0).length;
  if (blank(1) > head.length / 8 && blank(0) === 0) return 'utf-16le';
  if (blank(0) > head.length / 8 && blank(1) === 0) return 'utf-16be';
  if (head.includes(0))
    throw new UnreadableFile('The file is neither a workbook nor a table of texts. Save it as a workbook or as CSV, and bring that.');
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}

function isUtf8(bytes: Buffer): boolean {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for (let at = 0; at < bytes.length; at += chunkSize) decoder.decode(bytes.subarray(at, at + chunkSize), { stream: true });
    decoder.decode();
    return true;
  } catch {
    return false;
  }
}
