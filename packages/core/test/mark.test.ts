// The mark of a value: the same in whatever order its members were set, another one when anything in it is another.
import { markOf } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const turned = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, member]) => [key, turned(member)]),
  );
};

describe('markOf', () => {
  it('does not change with the order of members, nor on the way over a wire', () =>
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(markOf(turned(value))).toBe(markOf(value));
        expect(markOf(JSON.parse(JSON.stringify(value)))).toBe(markOf(value));
      }),
    ));
  it('is another one for another value', () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.string(), { minLength: 2, maxLength: 50 }), (texts) => {
        expect(new Set(texts.map((held) => markOf({ held }))).size).toBe(texts.length);
      }),
    ));
  it('tells lists by their order, and texts from numbers', () => {
    const values = [[1, 2], [2, 1], ['1', '2'], [[1], 2], {}, [], null, '', 0, { a: null }, { a: [] }];
    expect(new Set(values.map(markOf)).size).toBe(values.length);
  });
});
