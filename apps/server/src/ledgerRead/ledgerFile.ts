// Lines of the ledger as a file: written part by part, so that a long one takes no room on the server.
import { once } from 'node:events';
import type { Writable } from 'node:stream';
import type { LedgerLine } from '@dellum/contract';
import Papa from 'papaparse';

/** So many lines a file holds, the newest ones, and the rest of the act that was written last into an entry; and so many are read at once. */
export const mostLines = 100_000;
const atOnce = 5000;

const columns = [
  'id',
  'at',
  'by',
  'act',
  'about',
  'field',
  'from',
  'to',
  'registerId',
  'entryId',
] as const satisfies readonly (keyof LedgerLine)[];

interface Sink extends Writable {
  setHeader(name: string, value: string): unknown;
}

/** A text that a table program would take for a formula stays a text. */
const csvOf = (lines: readonly LedgerLine[], header: boolean): string =>
  Papa.unparse(
    { fields: [...columns], data: lines.map((line) => columns.map((column) => line[column] ?? '')) },
    { header, escapeFormulae: true },
  );

export async function ledgerFile(read: (before: number | undefined, count: number) => Promise<LedgerLine[]>, sink: Sink): Promise<void> {
  let before: number | undefined;
  for (let written = 0; written < mostLines;) {
    // What cannot be read at all is refused before the file begins.
    const lines = await read(before, atOnce);
    written += lines.length;
    if (before === undefined) {
      sink.setHeader('Content-Type', 'text/csv; charset=utf-8');
      sink.setHeader('Content-Disposition', 'attachment; filename="ledger.csv"');
    }
    if (lines.length > 0 || before === undefined) {
      const isTaken = sink.write(`${csvOf(lines, before === undefined)}\r\n`);
      if (!isTaken) await Promise.race([once(sink, 'drain'), once(sink, 'close')]);
    }
    if (lines.length < atOnce || sink.destroyed) break;
    before = lines.at(-1)!.id;
  }
  sink.end();
}
