// Tables that are found on sheets as offices lay them out.
import { findTables, type CameBack, type SheetRow } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

type Held = string | number | null;
const cellOf = (held: string | number): CameBack =>
  typeof held === 'string' ? { is: 'text', text: held } : { is: 'number', number: held };
/** A sheet as its rows, the first one row 1. */
const sheetOf = (rows: readonly (readonly Held[])[]): SheetRow[] =>
  rows.flatMap((row, at) => {
    const cells = new Map(row.flatMap((held, column) => (held === null || held === undefined ? [] : [[column, cellOf(held)] as const])));
    return cells.size === 0 ? [] : [{ number: at + 1, cells }];
  });

interface Laid {
  readonly titles: readonly string[];
  readonly headings: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
  /** After which row a blank one stands. */
  readonly gap: number | null;
  readonly total: boolean;
}
const values = ['North', 'South', 'Heron Mole', 'crane', 'tug'] as const;
const headings = ['Quay', 'Ship', 'Cargo', 'Broker', 'Note'] as const;

/** A table of texts and of one column of numbers at least, as anybody would know it for one. */
const laid = fc
  .record({
    width: fc.integer({ min: 2, max: 5 }),
    height: fc.integer({ min: 4, max: 9 }),
    titles: fc.subarray(['Log of the week', 'Harbour office']),
    total: fc.boolean(),
    hasGap: fc.boolean(),
    seed: fc.array(fc.nat(999), { minLength: 45, maxLength: 45 }),
  })
  .map(({ width, height, titles, total, hasGap, seed }): Laid => ({
    titles,
    headings: [...headings.slice(0, width - 1), 'Tons'],
    rows: Array.from({ length: height }, (_, row) =>
      Array.from({ length: width }, (_unused, column) =>
        column === width - 1 ? seed[row * 5 + column]! : values[seed[row * 5 + column]! % values.length]!,
      ),
    ),
    gap: hasGap ? 2 : null,
    total,
  }));

function rowsOf({ titles, headings: own, rows, gap, total }: Laid): Held[][] {
  const sum = rows.reduce((all, row) => all + Number(row.at(-1)), 0);
  return [
    ...titles.map((title) => [title]),
    [...own],
    ...rows.flatMap((row, at) => (at + 1 === gap ? [[...row], []] : [[...row]])),
    ...(total ? [['Total', ...Array.from({ length: own.length - 2 }, () => null), sum]] : []),
  ];
}

describe('Tables of a sheet', () => {
  it('are found one under another, each with its titles, headings and rows, without what adds them up', () => {
    fc.assert(
      fc.property(fc.array(laid, { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 3 }), (tables, between) => {
        const rows = tables.flatMap((table) => [...rowsOf(table), ...Array.from({ length: between }, (): Held[] => [])]);
        let at = 0;
        const expected = tables.map((table) => {
          const heading = at + table.titles.length + 1;
          const last = heading + table.rows.length + (table.gap === null ? 0 : 1);
          at += rowsOf(table).length + between;
          return { titles: table.titles, headings: table.headings, heading, first: heading + 1, last };
        });
        expect(
          findTables(sheetOf(rows)).map(({ titles, columns, heading, first, last }) => ({
            titles,
            headings: columns.map((column) => column.heading),
            heading,
            first,
            last,
          })),
        ).toEqual(expected);
      }),
    );
  });

  it('are found side by side', () => {
    fc.assert(
      fc.property(laid, laid, (left, right) => {
        fc.pre(rowsOf(left).length !== rowsOf(right).length && left.gap === null && right.gap === null);
        const [one, other] = [rowsOf(left), rowsOf(right)];
        const width = left.headings.length + 1;
        const rows = Array.from({ length: Math.max(one.length, other.length) }, (_, at) => [
          ...Array.from({ length: width }, (_unused, column) => one[at]?.[column] ?? null),
          ...(other[at] ?? []),
        ]);
        expect(findTables(sheetOf(rows)).map(({ columns }) => columns.map(({ at, heading }) => [at, heading]))).toEqual([
          left.headings.map((heading, at) => [at, heading]),
          right.headings.map((heading, at) => [width + at, heading]),
        ]);
      }),
    );
  });

  it.each<[string, Held[][], object[]]>([
    ['nothing', [], []],
    [
      'a list alone',
      [['Pilots'], ['Tam'], ['Bryn'], ['Rook']],
      [{ heading: 1, first: 2, last: 4, columns: [{ at: 0, heading: 'Pilots' }] }],
    ],
    [
      'numbers without a heading',
      [
        ['a', 1],
        ['b', 2],
      ],
      [{ heading: null, first: 1, last: 2 }],
    ],
    [
      'two rows of headings',
      [
        ['Ship', null, 'Stay', null],
        ['Name', 'Flag', 'From', 'Nights'],
        ['Marl', 'XA', '3.5.2026', 2],
        ['Reed', 'XB', '4.5.2026', 1],
      ],
      [{ heading: 2, first: 3, columns: ['Ship Name', 'Ship Flag', 'Stay From', 'Stay Nights'].map((heading, at) => ({ at, heading })) }],
    ],
    [
      'sums of parts in the middle',
      [
        ['Quay', 'Tons'],
        ['North', 1],
        ['North', 2],
        ['Subtotal', 3],
        ['South', 4],
        ['Grand total', 7],
      ],
      [{ first: 2, last: 5, totals: [4] }],
    ],
    [
      'a column without a heading',
      [
        ['Quay', null, 'Tons'],
        ['North', 'x', 1],
        ['South', 'y', 2],
      ],
      [{ columns: ['Quay', '', 'Tons'].map((heading, at) => ({ at, heading })) }],
    ],
    ['a note beside nothing', [['Only a note']], []],
  ])('are what anybody would say: %s', (_what, rows, expected) => {
    expect(findTables(sheetOf(rows))).toMatchObject(expected);
  });

  it('of a hundred thousand rows are found without looking at all of them again and again', () => {
    const rows: Held[][] = [
      ['Quay', 'Ship', 'Tons'],
      ...Array.from({ length: 100_000 }, (_, at): Held[] => (at % 1000 === 999 ? [] : ['North', `Ship ${at}`, at])),
    ];
    expect(findTables(sheetOf(rows))).toMatchObject([{ heading: 1, first: 2, last: 100_000 }]);
  });
});
