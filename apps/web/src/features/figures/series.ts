// A table as series for a chart: a place along the axis for each step or value, a series for each value across.
import { measuredIn, type FigureDefinition, type FigureTable, type Tally } from '@dellum/core';
import type { Cell } from './FigureTableView.js';
import type { FigureWords, ValueLook } from './useFigureWords.js';

export interface Series {
  readonly key: string;
  readonly look: ValueLook;
  /** The value that is shown by it; undefined for all that are put together, or for all entries. */
  readonly value: string | undefined;
}
export interface ChartRow {
  readonly name: string;
  /** What the place is, where each has a bar of its own. */
  readonly look?: ValueLook;
  readonly cells: Readonly<Record<string, Cell | undefined>>;
  readonly [series: `s${number}`]: number | undefined;
}

/** More series than eyes tell apart are put together. */
const mostSeries = 10;

/** Counts and sums of the rest can be put together; means, least and most cannot. */
const addsUp = ({ measure }: FigureDefinition): boolean => measure === 'count' || measure === 'sum';

/** A number to draw; where nothing is counted or summed that is none, where nothing is measured it is a gap. */
const asNumber = (tally: Tally | undefined, definition: FigureDefinition): number | undefined => {
  const text = tally && measuredIn(tally, definition.measure);
  return text === undefined ? (addsUp(definition) ? 0 : undefined) : Number(text);
};
const plain = (label: string): ValueLook => ({ label, colour: 'damson', outside: false, blank: false });

/** More places than eyes find along the axis are left to the table, which has them all. */
const mostPlaces = 400;

export function chartOf(
  definition: FigureDefinition,
  { across, foot, ...table }: FigureTable,
  words: FigureWords,
): { readonly series: readonly Series[]; readonly rows: readonly ChartRow[] } {
  const lines = across === 'time' ? table.lines : table.lines.slice(0, mostPlaces);
  const columns = across === 'time' ? table.columns.slice(-mostPlaces) : table.columns;
  if (across === 'nothing') {
    const rows = lines.map((line, at): ChartRow => {
      const look = words.lookOf(0, line.value, at);
      return { name: labelOf(look), look, cells: { s0: { values: [line.value] } }, s0: asNumber(line.all, definition) };
    });
    return { series: [{ key: 's0', look: plain('Entries'), value: undefined }], rows };
  }
  if (across === 'time' && lines.length === 0) {
    const rows = columns.map((column): ChartRow => ({
      name: words.timeWords(column),
      cells: { s0: { values: [], time: column } },
      s0: asNumber(foot.cells.get(column), definition),
    }));
    return { series: [{ key: 's0', look: plain('Entries'), value: undefined }], rows };
  }
  const across1 = across === 'time' ? lines.map(({ value }) => value) : columns;
  const depth = across === 'time' ? 0 : 1;
  const shown = across1.length > mostSeries ? across1.slice(0, mostSeries - 1) : across1;
  const rest = across1.slice(shown.length);
  const series: Series[] = shown.map((value, at) => ({ key: `s${at}`, look: words.lookOf(depth, value, at), value }));
  if (rest.length > 0 && addsUp(definition))
    series.push({ key: `s${shown.length}`, look: { ...plain(`${rest.length} others`), colour: 'slate' }, value: undefined });
  const places = across === 'time' ? columns : lines.map(({ value }) => value);
  const lineOf = new Map(lines.map((line) => [line.value, line]));
  const tallyAt = (place: string, value: string): Tally | undefined =>
    across === 'time' ? lineOf.get(value)?.cells.get(place) : lineOf.get(place)?.cells.get(value);
  const cellAt = (place: string, value: string): Cell =>
    across === 'time' ? { values: [value], time: place } : { values: [place, value] };
  const rows = places.map((place, at): ChartRow => {
    const numbers = series.map(
      ({ key, value }) =>
        [
          key,
          value === undefined
            ? rest.reduce((sum, other) => sum + (asNumber(tallyAt(place, other), definition) ?? 0), 0)
            : asNumber(tallyAt(place, value), definition),
        ] as const,
    );
    const cells = Object.fromEntries(series.map(({ key, value }) => [key, value === undefined ? undefined : cellAt(place, value)]));
    return {
      name: across === 'time' ? words.timeWords(place) : labelOf(words.lookOf(0, place, at)),
      cells,
      ...Object.fromEntries(numbers),
    };
  });
  return { series, rows };
}

/** A label as text alone: the open ring before what is outside. */
export const labelOf = ({ label, outside }: ValueLook): string => (outside ? `○ ${label}` : label);
