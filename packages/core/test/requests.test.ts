// Requests: like ones are put together, and what may be meant is proposed, never another number.
import fc from 'fast-check';
import { compileCatalog, groupRequests, type Item, type ValueRequest } from '@dellum/core';
import { describe, expect, it } from 'vitest';

const item = (value: string, path: readonly string[] = []): Item => ({
  value,
  path,
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
});
const services = compileCatalog(
  'services',
  'Services',
  ['Lines', 'Crane 40 t', 'Water'].map((value) => item(value)),
);
const request = (value: string, entries = 1, path: readonly string[] = []): ValueRequest => ({ value, entries, path });

describe('requests', () => {
  it('come together with the most frequent spelling first, the most wanted group at the top', () => {
    expect(groupRequests([request('Linnes'), request('crane 120t'), request('Crane 120 t', 3)], services)).toEqual([
      {
        path: [],
        spellings: [
          { value: 'Crane 120 t', entries: 3 },
          { value: 'crane 120t', entries: 1 },
        ],
        proposed: null,
      },
      { path: [], spellings: [{ value: 'Linnes', entries: 1 }], proposed: 'Lines' },
    ]);
  });
  it('are kept apart under other parents, and matched with what stands there', () => {
    const berths = compileCatalog('berths', 'Berths', [item('North'), item('Pond', ['North']), item('South'), item('Mole', ['South'])]);
    expect(
      groupRequests([request('Ponds', 1, ['North']), request('Ponds', 2, ['South'])], berths).map(({ path, proposed }) => [path, proposed]),
    ).toEqual([
      [['South'], null],
      [['North'], 'Pond'],
    ]);
  });
  it('lose no entry and no spelling, however they are grouped', () => {
    const requests = fc.array(
      fc.record({
        value: fc.constantFrom('Lines', 'Linse', 'lines', 'Fork lift', 'Forklift', 'Water'),
        entries: fc.integer({ min: 1, max: 9 }),
        path: fc.constant([]),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(requests, (all) => {
        const spellings = groupRequests(all, services).flatMap((group) => group.spellings);
        expect(spellings.reduce((sum, { entries }) => sum + entries, 0)).toBe(all.reduce((sum, { entries }) => sum + entries, 0));
        expect(spellings.map(({ value }) => value).sort()).toEqual([...new Set(all.map(({ value }) => value))].sort());
      }),
    );
  });
});
