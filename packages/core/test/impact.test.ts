import { carried, diffCatalogs, impactOf, proposedAnswer, settle, type Item } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

/** Items as a list gives them: a value owns the cells that hold it. */
function fromCells(cells: readonly (readonly [cell: string, value: string])[], retired: readonly string[] = []): Item[] {
  const rows = new Map<string, { entry: string; ordinal: number }[]>();
  cells.forEach(([entry, value], ordinal) => rows.set(value, [...(rows.get(value) ?? []), { entry, ordinal }]));
  const item = (value: string, over: Partial<Item>): Item => ({ value, label: value, otherNames: [], state: 'offered', from: [], ...over });
  return [...[...rows].map(([value, own]) => item(value, { from: [{ rangeId: 'r', rows: own }] })), ...retired.map((value) => item(value, { state: 'retired' }))];
}

describe('diffCatalogs', () => {
  const before = fromCells([['1', 'Tam Ossel'], ['2', 'Bryn Calloway'], ['3', 'Rook Tansy']]);
  it('pairs an edited value by its cell', () => expect(diffCatalogs(before, fromCells([['1', 'Someone Else'], ['2', 'Bryn Calloway'], ['3', 'Rook Tansy']]))).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Someone Else', merges: false }], added: [], removed: [] }));
  it('pairs what is left by likeness', () => expect(diffCatalogs(before, fromCells([['9', 'Tam Osel'], ['2', 'Bryn Calloway'], ['3', 'Rook Tansy']]))).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Tam Osel' }] }));
  it('sees two values become one', () => expect(diffCatalogs(before, fromCells([['1', 'Rook Tansy'], ['2', 'Bryn Calloway'], ['3', 'Rook Tansy']]))).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Rook Tansy', merges: true }], added: [] }));
  it('adds a value when one of two repeats is edited', () => {
    const twice = fromCells([['1', 'a'], ['2', 'a']]);
    expect(diffCatalogs(twice, fromCells([['1', 'a'], ['2', 'b']]))).toMatchObject({ added: ['b'], removed: [], edited: [] });
  });
  it('restores what was retired', () => expect(diffCatalogs(fromCells([], ['x']), fromCells([['1', 'x']]))).toMatchObject({ restored: ['x'], added: [] }));

  const cells = fc.uniqueArray(fc.tuple(fc.nat({ max: 9 }).map(String), fc.constantFrom('a', 'b', 'c', 'Tam Ossel', 'Tam Osel')), { selector: ([cell]) => cell, maxLength: 8 });
  it('finds nothing in a re-sorting but that values moved', () => {
    fc.assert(
      fc.property(cells, (list) => {
        const diff = diffCatalogs(fromCells(list), fromCells([...list].reverse()));
        expect([diff.added, diff.removed, diff.edited, diff.restored]).toEqual([[], [], [], []]);
      }),
    );
  });
  it('accounts for every value exactly once', () => {
    fc.assert(
      fc.property(cells, cells, (was, is) => {
        const [before, after] = [fromCells(was), fromCells(is)];
        const diff = diffCatalogs(before, after);
        const lost = [...diff.removed, ...diff.edited.map(({ from }) => from)].sort();
        const come = [...diff.added, ...diff.edited.filter(({ merges }) => !merges).map(({ to }) => to)].sort();
        const values = (items: readonly Item[]) => new Set(items.map(({ value }) => value));
        expect(lost).toEqual([...values(before)].filter((value) => !values(after).has(value)).sort());
        expect(come).toEqual([...values(after)].filter((value) => !values(before).has(value)).sort());
      }),
    );
  });
});

describe('impactOf', () => {
  const diff = diffCatalogs(fromCells([['1', 'Tam Ossel'], ['2', 'b'], ['3', 'c']]), fromCells([['1', 'Tam Osel'], ['4', 'new']]));
  const usage = new Map([['f', new Map([['Tam Ossel', 4], ['b', 2], ['new', 3]])], ['g', new Map([['b', 1]])]]);
  it('asks only about values that entries hold, and counts what comes inside', () => {
    const { questions, inside } = impactOf(diff, usage);
    expect(questions).toEqual([
      { value: 'b', holds: { f: 2, g: 1 }, choices: ['retired', 'gone'] },
      { value: 'Tam Ossel', becomes: 'Tam Osel', merges: false, holds: { f: 4 }, choices: ['corrected', 'replaced', 'gone'], proposed: 'corrected' },
    ]);
    expect(inside).toEqual({ f: 3 });
  });
  it('settles when every question has one of its own answers', () => {
    const { questions } = impactOf(diff, usage);
    expect(settle(questions, new Map([['b', 'gone']]))).toBeUndefined();
    expect(settle(questions, new Map([['b', 'corrected'], ['Tam Ossel', 'gone']]))).toBeUndefined();
    expect(settle(questions, new Map([['b', 'retired'], ['Tam Ossel', 'corrected']]))).toEqual({ retire: ['b'], carry: [{ from: 'Tam Ossel', to: 'Tam Osel' }] });
  });
  it.each([
    ['Tam Ossel', 'Tam Osel', 'corrected'],
    ['7.5', '8', 'replaced'],
    ['2026-01-01', '2026-02-01', 'replaced'],
    ['Berth 2', 'Berth 3', undefined],
    ['Tam Ossel', 'Wenna Hallet', undefined],
  ])('proposes for %s becoming %s: %s', (from, to, proposed) => expect(proposedAnswer({ from, to, merges: false })).toBe(proposed));
});

describe('carried', () => {
  it('shows the new spelling in the field that is carried, and leaves everything else', () => {
    const carries = [{ field: 'pilot', from: 'old', to: 'new' }];
    expect(carried({ pilot: 'old', mate: 'old' }, carries)).toEqual({ pilot: 'new', mate: 'old' });
    const cells = { pilot: 'other' };
    expect(carried(cells, carries)).toBe(cells);
  });
});
