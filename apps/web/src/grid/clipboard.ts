// Blocks on the clipboard: tab-separated text, quoted where a cell holds tabs, line ends or quotes; and tables in HTML.
import { dsvFormat } from 'd3-dsv';

const tabbed = dsvFormat('\t');

export const toClipboard = (cells: readonly (readonly string[])[]): string => cells.map((row) => tabbed.formatRow([...row])).join('\r\n');

/** Reads what was copied elsewhere; a line end at the end makes no row of its own. */
export function fromClipboard(text: string): string[][] {
  return tabbed.parseRows(text);
}

const escapes: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };

/** The same block as a table, for programs that take HTML. */
export function toHtml(cells: readonly (readonly string[])[]): string {
  const text = (cell: string) => cell.replaceAll(/[&<>]/gu, (character) => escapes[character]!).replaceAll('\n', '<br>');
  return `<table>${cells.map((row) => `<tr>${row.map((cell) => `<td>${text(cell)}</td>`).join('')}</tr>`).join('')}</table>`;
}

/** The text of a cell of a table; line breaks are kept, scripts and styles are not text. */
function textOf(cell: Element): string {
  const own = cell.cloneNode(true) as Element;
  own.querySelectorAll('script, style, template').forEach((element) => element.remove());
  own.querySelectorAll('br').forEach((line) => line.replaceWith('\n'));
  return (own.textContent ?? '').replaceAll(/[\t\r ]*\n[\t\r ]*/gu, '\n').trim();
}

/** The first table of an HTML text; a cell that spans several leaves the others blank. The text is parsed and never run. */
export function fromHtml(html: string): string[][] | undefined {
  const table = new DOMParser().parseFromString(html, 'text/html').querySelector('table');
  if (!table) return undefined;
  const rows: string[][] = Array.from({ length: table.rows.length }, () => []);
  [...table.rows].forEach((row, at) => {
    let column = 0;
    for (const cell of row.cells) {
      while (rows[at]![column] !== undefined) column++;
      const [down, across] = [Math.max(1, Math.min(cell.rowSpan, rows.length - at)), Math.max(1, Math.min(cell.colSpan, 400))];
      for (let y = 0; y < down; y++) for (let x = 0; x < across; x++) rows[at + y]![column + x] = y === 0 && x === 0 ? textOf(cell) : '';
      column += across;
    }
  });
  return rows.map((row) => Array.from(row, (text) => text ?? ''));
}

/** What was copied elsewhere: as text, or as its table where the text has lost the columns. */
export function fromBoth(text: string, html: string): string[][] {
  const plain = fromClipboard(text);
  const table = html === '' ? undefined : fromHtml(html);
  const widest = (cells: readonly (readonly string[])[]) => Math.max(0, ...cells.map((row) => row.length));
  return table && table.length > 0 && widest(table) !== widest(plain) ? table : plain;
}
