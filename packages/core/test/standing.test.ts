// A standing catalog is proposed for a column that has most of its values from it.
import { compileCatalog, profileOf, standingMatch, type Item } from '@dellum/core';
import fc from 'fast-check';
import { expect, it } from 'vitest';

const item = (value: string, over: Partial<Item> = {}): Item => ({
  value,
  path: [],
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...over,
});
const catalog = compileCatalog('c', 'Cargo', [item('Gravel', { otherNames: ['Gvl'] }), item('Grain'), item('Coke', { state: 'retired' })]);
const texts = ['Gravel', 'gravel', ' GRAVEL', 'Gvl', 'Grain', 'grain', 'Coke', 'Slate', 'Sand'];

it('leaves no entry out: each is of a value of the catalog, or missing from it; and each spelling means its value', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.constantFrom(...texts), fc.integer({ min: 1, max: 50 }), { minKeys: 1 }), (held) => {
      const counts = new Map(Object.entries(held));
      const { values } = profileOf(counts, []);
      const match = standingMatch(values, catalog);
      const all = [...counts.values()].reduce((sum, count) => sum + count, 0);
      const inCatalog = [...counts]
        .filter(([text]) => !['Coke', 'Slate', 'Sand'].includes(text))
        .reduce((sum, [, count]) => sum + count, 0);
      if (!match) {
        expect(inCatalog * 2 < all || inCatalog === 0).toBe(true);
        return;
      }
      expect(match.missing.reduce((sum, { entries }) => sum + entries, 0)).toBe(all - inCatalog);
      for (const { value, spellings } of match.values)
        expect(spellings.every((spelling) => spelling.value !== value && ['Gravel', 'Grain'].includes(value))).toBe(true);
      const respelled = match.values.flatMap(({ spellings }) => spellings.map((spelling) => spelling.value));
      expect(respelled.sort()).toEqual([...counts.keys()].filter((text) => ['gravel', ' GRAVEL', 'Gvl', 'grain'].includes(text)).sort());
    }),
  );
});
