import { anchorsOf, applyAct, endAnother, endAt, followAct, nameFault, railsOf, rangeEndings, takeRange, type Act, type Entry, type RangeEnding, type SourceRange } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const language = 'en-GB';
const entriesOf = (...texts: string[]): Entry[] => texts.map((text, at) => ({ id: `e${at}`, cells: text === '' ? {} : { value: text } }));
const range = (over: Partial<SourceRange> = {}): SourceRange => ({ id: 'r', name: 'R', field: 'value', start: { at: 'top' }, end: { ends: 'last' }, ...over });
const taken = (one: SourceRange, entries: readonly Entry[], others: readonly SourceRange[] = [one]) => takeRange(one, entries, others).values.map(({ value }) => value);

describe('takeRange', () => {
  it('grows to the last filled cell over blanks, and to the first blank one', () => {
    const entries = entriesOf('a', '', 'b', ' a ', '', '');
    expect(taken(range(), entries)).toEqual(['a', 'b']);
    expect(taken(range({ end: { ends: 'gap' } }), entries)).toEqual(['a']);
    expect(takeRange(range({ end: { ends: 'gap' } }), entries, []).leftOut.map(({ why, text }) => [why, text])).toEqual([['after the gap', 'b'], ['after the gap', 'a']]);
  });
  it('lets a repeat belong to its first place, with all its rows', () => {
    const [first] = takeRange(range(), entriesOf('a', 'b', 'a'), []).values;
    expect(first).toEqual({ value: 'a', rows: [{ entry: 'e0', ordinal: 0 }, { entry: 'e2', ordinal: 2 }] });
  });
  it('never grows past the start of the next range in the same field', () => {
    const entries = entriesOf('a', 'b', '', 'c');
    const lower = range({ id: 'l', start: { at: 'entry', entry: 'e3' } });
    expect(taken(range(), entries, [range(), lower])).toEqual(['a', 'b']);
    expect(taken(lower, entries, [range(), lower])).toEqual(['c']);
  });
  it('says what stands past a fixed end', () => {
    const fixed = range({ end: { ends: 'fixed', entry: 'e1' } });
    expect(takeRange(fixed, entriesOf('a', 'b', 'c'), [fixed]).leftOut).toEqual([{ entry: 'e2', ordinal: 2, why: 'past the end', text: 'c' }]);
  });
});

// ---- Growth against a naive model: a range as the set of entries it began with, told of every act in plain words.

type Model = { ids: string[]; start: number; end: number | null };

/** The model keeps row numbers and shifts them by hand, act by act. */
function tell(model: Model, act: Act, after: readonly Entry[], ends: RangeEnding): Model {
  const ids = after.map(({ id }) => id);
  const inside = model.end === null ? [] : model.ids.slice(model.start, model.end + 1);
  if (act.act === 'insert') {
    const at = act.before === null ? model.ids.length : model.ids.indexOf(act.before);
    const shift = (row: number) => (row >= at ? row + act.entries.length : row);
    return { ids, start: model.start === 0 ? 0 : shift(model.start), end: model.end === null ? null : shift(model.end) };
  }
  if (act.act === 'sort' || act.act === 'write') return { ...model, ids };
  const leaving = new Set(act.act === 'delete' || act.act === 'move' ? act.entries : []);
  const left = inside.filter((id) => !leaving.has(id));
  if (ends === 'fixed' && left.length === 0) return { ids, start: 0, end: null };
  return { ids, start: 0, end: model.end === null ? null : ids.indexOf(left.at(-1)!) };
}

const act = (entries: readonly Entry[], made: { count: number }): fc.Arbitrary<Act> => {
  const ids = entries.map(({ id }) => id);
  const some = fc.subarray(ids, { minLength: Math.min(1, ids.length), maxLength: Math.min(3, ids.length) });
  const text = fc.constantFrom('a', 'b', 'c', 'd', '');
  const fresh = fc.array(text, { minLength: 1, maxLength: 2 }).map((texts) => texts.map((own): Entry => ({ id: `n${made.count++}`, cells: own === '' ? {} : { value: own } })));
  const before = fc.constantFrom(null, ...ids);
  const insert = fc.record({ act: fc.constant('insert' as const), before, entries: fresh });
  if (ids.length === 0) return insert;
  return fc.oneof(
    insert,
    fc.record({ act: fc.constant('delete' as const), entries: some }),
    fc.record({ act: fc.constant('move' as const), entries: some, before }),
    fc.record({ act: fc.constant('sort' as const), field: fc.constant('value'), direction: fc.constantFrom('up' as const, 'down' as const) }),
    fc.record({ act: fc.constant('write' as const), cells: fc.tuple(fc.constantFrom(...ids), text).map(([entry, own]) => [{ entry, field: 'value', text: own }]) }),
  );
};

/** What a range from the top takes, said without anchors: by its row numbers and the texts. */
function naiveTaking(model: Model, entries: readonly Entry[], ends: RangeEnding): string[] {
  const texts = entries.map(({ cells }) => cells['value'] ?? '');
  const gap = texts.indexOf('');
  const stretch = ends === 'fixed' ? texts.slice(0, model.end === null ? 0 : model.end + 1) : ends === 'last' ? texts : texts.slice(0, gap < 0 ? undefined : gap);
  return [...new Set(stretch.filter((text) => text !== ''))];
}

