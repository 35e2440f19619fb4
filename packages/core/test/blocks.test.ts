import { blockJudge, compileCatalog, houseLocale, judge, newRule, type Cells, type Given, type Item, type JudgedField } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const item = (value: string, over: Partial<Item> = {}): Item => ({
  value,
  path: [],
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...over,
});
const flat = compileCatalog('f', 'Flat', [
  item('Ebb'),
  item('Flood', { otherNames: ['Rise'] }),
  item('Slack', { state: 'retired' }),
  item('Spring', { validUntil: '2026-01-31' }),
]);
const tree = compileCatalog('t', 'Tree', [
  item('a'),
  item('b'),
  item('x', { path: ['a'] }),
  item('y', { path: ['b'] }),
  item('x', { path: ['b'] }),
]);
const context = {
  locale: houseLocale,
  catalogs: new Map([
    ['f', flat],
    ['t', tree],
  ]),
  today: '2026-11-25',
  suggest: true,
};
const fields: readonly JudgedField[] = [
  { heading: 'Tide', kind: 'text', rule: { ...newRule('catalog'), catalogId: 'f' } },
  { heading: 'Berth', kind: 'text', rule: { ...newRule('catalog'), catalogId: 't', level: 1, parents: ['quay'] } },
  {
    heading: 'Day',
    kind: 'text',
    rule: {
      ...newRule('length'),
      kind: 'length',
      least: 1,
      most: 3,
      where: { all: true, conditions: [{ field: 'quay', is: 'is', value: 'a' }] },
    } as JudgedField['rule'],
  },
  { heading: 'Free', kind: 'number', rule: null },
  { heading: 'Must', kind: 'text', rule: { ...newRule('catalog'), catalogId: 'f', mayBeBlank: false } },
  { heading: 'Asked', kind: 'text', rule: { ...newRule('catalog'), catalogId: 'f', others: 'confirm' } },
  { heading: 'Several', kind: 'several values', rule: { ...newRule('catalog'), catalogId: 'f', others: 'request' } },
];

describe('blockJudge', () => {
  it('gives for every cell the verdict of the judge, in any order and however often', () => {
    const text = fc.constantFrom(
      'Ebb',
      'ebb',
      ' EBB ',
      'Rise',
      'Slack',
      'slack',
      'Spring',
      'spring',
      'x',
      'X',
      'y',
      'none',
      '',
      '  ',
      '5',
      '5.0',
      'none, ebb',
      'Slack; Ebb',
      'x; rise; x',
    );
    const given = fc.oneof(
      text.map((typed): Given => ({ typed })),
      fc.constantFrom('Slack', 'Spring', 'x', 'Ebb', 'none', '', '5', 'Ebb\u001Fnone', 'x\u001FEbb').map((chosen): Given => ({ chosen })),
    );
    const cell = fc.record({
      given,
      quay: fc.constantFrom('', 'a', 'b', 'c'),
      held: fc.constantFrom('', 'Slack', 'Spring', 'x', 'Ebb', 'none', 'Ebb\u001Fnone'),
    });
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.array(cell, { maxLength: 30 }), (field, cells) => {
        const judgeCell = blockJudge(field, context);
        for (const { given, quay, held } of cells) {
          const entry: Cells = quay === '' ? {} : { quay };
          expect(judgeCell(given, entry, held)).toEqual(judge(field, given, { ...context, entry, held }));
        }
      }),
    );
  });
});
