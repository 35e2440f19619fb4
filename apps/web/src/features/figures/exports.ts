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
  const headings = [
    ...words.by.slice(0, depth).map((reached) => reached?.name ?? ''),
    ...(words.by.length === 0 ? [''] : []),
    ...columns.map((column, at) => (across === 'time' ? words.timeWords(column) : labelOf(words.lookOf(1, column, at)))),
    'all',
  ];
  const rowOf = (line: FigureLine, names: readonly string[]) => [
    ...names.map(asText),
    ...Array.from({ length: depth - names.length }, () => ''),
    ...columns.map((column) => words.plainNumber(line.cells.get(column))),
    words.plainNumber(line.all),
  ];
  const rows = lines.flatMap((line, at) => {
    const name = labelOf(words.lookOf(0, line.value, at));
    return line.within.length === 0
      ? [rowOf(line, [name])]
      : line.within.map((inner, place) => rowOf(inner, [name, labelOf(words.lookOf(1, inner.value, place))]));
  });
  const foot = [
    'all',
    ...Array.from({ length: depth - 1 }, () => ''),
    ...columns.map((column) => words.plainNumber(table.foot.cells.get(column))),
    words.plainNumber(table.foot.all),
  ];
  save(
    `${name}.csv`,
    new Blob(['\uFEFF', Papa.unparse([headings.map(asText), ...rows, foot], { newline: '\r\n' })], { type: 'text/csv;charset=utf-8' }),
  );
}

/** What stands over a chart that leaves the page: its title, and what it measures. */
export interface Caption {
  readonly title: string;
  readonly measures: string;
}

export async function savePng(name: string, chart: HTMLElement, { title, measures }: Caption): Promise<void> {
  const caption = document.createElement('p');
  const strong = document.createElement('strong');
  strong.textContent = title;
  caption.append(strong, document.createElement('br'), measures);
  chart.prepend(caption);
  const picture = await toBlob(chart, { pixelRatio: 2 }).finally(() => caption.remove());
  if (!picture) throw new Error('the browser makes no picture of the chart');
  save(`${name}.png`, picture);
}

/** Room for the title and what is measured; pixels. */
const captionHeight = 44;

const kept = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'font-size',
  'font-family',
  'font-weight',
  'text-anchor',
] as const;

/** The chart as an SVG of its own: what the page's styles say is written into it. */
export function saveSvg(name: string, chart: HTMLElement, { title, measures }: Caption): void {
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
  const { width, height } = shown.getBoundingClientRect();
  const text = getComputedStyle(chart);
  copy.setAttribute('viewBox', `0 ${-captionHeight} ${width} ${height + captionHeight}`);
  copy.setAttribute('height', String(height + captionHeight));
  [title, measures].forEach((line, at) => {
    const words = document.createElementNS('http://www.w3.org/2000/svg', 'text');
    for (const [property, value] of [
      ['x', '8'],
      ['y', String(18 + at * 18 - captionHeight)],
      ['font-family', text.fontFamily],
      ['font-size', at === 0 ? '15' : '12'],
      ['font-weight', at === 0 ? '700' : '400'],
      ['fill', text.color],
    ] as const)
      words.setAttribute(property, value);
    words.textContent = line;
    copy.append(words);
  });
  const legend = [...chart.querySelectorAll('ul[aria-label="Legend"] li')].map((line) => line.textContent ?? '');
  if (legend.length > 0) {
    const described = document.createElementNS('http://www.w3.org/2000/svg', 'desc');
    described.textContent = legend.join(', ');
    copy.prepend(described);
  }
  save(`${name}.svg`, new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }));
}
