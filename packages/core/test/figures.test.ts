// Figures: parts add up exactly in any order, no entry is lost or counted twice, and steps of time hold every day once.
import {
  daysAfter,
  lastDayOf,
  layFigure,
  listOrder,
  measuredIn,
  measures,
  merged,
  nextStep,
  plus,
  stepOf,
  stepsBetween,
  timeSteps,
  total,
  type FigureGroup,
  type FigureTable,
  type Tally,
} from '@dellum/core';
import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const day = fc.integer({ min: 0, max: 40_000 }).map((days) => daysAfter('1970-01-01', days));
const number = fc
  .tuple(fc.integer({ min: -1_000_000, max: 1_000_000 }), fc.integer({ min: 0, max: 3 }))
  .map(([whole, decimals]) => new Decimal(whole).dividedBy(10 ** decimals).toFixed());
const one = (value: string | null): Tally => ({ entries: 1, measured: value === null ? 0 : 1, sum: value, least: value, most: value });
const natural = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const list = ['b', 'a', 'c'];
const order = listOrder(list, natural);
const group = fc
  .record({
    values: fc.tuple(fc.constantFrom('a', 'b', 'x', ''), fc.constantFrom('c', 'a', '')),
    time: fc.oneof(day, fc.constant('')),
    value: fc.option(number),
  })
  .map(({ values, time, value }): FigureGroup => ({ values, time, ...one(value) }));

describe('tallies', () => {
  it('add up to what all numbers at once come to, exactly, in any order and however they are parted', () => {
    fc.assert(
      fc.property(fc.array(fc.option(number), { maxLength: 30 }), fc.integer({ min: 0, max: 30 }), (values, cut) => {
        const numbers = values.flatMap((value) => value ?? []).map((value) => new Decimal(value));
        const parts = plus(total(values.slice(0, cut).map(one)), total(values.slice(cut).map(one)));
        expect(parts).toEqual(total([...values].reverse().map(one)));
        expect([parts.entries, parts.measured]).toEqual([values.length, numbers.length]);
        expect(parts.sum).toBe(numbers.length === 0 ? null : Decimal.sum(...numbers).toFixed());
        expect([parts.least, parts.most]).toEqual(
          numbers.length === 0 ? [null, null] : [Decimal.min(...numbers).toFixed(), Decimal.max(...numbers).toFixed()],
        );
        const shown = measures.map((measure) => measuredIn(parts, measure));
        expect(shown.slice(1).every((text) => (text === undefined) === (numbers.length === 0))).toBe(true);
      }),
    );
  });
});

describe('steps of time', () => {
  it('hold every day once: from their first day to their last', () => {
    fc.assert(
      fc.property(day, fc.constantFrom(...timeSteps), (when, step) => {
        const first = stepOf(when, step);
        expect(first <= when && when <= lastDayOf(first, step)).toBe(true);
        expect([stepOf(first, step), stepOf(lastDayOf(first, step), step)]).toEqual([first, first]);
        expect(stepOf(nextStep(first, step), step)).toBe(nextStep(first, step));
        expect(daysAfter(lastDayOf(first, step), 1)).toBe(nextStep(first, step));
      }),
    );
    expect([
      stepOf('2026-11-25', 'week'),
      stepOf('2026-11-23', 'week'),
      stepOf('2026-11-22', 'week'),
      stepOf('', 'month'),
      stepOf('soon', 'year'),
    ]).toEqual(['2026-11-23', '2026-11-23', '2026-11-16', '', '']);
  });

  it('are shown without gaps, blank last, unless the gaps would be too many', () => {
    expect(stepsBetween(['2026-03-01', '', '2025-12-01'], 'month')).toEqual(['2025-12-01', '2026-01-01', '2026-02-01', '2026-03-01', '']);
    expect(stepsBetween(['1970-01-01', '2026-01-01'], 'day')).toEqual(['1970-01-01', '2026-01-01']);
    expect(stepsBetween([''], 'day')).toEqual(['']);
  });
});

describe('layFigure', () => {
  const sumOf = (tallies: Iterable<Tally>) => total(tallies);
  const holds = ({ lines, columns, across, foot }: FigureTable, all: Tally) => {
    expect(sumOf(lines.map((line) => line.all))).toEqual(all);
    expect(foot.all).toEqual(all);
    if (across === 'nothing') return;
    for (const line of lines) {
      expect(sumOf(line.cells.values())).toEqual(line.all);
      expect([...line.cells.keys()].every((column) => columns.includes(column))).toBe(true);
      if (line.within.length > 0) expect(sumOf(line.within.map((inner) => inner.all))).toEqual(line.all);
    }
  };

  it('counts every entry once in lines, columns and foot, values in the order of their list and blank last', () => {
    fc.assert(
      fc.property(fc.array(group, { maxLength: 25 }), fc.constantFrom(...timeSteps), (groups, step) => {
        const all = total(groups);
        const timed = layFigure(merged(groups, step), [order, order], step);
        holds(timed, all);
        holds(layFigure(merged(groups, null), [order, order], null), all);
        holds(
          layFigure(
            merged(
              groups.map((one) => ({ ...one, values: [one.values[0]!] })),
              null,
            ),
            [order],
            null,
          ),
          all,
        );
        const values = timed.lines.map(({ value }) => value);
        expect(values).toEqual([...values].sort((a, b) => Number(a === '') - Number(b === '') || order(a, b)));
        expect(merged(groups, step).length).toBeLessThanOrEqual(groups.length);
      }),
    );
  });
});