describe('a range from the top over random acts', () => {
  it.each(rangeEndings)('that ends %s takes what the naive model takes', (ends) => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c', ''), { minLength: 1, maxLength: 7 }), fc.nat(), fc.gen(), (texts, lastSeed, gen) => {
        let entries: readonly Entry[] = entriesOf(...texts);
        const last = lastSeed % entries.length;
        let followed = range({ end: ends === 'fixed' ? { ends, entry: `e${last}` } : { ends } });
        let model: Model = { ids: entries.map(({ id }) => id), start: 0, end: last };
        const made = { count: 0 };
        for (let step = 0; step < 8; step++) {
          const next = gen(act, entries, made);
          const after = applyAct(entries, next, language);
          followed = followAct(followed, entries, [followed], next, language);
          model = tell(model, next, after, ends);
          entries = after;
          expect(taken(followed, entries)).toEqual(naiveTaking(model, entries, ends));
        }
      }),
    );
  });
});

describe('a range that starts at an entry', () => {
  const entries = entriesOf('a', 'b', 'c', 'd', 'e');
  const middle = range({ start: { at: 'entry', entry: 'e1' }, end: { ends: 'fixed', entry: 'e3' } });
  const after = (one: SourceRange, done: Act) => {
    const followed = followAct(one, entries, [one], done, language);
    return { followed, values: taken(followed, applyAct(entries, done, language)) };
  };
  it('widens by what is inserted inside, and not above', () => {
    const fresh = { id: 'x', cells: { value: 'x' } };
    expect(after(middle, { act: 'insert', before: 'e2', entries: [fresh] }).values).toEqual(['b', 'x', 'c', 'd']);
    expect(after(middle, { act: 'insert', before: 'e1', entries: [fresh] }).values).toEqual(['b', 'c', 'd']);
  });
  it('passes its anchors to the inner neighbours', () => {
    expect(after(middle, { act: 'delete', entries: ['e1', 'e3'] }).values).toEqual(['c']);
    expect(after(middle, { act: 'move', entries: ['e3'], before: null }).values).toEqual(['b', 'c']);
  });
  it('keeps its place when it is emptied, and says so', () => {
    const { followed } = after(middle, { act: 'delete', entries: ['e1', 'e2', 'e3'] });
    expect(followed).toMatchObject({ start: { at: 'after', entry: 'e0' }, end: { ends: 'fixed', entry: null } });
    const growing = after({ ...middle, end: { ends: 'last' } }, { act: 'delete', entries: ['e1', 'e2', 'e3', 'e4'] });
    expect(growing.values).toEqual([]);
    expect(taken(growing.followed, entriesOf('a', 'new'))).toEqual(['new']);
  });
  it('goes along when all its entries are moved together', () => {
    expect(after(middle, { act: 'move', entries: ['e1', 'e2', 'e3'], before: 'e0' }).values).toEqual(['b', 'c', 'd']);
  });
  it('keeps its row numbers through a sort', () => {
    expect(after(middle, { act: 'sort', field: 'value', direction: 'down' }).values).toEqual(['d', 'c', 'b']);
    const lower = range({ start: { at: 'entry', entry: 'e3' } });
    expect(after(lower, { act: 'sort', field: 'value', direction: 'down' }).values).toEqual(['b', 'a']);
  });
});

describe('making a range', () => {
  it.each([
    ['', 'name empty'],
    ['\u00A0\u200B', 'name empty'],
    ['  PILOTS ', 'name taken'],
    ['a\u0000', 'forbidden character'],
    ['x'.repeat(121), 'name too long'],
  ])('refuses the name %j: %s', (name, code) => expect(nameFault(name, ['Pilots'])?.code).toBe(code));
  it('starts at the top when the first row is selected', () => {
    const entries = entriesOf('a', 'b', 'c');
    expect(anchorsOf(entries, ['e1', 'e0'], 'fixed')).toEqual({ start: { at: 'top' }, end: { ends: 'fixed', entry: 'e1' } });
    expect(anchorsOf(entries, ['e2'], 'last')).toEqual({ start: { at: 'entry', entry: 'e2' }, end: { ends: 'last' } });
    expect(anchorsOf(entries, ['elsewhere'], 'last')).toBeUndefined();
  });
  it('takes the same values when a growing end becomes a fixed one', () => {
    const entries = entriesOf('a', '', 'b', '');
    const fixed = endAnother(range(), entries, [range()], 'fixed');
    expect(taken(fixed, entries)).toEqual(taken(range(), entries));
    expect(endAt(range({ start: { at: 'entry', entry: 'e2' } }), entries, 'e0')).toBeUndefined();
  });
});

describe('the growth rail', () => {
  it('is solid along what is taken, open where it grows, and marks what it misses', () => {
    const [rail] = railsOf([range({ end: { ends: 'gap' } })], entriesOf('a', 'b', '', 'c'));
    expect([...rail!.marks].sort(([a], [b]) => a - b)).toEqual([[0, 'taken'], [1, 'taken'], [2, 'grows'], [3, 'missed']]);
  });
});
