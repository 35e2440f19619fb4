// A list as it comes packed, and as the store holds it.
import type { PackedEntries } from '@dellum/contract';
import { describe, expect, it } from 'vitest';
import { listed, listOf, unpacked } from '../src/data/listEntries.js';

const packed: PackedEntries = {
  total: 2,
  fields: ['quay', 'berth'],
  entries: [
    ['a', 1, 'North', null],
    ['b', 3, '', 'N1'],
  ],
};
const rows = () => unpacked(packed);

describe('a packed list', () => {
  it('comes out entry by entry, what is blank left out', () =>
    expect(rows()).toEqual([
      { id: 'a', version: 1, cells: { quay: 'North' } },
      { id: 'b', version: 3, cells: { quay: '', berth: 'N1' } },
    ]));
  it('is the list that is known where nothing differs, and a new one where anything does', () => {
    const known = listed(rows());
    expect(listOf(rows(), known)).toBe(known);
    const [first, second] = rows();
    const others = [
      [second!, first!],
      [first!],
      [first!, second!, second!],
      [first!, { ...second!, version: 4 }],
      [first!, { ...second!, cells: { quay: '' } }],
      [first!, { ...second!, cells: { quay: '', berth: 'N2' } }],
      [first!, { ...second!, cells: { quay: '', shed: 'N1' } }],
    ];
    for (const other of others) expect(listOf(other, known)).toEqual(other);
    expect(listOf(rows(), undefined)).toEqual(rows());
  });
});
