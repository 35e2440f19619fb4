// What a pasted table proposes: headings, kinds, and what does not fit them.
import { fieldKinds, format, houseLocale, parse, proposedFields, type FieldKind } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const column = (...texts: string[]) => proposedFields([['Heading'], ...texts.map((text) => [text])], houseLocale)[0]!;

describe('the fields of a pasted table', () => {
  it.each<[readonly string[], FieldKind]>([
    [['1', '2.5', '-3'], 'number'],
    [['1', '0', '1'], 'number'],
    [['yes', 'no', 'Y'], 'yes/no'],
    [['24.11.2026', '2026-11-25', ''], 'date'],
    [['7.5 %', '20%'], 'percent'],
    [['12.50 EUR', '€ 3'], 'amount'],
    [['007', '012'], 'text'],
    [['North', '1'], 'text'],
    [[], 'text'],
  ])('%j are of the kind %s', (texts, kind) => expect(column(...texts).kind).toBe(kind));

  it('says what a kind does not read, and never proposes one that reads less than nine in ten', () => {
    expect(column('1', '2', '3', '4', '5', '6', '7', '8', '9', 'many')).toMatchObject({ kind: 'number', filled: 10, unread: 1 });
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('1', '2.5', 'yes', '24.11.2026', '7 %', 'North', '', '007', '3 EUR'), { minLength: 1, maxLength: 20 }),
        (texts) => {
          const { kind, filled, unread } = column(...texts);
          expect(filled).toBe(texts.filter((text) => text !== '').length);
          expect(unread * 10).toBeLessThanOrEqual(kind === 'text' ? 0 : filled);
          expect(texts.filter((text) => text !== '' && !parse(kind, text, houseLocale).ok).length).toBeLessThanOrEqual(unread);
        },
      ),
    );
  });
  it('finds again the kind of what it has shown itself', () => {
    const values: { readonly [Kind in FieldKind]?: string } = {
      number: '12.5',
      amount: '3',
      percent: '0.075',
      date: '2026-11-24',
      'yes/no': 'yes',
    };
    for (const kind of fieldKinds) {
      const value = values[kind];
      if (value !== undefined) expect(column(format(kind, value, houseLocale)).kind).toBe(kind);
    }
  });
  it('names every field once, and is as wide as the widest row', () => {
    expect(
      proposedFields([['Quay', '', ' Quay '], ['a', 'b', 'c', 'd'], ['e']], houseLocale).map(({ heading, filled }) => [heading, filled]),
    ).toEqual([
      ['Quay', 2],
      ['Field 2', 1],
      ['Quay 2', 1],
      ['Field 4', 1],
    ]);
    expect(proposedFields([], houseLocale)).toEqual([]);
  });
});
