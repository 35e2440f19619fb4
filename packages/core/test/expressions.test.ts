// Rules written as expressions: over the value, the other fields of the entry and the day.
import fc from 'fast-check';
import {
  expressionFault,
  fieldsNamedBy,
  houseLocale,
  judge,
  newRule,
  ruleFaults,
  stands,
  type ExpressionRule,
  type JudgeContext,
} from '@dellum/core';
import { describe, expect, it } from 'vitest';

const fields = [
  { key: 'gross', heading: 'Gross', kind: 'number' },
  { key: 'net', heading: 'Net', kind: 'number' },
  { key: 'dry', heading: 'Dry', kind: 'yes/no' },
] as const;
const rule = (expression: string, message = ''): ExpressionRule => ({ ...newRule('expression'), expression, message });
const net = (expression: string, message?: string) => ({ heading: 'Net', kind: 'number' as const, rule: rule(expression, message) });
const context: JudgeContext = { locale: houseLocale, catalogs: new Map(), fields, today: '2026-11-25' };

describe('what an expression may cost', () => {
  const list = (length: number) => `[${Array.from({ length }, (_, at) => at).join(',')}]`;
  const loops = (depth: number, length: number): string =>
    depth === 0 ? 'value != -1' : `${list(length)}.all(x${depth}, ${loops(depth - 1, length)})`;
  const says = (depth: number, length: number) => judge(net(loops(depth, length)), { typed: '1' }, { ...context, entry: {} }).verdict;
  it('is bounded before it runs: loops within loops over long lists are not run, and very deep ones not read', () => {
    expect([says(1, 100), says(2, 100), says(3, 20)]).toEqual(['taken', 'taken', 'taken']);
    expect([says(2, 180), says(3, 60)]).toEqual(['refused', 'refused']);
    expect(expressionFault(loops(3, 2))).toBeUndefined();
    expect(expressionFault(loops(4, 2))).toContain('deep');
  });
});

describe('an expression', () => {
  it('compares with other fields of the entry, by size, as the numbers they are', () => {
    const number = fc.integer({ min: -1000, max: 1000 });
    fc.assert(
      fc.property(number, number, (gross, value) => {
        const verdict = judge(net('value <= entry.gross / 2'), { typed: String(value) }, { ...context, entry: { gross: String(gross) } });
        expect(verdict.verdict === 'taken').toBe(value <= gross / 2);
      }),
    );
  });
  it.each([
    ['value == entry.gross * 1.19', '11.9', '10'],
    ['value * 10 == 11.90 * entry.gross', '1.19', '1'],
    ['value - 0.1 == 0.2', '0.3', ''],
    ['value / 3 * 3 == value', '1', ''],
    ['value in [5, 10.5]', '10.5', ''],
    ['[1, 2, 3].exists(x, x * 2 == value)', '4', ''],
    ['value == 10.0 * 1.19', '11.9', ''],
    ['int(value) % 2 == 0 && -value < 0', '2.5', ''],
    ['value > 9007199254740992.0', '9007199254740993', ''],
  ])('reckons in exact decimals: %s is true of %s', (expression, value, gross) => {
    expect(judge(net(expression), { typed: value }, { ...context, entry: { ...(gross && { gross }) } })).toMatchObject({
      verdict: 'taken',
      value,
    });
  });
  it('multiplies and compares as whole hundredths do', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999 }),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: -1, max: 1 }),
        (gross, rate, off) => {
          const written = (number: bigint, places: number) =>
            `${String(number)
              .padStart(places + 1, '0')
              .slice(0, -places)}.${String(number)
              .padStart(places + 1, '0')
              .slice(-places)}`;
          const product = BigInt(gross) * BigInt(rate) + BigInt(off) + 1n;
          const verdict = judge(
            net(`value == entry.gross * ${written(BigInt(rate), 2)} + 0.0001`),
            { typed: written(product, 4) },
            { ...context, entry: { gross: String(Number(written(BigInt(gross), 2))) } },
          );
          expect(verdict.verdict === 'taken').toBe(off === 0);
        },
      ),
    ));
  it('lets pass what cannot be computed because a field is blank, and nothing else', () => {
    expect(judge(net('value <= entry.gross'), { typed: '7' }, { ...context, entry: {} })).toMatchObject({ verdict: 'taken' });
    expect(judge(net('entry.gross != null && value <= entry.gross'), { typed: '7' }, { ...context, entry: {} })).toMatchObject({
      verdict: 'refused',
      code: 'condition',
    });
    expect(judge(net('value <= "many"'), { typed: '7' }, { ...context, entry: {} })).toMatchObject({
      verdict: 'refused',
      code: 'condition',
    });
    expect(judge(net('!entry.dry || value == 0'), { typed: '7' }, { ...context, entry: { dry: 'yes' } })).toMatchObject({
      verdict: 'refused',
    });
  });
  it('says its own message, and judges what stands', () => {
    expect(judge(net('value > 10', 'Too light.'), { typed: '3' }, context)).toMatchObject({ message: 'Too light.' });
    expect(stands(net('value > 10'), '3', context)).toMatchObject({ right: false, code: 'condition' });
    expect(stands(net('value > 10'), '11', context)).toEqual({ right: true });
    expect(fieldsNamedBy(rule('value < entry.gross && entry.dry'))).toEqual(['gross', 'dry']);
  });
  it.each([
    ['', 'empty'],
    ['value >', 'cannot be read'],
    ['1 + 1', 'must be true or false'],
    ['run(value)', 'cannot be read'],
    ['value.matches("(a+)+$")', 'Patterns have a rule of their own'],
  ])('%j is said to be wrong while it is written: %s', (expression, words) => {
    expect(expressionFault(expression)).toContain(words);
  });
  it('names a field that is not there', () => {
    expect(ruleFaults(rule('value < entry.tare'), net(''), { ...context, rules: new Map() })).toMatchObject([
      { part: 'expression', message: expect.stringContaining('tare') },
    ]);
  });
});
