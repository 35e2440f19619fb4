// Laying groups out as a table: values in the order of their catalogs, the second field within the first, time across.
import type { FigureGroup, Tally, TimeStep } from './models.js';
import { total } from './tally.js';
import { stepsBetween } from './time.js';

/** A line of the table: a value of the first field, or of the second within it. */
export interface FigureLine {
  readonly value: string;
  readonly all: Tally;
  /** By the column: a step of time, or a value of the second field. */
  readonly cells: ReadonlyMap<string, Tally>;
  readonly within: readonly FigureLine[];
}
export interface FigureTable {
  readonly lines: readonly FigureLine[];
  /** Steps of time, or the values of the second field where there is no time; none where nothing stands across. */
  readonly columns: readonly string[];
  readonly across: 'time' | 'second' | 'nothing';
  readonly foot: { readonly all: Tally; readonly cells: ReadonlyMap<string, Tally> };
}

/** The order of the values of each field. */
export type Orders = readonly ((a: string, b: string) => number)[];

const groupedBy = (groups: readonly FigureGroup[], keyOf: (group: FigureGroup) => string): Map<string, FigureGroup[]> => {
  const known = new Map<string, FigureGroup[]>();
  for (const group of groups) {
    const key = keyOf(group);
    const same = known.get(key);
    if (same) same.push(group);
    else known.set(key, [group]);
  }
  return known;
};

/** Blank stands last, whatever the order. */
const blankLast = (order: (a: string, b: string) => number) => (a: string, b: string) => Number(a === '') - Number(b === '') || order(a, b);

/** `orders`: of the values of each field, as many as the groups have. Every entry is in the lines once, and in the foot once. */
export function layFigure(groups: readonly FigureGroup[], orders: Orders, step: TimeStep | null): FigureTable {
  const across = step !== null ? 'time' : orders.length > 1 ? 'second' : 'nothing';
  const columnOf = ({ values, time }: FigureGroup): string =>
    across === 'time' ? (time ?? '') : across === 'second' ? (values[1] ?? '') : '';
  const cellsOf = (own: readonly FigureGroup[]) =>
    new Map(across === 'nothing' ? [] : [...groupedBy(own, columnOf)].map(([key, same]) => [key, total(same)] as const));
  const linesOf = (own: readonly FigureGroup[], depth: number): FigureLine[] =>
    [...groupedBy(own, ({ values }) => values[depth] ?? '')]
      .sort(([a], [b]) => blankLast(orders[depth]!)(a, b))
      .map(([value, same]) => ({
        value,
        all: total(same),
        cells: cellsOf(same),
        within: depth + 1 < orders.length && across === 'time' ? linesOf(same, depth + 1) : [],
      }));
  const keys = [...new Set(groups.map(columnOf))];
  const columns = across === 'time' ? stepsBetween(keys, step!) : across === 'second' ? keys.sort(blankLast(orders[1]!)) : [];
  return { lines: orders.length === 0 ? [] : linesOf(groups, 0), columns, across, foot: { all: total(groups), cells: cellsOf(groups) } };
}

/** Orders values as a list keeps them; what is not in it follows in the order of people. */
export function listOrder(list: readonly string[], natural: (a: string, b: string) => number): (a: string, b: string) => number {
  const places = new Map(list.map((value, at) => [value, at]));
  return (a, b) => (places.get(a) ?? list.length) - (places.get(b) ?? list.length) || natural(a, b);
}
