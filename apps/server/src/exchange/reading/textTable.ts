// Reads a table of texts (CSV, RFC 4180, and what is sent under its name): its encoding, its separator and its line ends are found out.
import { setImmediate } from 'node:timers/promises';
import Papa from 'papaparse';
import type { FileBytes } from './fileBytes.js';
import { beyondIn, TextCells } from './textCells.js';
import { headOf, textsOf } from './texts.js';
import { longestText, countAnew, nothingNoticed, UnreadableFile, type OpenedFile, type Piece, type ReadRow } from './models.js';

export function openTextTable(file: FileBytes, title: string): OpenedFile {
  const noticed = nothingNoticed();
  return {
    noticed,
    async *pieces(): AsyncIterable<Piece> {
      countAnew(noticed);
      yield { piece: 'sheet', title, hidden: false };
      let number = 0;
      for await (const table of tablesOf(file)) {
        const rows: ReadRow[] = [];
        for (const texts of table) {
          number += 1;
          const cells = new TextCells(texts);
          noticed.beyond += beyondIn(texts);
          if (cells.size > 0) rows.push({ number, cells });
        }
        if (rows.length > 0) yield { piece: 'rows', rows };
        // Others have their turn.
        await setImmediate();
      }
    },
  };
}

/** The rows of a table, in the pieces in which they are read; a row that goes on in the next piece is of that. */
async function* tablesOf(file: FileBytes): AsyncIterable<string[][]> {
  const head = await headOf(file);
  const parser = new Papa.Parser({ delimiter: separatorOf(head), newline: lineEndOf(head) });
  let left = '';
  for await (const { text, isLast } of textsOf(file)) {
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
