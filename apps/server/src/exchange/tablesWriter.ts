// Tables of plain values with their description (CSVW): the sheet and each list a CSV of its own, packed with what says how they hang
// together.
import { exactInColumn, joinedValues, listColumns, tablesDescription, type Book, type BookList } from '@dellum/core';
import { csvLines } from './textWriters.js';
import type { FileWriter } from './writer.js';
import type { ZipState } from './zip.js';
import { Zipped } from './zipped.js';

/** Where readers look for the description of the tables beside it. */
const description = 'csv-metadata.json';
const fileOf = (name: string): string => `${name.replaceAll(/[^\p{L}\p{N}_-]+/gu, '_')}.csv`;

const listRows = (list: BookList): readonly (readonly string[])[] => [
  listColumns(list),
  ...list.rows.map(({ under, value }) => [...under, value]),
];

export function tablesWriter(book: Book, language: string): FileWriter<ZipState> {
  const sheet = book.sheets[0]!;
  // A list is never called as the sheet is: its name ends otherwise.
  const file = fileOf(sheet.title);
  const about = { file: encodeURIComponent(file), fileOf: (list: BookList) => encodeURIComponent(fileOf(list.name)), language };
  const { columns } = sheet;
  return {
    async begin() {
      const zip = await new Zipped().whole(description, JSON.stringify(tablesDescription(sheet, book.lists, about), null, 2));
      for (const list of book.lists) await zip.whole(fileOf(list.name), csvLines(listRows(list), false));
      return (await zip.begun(file).added(csvLines([columns.map(({ heading }) => heading)], false))).piece();
    },
    rows: async (entries, _from, state) => {
      const rows = entries.map(({ cells }) => columns.map((column) => exactInColumn(column, cells, joinedValues)));
      return (await new Zipped(state).added(csvLines(rows, false))).piece();
    },
    end: (state) => Promise.resolve(new Zipped(state).ended().closed().piece()),
  };
}
