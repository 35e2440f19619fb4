// Tables that are found on sheets as offices lay them out.
import { adoptedTable, findTables, houseLocale, isRowOf, WithHeading, type AdoptedTable, type CameBack, type SheetRow } from '@dellum/core';
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
          findTables(sheetOf(rows), houseLocale).map(({ titles, columns, heading, first, last }) => ({
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
        expect(findTables(sheetOf(rows), houseLocale).map(({ columns }) => columns.map(({ at, heading }) => [at, heading]))).toEqual([
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
    expect(findTables(sheetOf(rows), houseLocale)).toMatchObject(expected);
  });

  it('go on below a blank row with each row once, also where a column in the middle is blank there', () => {
    const rows: Held[][] = [
      ['Quay', 'Ship', 'Tons'],
      ...Array.from({ length: 5 }, (_, at): Held[] => ['North', `Ship ${at}`, at]),
      [],
      ['North', null, 7],
      ['North', null, 8],
      [],
      ['North', 'Ship 3', 9],
    ];
    const [table, ...others] = findTables(sheetOf(rows), houseLocale);
    expect(others).toEqual([]);
    expect(table).toMatchObject({ first: 2, last: 11 });
    const { rows: count, columns } = adoptedTable({ file: 0, sheet: 0, table: 0 }, 'Log', table!);
    expect([count, ...columns.map(({ filled }) => filled)]).toEqual([8, 8, 6, 8]);
  });

  it('go on below another table, of which no row is theirs', () => {
    const rows: Held[][] = [
      ['Quay', 'Ship', 'Tons'],
      ['North', 'Alba', 3],
      ['South', 'Brise', 5],
      [],
      ['Quays in use'],
      ['Quay', 'Keeper'],
      ['North', 'Ilka'],
      ['South', 'Odd'],
      [],
      ['North', 'Brise', 7],
    ];
    const sheet = sheetOf(rows);
    const found = findTables(sheet, houseLocale).map((table, at) => adoptedTable({ file: 0, sheet: 0, table: at }, 'Log', table));
    const numbersOf = (table: AdoptedTable) => sheet.map(({ number }) => number).filter(isRowOf(table));
    expect(found.map((table) => [table.rows, numbersOf(table)])).toEqual([
      [3, [2, 3, 10]],
      [2, [7, 8]],
    ]);
    // Read again under other headings it holds no row of the other, either.
    const again = new WithHeading(findTables(sheet, houseLocale)[0]!, 2);
    again.add(sheet);
    const { counts, ...below } = again.end();
    expect([counts.rows, sheet.map(({ number }) => number).filter(isRowOf(below))]).toEqual([2, [3, 10]]);
  });

  it('of many rows side by side lose no cell, wherever it stands, and tell kinds that show late', () => {
    const rows = Array.from({ length: 12_000 }, (_, at): Held[] => {
      const own: Held[] =
        at === 0 ? ['Quay', 'Tons', null, null, 'Code', 'Name'] : [`Quay ${at % 7}`, at, null, null, `C${at}`, `Name ${at}`];
      // Far down something stands where nothing stood before: between the two, and right of them; and a line of sums.
      if (at === 9000) own[2] = 'late';
      if (at === 9001) own[7] = 'later';
      if (at === 10_000) return ['Total', 1, null, null, 'C10000', 'Name 10000'];
      // What begins as numbers turns out to be no number.
      if (at > 8000) own[1] = `about ${at}`;
      return own;
    });
    const found = findTables(sheetOf(rows), houseLocale);
    expect(
      found.map(({ columns, heading, first, last, totals }) => ({ columns: columns.map(({ at }) => at), heading, first, last, totals })),
    ).toEqual([
      { columns: [0, 1, 2], heading: 1, first: 2, last: 12_000, totals: [10_001] },
      { columns: [4, 5, 7], heading: 1, first: 2, last: 12_000, totals: [] },
    ]);
    const [left, right] = found.map((table, at) => adoptedTable({ file: 0, sheet: 0, table: at }, 'Log', table));
    expect([left!.rows, right!.rows]).toEqual([11_998, 11_999]);
    expect(left!.columns.map(({ filled, kind }) => [filled, kind])).toEqual([
      [11_998, 'text'],
      [11_998, 'text'],
      [1, 'text'],
    ]);
    expect(left!.columns[0]!.values!.reduce((sum, { entries }) => sum + entries, 0)).toBe(11_998);
    expect(right!.columns.map(({ filled, distinct }) => [filled, distinct])).toEqual([
      [11_999, 11_999],
      [11_999, 11_999],
      [1, 1],
    ]);
  });

  it('hold of a column of numbers without end what is to be known of it, also where they become texts late', () => {
    const column = (late: (at: number) => Held) =>
      findTables(
        sheetOf([['Day', 'Tons'], ...Array.from({ length: 30_000 }, (_, at): Held[] => ['1.2.2026', at < 25_000 ? `${at}.5` : late(at)])]),
        houseLocale,
      ).map((table) => adoptedTable({ file: 0, sheet: 0, table: 0 }, 'Log', table).columns[1]!)[0]!;
    const some = column((at) => (at % 10 === 0 ? 'none' : `${at}.5`));
    expect(some).toMatchObject({ kind: 'number', filled: 30_000, values: null, unread: { number: 500, text: 0 } });
    expect(column(() => 'none')).toMatchObject({ kind: 'text', filled: 30_000, unread: { text: 0 } });
  });

  it('of a hundred thousand rows are found without looking at all of them again and again', () => {
    const rows: Held[][] = [
      ['Quay', 'Ship', 'Tons'],
      ...Array.from({ length: 100_000 }, (_, at): Held[] => (at % 1000 === 999 ? [] : ['North', `Ship ${at}`, at])),
    ];
    expect(findTables(sheetOf(rows), houseLocale)).toMatchObject([{ heading: 1, first: 2, last: 100_000 }]);
  });
});
