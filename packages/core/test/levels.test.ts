// Levels that are found in the columns of a table, with the rows that contradict them.
import { findLevels, type LevelColumn } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const columnsOf = (rows: readonly (readonly string[])[]): LevelColumn[] =>
  (rows[0] ?? []).map((_, at) => {
    const texts = ['', ...new Set(rows.map((row) => row[at]!))];
    return { at, values: rows.map((row) => (row[at] === '' ? 0 : texts.lastIndexOf(row[at]!))) };
  });

/** Rows under quays, berths and bollards, beside a pilot who has nothing to do with them; `wrong` rows name another quay. */
const rowsOf = fc
  .record({
    quays: fc.integer({ min: 2, max: 5 }),
    berths: fc.integer({ min: 2, max: 4 }),
    // Without a bias towards zero: what is drawn there as often as not would hang together.
    seed: fc.noBias(fc.array(fc.nat(9999), { minLength: 400, maxLength: 400 })),
    pilots: fc.noBias(fc.array(fc.nat(5), { minLength: 400, maxLength: 400 })),
    wrong: fc.uniqueArray(fc.nat(399), { maxLength: 5 }),
  })
  .map(({ quays, berths, seed, pilots, wrong }) => {
    const all = quays * berths;
    const rows = seed.map((number, row) => {
      // Each berth stands in many rows, whatever the seed.
      const berth = row < all * 3 ? row % all : number % all;
      const quay = Math.floor(berth / berths);
      return [
        wrong.includes(row) ? `Quay ${(quay + 1) % quays}` : `Quay ${quay}`,
        `Berth ${berth}`,
        `Pilot ${pilots[row]}`,
        `Visit ${row}`,
      ];
    });
    return { rows, wrong: [...wrong].sort((one, other) => one - other) };
  });

describe('Levels of columns', () => {
  it('are found with the rows that contradict, and nothing else is taken for one', () => {
    fc.assert(
      fc.property(rowsOf, ({ rows, wrong }) => {
        expect(findLevels(columnsOf(rows))).toEqual([{ columns: [0, 1], ties: [{ child: 1, parent: 0, contradicting: wrong }] }]);
      }),
    );
  });

  it('go as deep as they do: each under the nearest', () => {
    const rows = Array.from({ length: 600 }, (_, at) => [
      `Article ${at % 60}`,
      `Group ${Math.floor((at % 60) / 20)}`,
      `Sub-group ${Math.floor((at % 60) / 5)}`,
    ]);
    expect(findLevels(columnsOf(rows)).map(({ columns }) => columns)).toEqual([[1, 2, 0]]);
  });

  it.each<[string, string[][]]>([
    ['nothing at all', []],
    ['what stands once determines everything', Array.from({ length: 50 }, (_, at) => [`Visit ${at}`, at % 2 ? 'North' : 'South'])],
    ['a code and its name are one to one', Array.from({ length: 60 }, (_, at) => [`C${at % 6}`, `Name ${at % 6}`])],
    ['nearly all rows hold the same', Array.from({ length: 300 }, (_, at) => [`Pilot ${at % 9}`, at === 7 || at === 70 ? 'no' : 'yes'])],
    [
      'too many rows contradict',
      Array.from({ length: 300 }, (_, at) => [`Berth ${at % 9}`, at % 30 === 0 ? 'Elsewhere' : `Quay ${at % 3}`]),
    ],
  ])('are none where %s', (_why, rows) => {
    expect(findLevels(columnsOf(rows))).toEqual([]);
  });

  it('pass over what is blank', () => {
    const rows = Array.from({ length: 120 }, (_, at) => [
      at % 10 === 0 ? '' : `Quay ${Math.floor((at % 8) / 4)}`,
      at % 7 === 0 ? '' : `Berth ${at % 8}`,
    ]);
    expect(findLevels(columnsOf(rows)).map(({ columns }) => columns)).toEqual([[0, 1]]);
  });
});
