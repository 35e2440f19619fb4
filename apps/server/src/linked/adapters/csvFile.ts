// A CSV file (RFC 4180) with headings in its first row; commas, semicolons and tabs are told apart.
import Papa from 'papaparse';
import type { LinkedRow } from '@dellum/core';
import type { CsvFileSettingsDto } from '@dellum/contract';
import { distinctRows, needed, SourceFault, type LinkedAdapter } from './adapter.js';
import { readTextFile } from './readFile.js';

const firstRows = 5;

function table(text: string): { columns: string[]; rows: string[][] } {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t'] });
  const [columns = [], ...rows] = data;
  return { columns: columns.map((column) => column.trim()), rows };
}

/** The rows of a table as values, by the columns that were chosen. */
export function rowsBy(
  columns: readonly string[],
  rows: readonly (readonly string[])[],
  { value, label, companions = [] }: Pick<CsvFileSettingsDto, 'value' | 'label' | 'companions'>,
): LinkedRow[] {
  const place = (column: string) => {
    const at = columns.indexOf(column);
    if (at < 0) throw new SourceFault(`There is no column “${column}” any more. There are: ${columns.join(', ')}.`);
    return at;
  };
  const valueAt = place(needed(value, 'Choose the column of the value.'));
  const labelAt = label ? place(label) : undefined;
  const along = companions.map((column) => [column, place(column)] as const);
  return distinctRows(
    rows.map((row) => {
      const held = Object.fromEntries(along.flatMap(([column, at]) => (row[at]?.trim() ? [[column, row[at].trim()]] : [])));
      const shown = labelAt === undefined ? '' : (row[labelAt]?.trim() ?? '');
      return {
        value: row[valueAt]?.trim() ?? '',
        ...(shown && { label: shown }),
        ...(Object.keys(held).length > 0 && { companions: held }),
      };
    }),
  );
}

export const csvFile: LinkedAdapter<'csv file'> = {
  kind: 'csv file',
  async read(settings, context) {
    const { columns, rows } = table(await readTextFile(settings, context));
    return { rows: rowsBy(columns, rows, settings) };
  },
  async look(settings, context) {
    const { columns, rows } = table(await readTextFile(settings, context));
    return { columns, rows: rows.slice(0, firstRows) };
  },
};
