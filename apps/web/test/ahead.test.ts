// What is shown before the server has it: it stays on screen whatever answer comes late, and comes once.
import type { ActDto, EntryView } from '@dellum/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rowsWithKept, withBegun } from '../src/features/acts/keptTexts.js';
import { shownAhead } from '../src/data/shownAhead.js';
import { shownAfter } from '../src/data/shownAfter.js';

const entry = (id: string, text = id): EntryView => ({ id, version: 1, cells: { value: text } });
const ids = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { minLength: 1 });

describe('the rows of a list after some acts', () => {
  const acts = fc.oneof(
    fc
      .record({ id: fc.constantFrom('x', 'y'), before: fc.constantFrom('a', 'c', 'gone', undefined) })
      .map(({ id, before }): ActDto => ({
        act: 'insert',
        entries: [id],
        fields: ['value'],
        rows: [[`new ${id}`]],
        ...(before && { before }),
      })),
    fc
      .record({ id: fc.constantFrom('a', 'b', 'x'), text: fc.constantFrom('one', '') })
      .map(({ id, text }): ActDto => ({ act: 'write', cells: [{ entry: id, field: 'value', text }] })),
    fc
      .record({ moved: fc.subarray(['a', 'b', 'c'], { minLength: 1 }), before: fc.constantFrom('d', 'e', undefined) })
      .map(({ moved, before }): ActDto => ({ act: 'move', entries: moved, ...(before && { before }) })),
  );
  it('are the same when a late answer has them already', () =>
    fc.assert(
      fc.property(ids, acts, (known, act) => {
        const once = shownAfter(
          known.map((id) => entry(id)),
          [act],
        );
        expect(shownAfter(once, [act])).toEqual(once);
      }),
    ));
  it('lose none that was there, and hold each once', () =>
    fc.assert(
      fc.property(ids, fc.array(acts, { maxLength: 5 }), (known, some) => {
        const after = shownAfter(
          known.map((id) => entry(id)),
          some,
        ).map(({ id }) => id);
        expect(new Set(after).size).toBe(after.length);
        expect(after).toEqual(expect.arrayContaining(known));
      }),
    ));
  it('go where they are put: before another one, else to the end', () => {
    const rows = ['a', 'b', 'c'].map((id) => entry(id));
    expect(
      shownAfter(rows, [{ act: 'insert', entries: ['x'], fields: ['value'], rows: [['new']], before: 'b' }]).map(({ id }) => id),
    ).toEqual(['a', 'x', 'b', 'c']);
    expect(shownAfter(rows, [{ act: 'move', entries: ['a'] }]).map(({ id }) => id)).toEqual(['b', 'c', 'a']);
    expect(shownAfter(rows, [{ act: 'write', cells: [{ entry: 'b', field: 'value', text: '' }] }])[1]).toEqual({
      id: 'b',
      version: 1,
      cells: {},
    });
  });
});

describe('the rows of a list with those that are kept', () => {
  const some = (all: readonly string[]) => fc.subarray([...all]);
  it('hold each once, stored ones where they stand, and those begun at the end in their order, whatever has come of each', () =>
    fc.assert(
      fc.property(
        some(['a', 'b', 'c']),
        some(['x', 'y', 'z']),
        some(['x', 'y', 'z']),
        some(['x', 'y', 'z']),
        (stored, shown, kept, underWay) => {
          const drafts = kept.map((entryId) => ({ entryId }));
          const begun = ['x', 'y', 'z'].map((id) => ({ id, underWay: underWay.includes(id) }));
          const entries = [...stored, ...shown].map((id) => entry(id));
          const rows = rowsWithKept(drafts, entries, begun).map(({ id }) => id);
          expect([...rows].sort()).toEqual([...new Set([...stored, ...shown, ...kept])].sort());
          expect(rows.slice(0, stored.length)).toEqual(stored);
          const moving = rows.filter((id) => !stored.includes(id) && (underWay.includes(id) || !shown.includes(id)));
          expect(moving).toEqual([...moving].sort());
        },
      ),
    ));
  it('keep the place of one whose answer comes', () => {
    const begun = withBegun(withBegun([], { id: 'x', underWay: true }), { id: 'y', underWay: true });
    expect(withBegun(begun, { id: 'x', underWay: false })).toEqual([
      { id: 'x', underWay: false },
      { id: 'y', underWay: true },
    ]);
  });
});

describe('what is shown ahead', () => {
  const withX = (rows: readonly string[]) => (rows.includes('x') ? rows : ['x', ...rows]);
  it('is brought to every answer that was asked for before the server had it, and to none after', () => {
    const ahead = shownAhead<readonly string[]>();
    const asked = performance.now();
    const note = ahead.note('r', withX);
    expect(ahead.bring('r', asked, ['a'])).toEqual(['x', 'a']);
    expect(ahead.bring('other', asked, ['a'])).toEqual(['a']);
    const answered = asked + 5;
    note.settled(answered);
    expect(ahead.bring('r', asked, ['a'])).toEqual(['x', 'a']);
    expect(ahead.bring('r', asked, ['x', 'a'])).toEqual(['x', 'a']);
    // Asked for after the server had it: somebody may have deleted it since.
    // What is asked for because of the answer has the change as the server keeps it, however coarse the clock is.
    expect(ahead.bring('r', answered, ['a'])).toEqual(['a']);
  });
  it('is forgotten when it came to nothing', () => {
    const ahead = shownAhead<readonly string[]>();
    ahead.note('r', withX).dropped();
    expect(ahead.bring('r', performance.now(), ['a'])).toEqual(['a']);
  });
  it('is all that was noted and came to something, whatever came to nothing before or after it', () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom('waits', 'settled', 'dropped'), { maxLength: 6 }), fc.array(fc.nat()), (fates, order) => {
        const ahead = shownAhead<readonly string[]>();
        const asked = performance.now();
        ahead.bring('r', asked, ['a']);
        const notes = fates.map((fate, at) => ({ fate, at, note: ahead.note('r', (rows) => [...rows, `x${at}`]) }));
        // They are answered in any order.
        for (const { fate, note } of [...notes].sort((one, other) => (order[one.at] ?? 0) - (order[other.at] ?? 0))) {
          if (fate === 'settled') note.settled(asked + 5);
          if (fate === 'dropped') note.dropped();
        }
        expect(ahead.again('r')).toEqual(['a', ...fates.flatMap((fate, at) => (fate === 'dropped' ? [] : [`x${at}`]))]);
        // The next answer has what is settled.
        ahead.bring('r', asked + 6, ['b']);
        expect(ahead.again('r')).toEqual(['b', ...fates.flatMap((fate, at) => (fate === 'waits' ? [`x${at}`] : []))]);
      }),
    ));
  it('is nothing where nothing was brought yet', () => expect(shownAhead().again('r')).toBeUndefined());
});
