// Reads a table of texts (CSV, RFC 4180, and what is sent under its name): its encoding, its separator and its line ends are found out.
import { setImmediate } from 'node:timers/promises';
import Papa from 'papaparse';
import type { CameBack } from '@dellum/core';
import { headOf, textsOf } from './texts.js';
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

export function openTextTable(bytes: Buffer, title: string): OpenedFile {
  const noticed = nothingNoticed();
  return {
    noticed,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      yield { piece: 'sheet', title, hidden: false };
      let number = 0;
      for (const table of tablesOf(bytes)) {
        const rows: ReadRow[] = [];
        for (const texts of table) {
          number += 1;
          const cells = cellsOf(texts, noticed);
          if (cells.size > 0) rows.push({ number, cells });
        }
        if (rows.length > 0) yield { piece: 'rows', rows };
        // Others have their turn.
        await setImmediate();
      }
    },
  };
}

function cellsOf(texts: readonly string[], noticed: Noticed): Map<number, CameBack> {
  const cells = new Map<number, CameBack>();
  for (let at = 0; at < texts.length; at++) {
    const text = texts[at]!;
    if (text === '') continue;
    if (at >= mostColumns) noticed.beyond += 1;
    else cells.set(at, { is: 'text', text });
  }
  return cells;
}

/** The rows of a table, in the pieces in which they are read; a row that goes on in the next piece is of that. */
function* tablesOf(bytes: Buffer): Iterable<string[][]> {
  const head = headOf(bytes);
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
