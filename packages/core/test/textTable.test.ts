// A table of texts against a map of the language.
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { TextTable } from '../src/adopting/textTable.js';

const texts = fc.oneof(
  fc.string({ unit: 'grapheme' }),
  // Long ones that differ in the middle alone stand in one another's way.
  fc.nat(300).map((number) => `${'a'.repeat(20)}${String(number).padStart(4, '0')}${'z'.repeat(20)}`),
);

it('holds what a map holds, also of texts that are made to stand in one another’s way', () => {
  fc.assert(
    fc.property(fc.array(texts, { maxLength: 1500, size: 'max' }), (all) => {
      const [table, map] = [new TextTable<number>(), new Map<string, number>()];
      for (const [at, text] of all.entries()) {
        expect(table.get(text)).toBe(map.get(text));
        if (map.has(text)) continue;
        map.set(text, at);
        table.add(text, at);
      }
      expect(table.size).toBe(map.size);
      for (const [text, at] of map) expect(table.get(text)).toBe(at);
    }),
    { numRuns: 40 },
  );
});
