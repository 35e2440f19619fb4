import { cleanedCounts, lookAlikes, profileOf, wantsToBeList } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const profiled = (counts: ReadonlyMap<string, number>) => profileOf(counts, lookAlikes(cleanedCounts(counts)));

describe('profileOf', () => {
  it('proposes a list of the right spellings, the most used first', () => {
    const { values, wantsToBeList: wants } = profiled(
      new Map([
        ['Gravel', 40],
        ['gravel', 3],
        ['Gravel ', 2],
        ['Gravle', 1],
        ['Grain', 30],
        ['Road salt', 5],
      ]),
    );
    expect(wants).toBe(true);
    expect(values.map(({ value, entries }) => [value, entries])).toEqual([
      ['Gravel', 46],
      ['Grain', 30],
      ['Road salt', 5],
    ]);
    expect(values[0]!.spellings.map(({ value }) => value).sort()).toEqual(['Gravel ', 'Gravle', 'gravel']);
  });
  it('accounts for every entry and every spelling once', () => {
    const spelling: fc.Arbitrary<string> = fc.constantFrom(
      'Gravel',
      'gravel',
      'Gravel ',
      'Gravle',
      'Grain',
      'grain',
      'Salt',
      'Sált',
      'Timber',
      '  ',
    );
    fc.assert(
      fc.property(fc.uniqueArray(fc.tuple(spelling, fc.integer({ min: 1, max: 50 })), { selector: ([value]) => value }), (rows) => {
        const counts = new Map(rows);
        const { values, entries } = profiled(counts);
        const filled = rows.filter(([value]) => value.trim() !== '');
        expect(entries).toBe(rows.reduce((sum, [, count]) => sum + count, 0));
        expect(values.reduce((sum, value) => sum + value.entries, 0)).toBe(filled.reduce((sum, [, count]) => sum + count, 0));
        const held = values.flatMap(({ value, spellings }) => [
          ...spellings.map((one) => one.value),
          ...(counts.has(value) ? [value] : []),
        ]);
        expect(held.sort()).toEqual(filled.map(([value]) => value).sort());
        // In whatever order they are counted.
        expect(profiled(new Map([...rows].reverse()))).toEqual(profiled(counts));
      }),
    );
  });
  it('lets no column of remarks be a list', () => {
    expect(wantsToBeList(200, 211)).toBe(false);
    expect(wantsToBeList(8, 1282)).toBe(true);
    expect(wantsToBeList(1, 500)).toBe(false);
    expect(wantsToBeList(3, 12)).toBe(false);
  });
});
