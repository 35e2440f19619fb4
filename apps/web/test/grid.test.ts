import fc from 'fast-check';
import type { KeyboardEvent } from 'react';
import { describe, expect, it } from 'vitest';
import { fromClipboard, toClipboard } from '../src/grid/clipboard.js';
import { actOf, step } from '../src/grid/keys.js';

describe('the clipboard', () => {
  it('brings back every block that was copied, tabs, quotes and line ends included', () => {
    const text = fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', ' ', '=', 'é'), maxLength: 6 });
    const block = fc
      .integer({ min: 1, max: 4 })
      .chain((width) => fc.array(fc.array(text, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 4 }));
    fc.assert(
      fc.property(block, (cells) => {
        // A single blank cell has nothing to copy.
        fc.pre(cells.length > 1 || cells[0]!.length > 1 || cells[0]![0] !== '');
        fc.pre(cells.at(-1)!.some((cell) => cell !== '') || cells[0]!.length > 1);
        expect(fromClipboard(toClipboard(cells))).toEqual(cells);
      }),
    );
  });
  it('reads what other programs leave, with a line end at the end', () =>
    expect(fromClipboard('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]));
});

describe('keys', () => {
  const extent = { rows: 10, columns: 3, pageRows: 4 };
  const press = (key: string, held: Partial<KeyboardEvent> = {}) =>
    actOf(
      { key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held } as KeyboardEvent,
      { row: 5, column: 1 },
      { row: 5, column: 1 },
      extent,
    );
  it.each([
    ['ArrowDown', {}, { row: 6, column: 1 }],
    ['ArrowDown', { ctrlKey: true }, { row: 9, column: 1 }],
    ['PageUp', {}, { row: 1, column: 1 }],
    ['PageDown', {}, { row: 9, column: 1 }],
    ['Home', {}, { row: 5, column: 0 }],
    ['End', { ctrlKey: true }, { row: 9, column: 2 }],
    ['Tab', {}, { row: 5, column: 2 }],
    ['Tab', { shiftKey: true }, { row: 5, column: 0 }],
  ])('%s with %j moves to %j', (key, held, to) => expect(press(key, held)).toMatchObject({ act: 'move', to }));
  it('begin typing, open the list, clear and leave', () => {
    expect(press('x')).toEqual({ act: 'edit', text: 'x', openList: false });
    expect(press('ArrowDown', { altKey: true })).toEqual({ act: 'edit', openList: true });
    expect(press('ArrowUp', { altKey: true, shiftKey: true })).toEqual({ act: 'moveRows', by: -1 });
    expect(press('Delete')).toEqual({ act: 'clear' });
    expect(press('F6', { shiftKey: true })).toEqual({ act: 'leaveBack' });
  });
  it('leave the keys of the browser alone', () =>
    expect([press('r', { ctrlKey: true }), press('d', { altKey: true }), press('F5')]).toEqual([undefined, undefined, undefined]));
  it('lets Tab out of the grid at its last cell', () => expect(step({ row: 9, column: 2 }, 1, extent)).toBeUndefined());
});
