// Where in a file the entries stand: the sheet with the mark, or the first one on which anything stands; its headings; the column that says
// which row is which.
import { readMark, type CameBack, type FileMark } from '@dellum/core';
import type { FileHeading } from '@dellum/contract';
import { UnreadableFile, type OpenedFile, type ReadRow } from './reading/index.js';
import { aboutSheet, listsSheet } from './bookSheets.js';

export interface Survey {
  readonly mark: FileMark | 'damaged' | undefined;
  /** Which sheet, counted from 0, and in which row of it the headings stand. */
  readonly sheet: number;
  readonly headingRow: number;
  readonly headings: readonly FileHeading[];
  /** The column that says which entry a row is. */
  readonly entryColumn: number | undefined;
}

/** The headings with the mark stand among so many rows from the top. */
const mostAbove = 50;

export const textOf = (held: CameBack | undefined): string => {
  if (held === undefined) return '';
  return held.is === 'text' ? held.text : String(held.is === 'number' ? held.number : held.serial);
};

export async function surveyed(file: OpenedFile): Promise<Survey> {
  let first: Survey | undefined;
  let beside: FileMark | 'damaged' | undefined;
  let [sheet, looked, title, hidden] = [-1, 0, '', false];
  for await (const piece of file.pieces()) {
    if (piece.piece === 'sheet') {
      sheet += 1;
      [looked, title, hidden] = [0, piece.title, piece.hidden];
      continue;
    }
    if (piece.piece !== 'rows') continue;
    for (const row of piece.rows) {
      looked += 1;
      if (looked > mostAbove) break;
      const [at, mark] = markIn(row) ?? [];
      if (mark !== undefined && at !== undefined && row.cells.size > 1) return { mark, ...placeOf(sheet, row, at), entryColumn: at };
      beside ??= mark;
      if (!hidden && title !== listsSheet && title !== aboutSheet)
        first ??= { mark: undefined, ...placeOf(sheet, row), entryColumn: undefined };
    }
  }
  if (!first) throw new UnreadableFile('There is nothing in the file. Choose another file.');
  return { ...first, mark: beside };
}

function markIn({ cells }: ReadRow): [at: number, mark: FileMark | 'damaged'] | undefined {
  for (const [at, held] of cells) {
    const mark = held.is === 'text' ? readMark(held.text) : undefined;
    if (mark !== undefined) return [at, mark];
  }
  return undefined;
}

const placeOf = (sheet: number, { number, cells }: ReadRow, without?: number) => ({
  sheet,
  headingRow: number,
  headings: [...cells].flatMap(([at, held]) => (at === without ? [] : [{ at, heading: textOf(held).slice(0, 200) }])),
});

/** The rows below the headings, in the pieces in which they come. */
export async function* rowsBelow(file: OpenedFile, { sheet: wanted, headingRow }: Survey): AsyncIterable<readonly ReadRow[]> {
  let sheet = -1;
  for await (const piece of file.pieces()) {
    if (piece.piece === 'sheet') sheet += 1;
    if (sheet > wanted) return;
    if (piece.piece === 'rows' && sheet === wanted) {
      const rows = piece.rows.filter(({ number }) => number > headingRow);
      if (rows.length > 0) yield rows;
    }
  }
}
