// A figure taken along: its table as CSV (RFC 4180), its chart as PNG or SVG.
import type { FigureLine, FigureTable } from '@dellum/core';
import { toBlob } from 'html-to-image';
import Papa from 'papaparse';
import { labelOf } from './series.js';
import type { FigureWords } from './useFigureWords.js';

function save(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** A text that a table program would take for a formula stays a text. */
const asText = (text: string): string => (/^[=+\-@\t\r]/u.test(text) ? `'${text}` : text);

export function saveCsv(name: string, table: FigureTable, words: FigureWords): void {
  const { columns, across, lines } = table;
  const depth = across === 'time' ? Math.max(1, words.by.length) : 1;
  const headings = [...words.by.slice(0, depth).map((reached) => reached?.name ?? ''), ...(words.by.length === 0 ? [''] : []), ...columns.map((column, at) => (across === 'time' ? words.timeWords(column) : labelOf(words.lookOf(1, column, at)))), 'all'];
  const rowOf = (line: FigureLine, names: readonly string[]) => [...names.map(asText), ...Array.from({ length: depth - names.length }, () => ''), ...columns.map((column) => words.plainNumber(line.cells.get(column))), words.plainNumber(line.all)];
  const rows = lines.flatMap((line, at) => {
    const name = labelOf(words.lookOf(0, line.value, at));
    return line.within.length === 0 ? [rowOf(line, [name])] : line.within.map((inner, place) => rowOf(inner, [name, labelOf(words.lookOf(1, inner.value, place))]));
  });
  const foot = ['all', ...Array.from({ length: depth - 1 }, () => ''), ...columns.map((column) => words.plainNumber(table.foot.cells.get(column))), words.plainNumber(table.foot.all)];
  save(`${name}.csv`, new Blob(['\uFEFF', Papa.unparse([headings.map(asText), ...rows, foot], { newline: '\r\n' })], { type: 'text/csv;charset=utf-8' }));
}

export async function savePng(name: string, chart: HTMLElement): Promise<void> {
  const picture = await toBlob(chart, { pixelRatio: 2 });
  if (!picture) throw new Error('the browser makes no picture of the chart');
  save(`${name}.png`, picture);
}

const kept = ['fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-size', 'font-family', 'font-weight', 'text-anchor'] as const;

/** The chart as an SVG of its own: what the page's styles say is written into it. */
export function saveSvg(name: string, chart: HTMLElement): void {
  const shown = chart.querySelector('svg.recharts-surface');
  if (!shown) return;
  const copy = shown.cloneNode(true) as SVGElement;
  const originals = shown.querySelectorAll<SVGElement>('*');
  copy.querySelectorAll<SVGElement>('*').forEach((element, at) => {
    const style = getComputedStyle(originals[at]!);
    for (const property of kept) element.setAttribute(property, style.getPropertyValue(property));
    element.removeAttribute('class');
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  const legend = [...chart.querySelectorAll('ul[aria-label="Legend"] li')].map((line) => line.textContent ?? '');
  if (legend.length > 0) {
    const title = document.createElementNS('http://www.w3.org/2000/svg', 'desc');
    title.textContent = legend.join(', ');
    copy.prepend(title);
  }
  save(`${name}.svg`, new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }));
}
