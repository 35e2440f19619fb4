// Blocks on the clipboard: tab-separated text, quoted where a cell holds tabs, line ends or quotes.
import Papa from 'papaparse';

const notation = { delimiter: '\t', newline: '\r\n', quoteChar: '"' } as const;

export const toClipboard = (cells: readonly (readonly string[])[]): string => Papa.unparse(cells as string[][], notation);

/** Reads what was copied elsewhere; a line end at the end makes no row of its own. */
export function fromClipboard(text: string): string[][] {
  if (text === '') return [];
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/u, ''), { delimiter: '\t', quoteChar: '"' });
  return data;
}
