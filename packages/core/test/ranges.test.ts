import {
  anchorsOf,
  applyAct,
  looseKey,
  redefined,
  endAnother,
  endAt,
  followAct,
  inverseOf,
  nameFault,
  railsOf,
  rangeEndings,
  takeRange,
  type Act,
  type Entry,
  type RangeEnding,
  type RegisterState,
  type SourceRange,
  type Stretch,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const language = 'en-GB';
const entriesOf = (...texts: string[]): Entry[] =>
  texts.map((text, at): Entry => ({ id: `e${at}`, cells: text === '' ? {} : { value: text } }));
const stretch = (over: Partial<Stretch> = {}): Stretch => ({
  registerId: 'l',
  fields: ['value'],
  start: { at: 'top' },
  end: { ends: 'last' },
  ...over,
});
const range = (over: Partial<Stretch & { id: string }> = {}): SourceRange => {
  const { id = 'r', ...own } = over;
  return { id, name: 'R', shape: 'list', inherits: false, stretches: [stretch(own)] };
};
const register = (entries: readonly Entry[], fields = ['value'], id = 'l', heading = 'List'): RegisterState => ({
  id,
  heading,
  fields: fields.map((key) => ({ key, heading: key, kind: 'text' })),
  entries,
});
const take = (one: SourceRange, entries: readonly Entry[], others: readonly SourceRange[] = [one]) =>
  takeRange(one, new Map([['l', register(entries)]]), others);
const taken = (one: SourceRange, entries: readonly Entry[], others: readonly SourceRange[] = [one]) =>
  take(one, entries, others).values.map(({ value }) => value);
const at = (entry: string, ordinal: number) => ({ register: 'l', entry, ordinal });

describe('redefined', () => {
  it('accounts for every value: what went, what came, and pairs that are alike but for their spelling', () => {
    const texts = fc.array(fc.constantFrom('Ebb', 'ebb', 'EBB.', 'Flood', 'flood ', 'Slack', 'Släck', '…'), { maxLength: 8 });
    fc.assert(
      fc.property(texts, texts, (one, two) => {
        const [before, after] = [take(range(), entriesOf(...one)), take(range(), entriesOf(...two))];
        const { takes, comesIn, goesOut, respelled } = redefined(before, after);
        const [was, is] = [before.values.map(({ value }) => value), after.values.map(({ value }) => value)];
        expect(takes).toBe(is.length);
        expect([...goesOut, ...respelled.map(({ from }) => from)].sort()).toEqual(was.filter((value) => !is.includes(value)).sort());
        expect([...comesIn, ...respelled.map(({ to }) => to)].sort()).toEqual(is.filter((value) => !was.includes(value)).sort());
        for (const { from, to } of respelled) expect(looseKey(from)).toBe(looseKey(to));
        // No pair is left between what goes and what comes.
        const gone = new Set(goesOut.map(looseKey).filter((key) => key !== ''));
        expect(comesIn.filter((value) => gone.has(looseKey(value)))).toEqual([]);
      }),
    );
  });
});

describe('takeRange', () => {
  it('grows to the last filled cell over blanks, and to the first blank one', () => {
    const entries = entriesOf('a', '', 'b', ' a ', '', '');
    expect(taken(range(), entries)).toEqual(['a', 'b']);
    expect(taken(range({ end: { ends: 'gap' } }), entries)).toEqual(['a']);
    expect(take(range({ end: { ends: 'gap' } }), entries).leftOut.map(({ why, text }) => [why, text])).toEqual([
      ['after the gap', 'b'],
      ['after the gap', 'a'],
    ]);
  });
  it('lets a repeat belong to its first place, with all its rows', () => {
    const [first] = take(range(), entriesOf('a', 'b', 'a')).values;
    expect(first).toEqual({ value: 'a', path: [], rows: [at('e0', 0), at('e2', 2)] });
  });
  it('never grows past the start of the next range in the same field', () => {
    const entries = entriesOf('a', 'b', '', 'c');
    const lower = range({ id: 'low', start: { at: 'entry', entry: 'e3' } });
    expect(taken(range(), entries, [range(), lower])).toEqual(['a', 'b']);
    expect(taken(lower, entries, [range(), lower])).toEqual(['c']);
  });
  it('says what stands past a fixed end', () => {
    const fixed = range({ end: { ends: 'fixed', entry: 'e1' } });
    expect(take(fixed, entriesOf('a', 'b', 'c')).leftOut).toEqual([{ ...at('e2', 2), why: 'past the end', text: 'c' }]);
  });
  it('leaves out what is not of the kind of its field', () => {
    const numbers: RegisterState = { ...register(entriesOf('1', 'x', '2.5')), fields: [{ key: 'value', heading: 'N', kind: 'number' }] };
    const { values, leftOut } = takeRange(range(), new Map([['l', numbers]]), []);
    expect([values.map(({ value }) => value), leftOut.map(({ why, text }) => [why, text])]).toEqual([['1', '2.5'], [['wrong kind', 'x']]]);
  });
});

// ---- Levels and headings against naive models.

const cell = fc.constantFrom('', 'a', 'b', 'c');
const rowsOf = (rows: readonly (readonly string[])[]): Entry[] =>
  rows.map((texts, row) => ({
    id: `e${row}`,
    cells: Object.fromEntries(texts.flatMap((text, level) => (text === '' ? [] : [[`f${level}`, text]]))),
  }));

/** The tree of a table, said as the sorted set of its paths: what a reader sees going down row by row. */
function naiveTree(rows: readonly (readonly string[])[], ends: Exclude<RangeEnding, 'fixed'>, inherits: boolean): string[] {
  const gap = rows.findIndex((row) => row.every((text) => text === ''));
  const seen = new Set<string>();
  let above: string[] = [];
  for (const row of ends === 'gap' && gap >= 0 ? rows.slice(0, gap) : rows) {
    const last = row.findLastIndex((text) => text !== '');
    const read = row.slice(0, last + 1);
    // Blank means the same as above while one reads on in the same group.
    const sameGroup = (level: number) => read.slice(0, level).join('>') === above.slice(0, level).join('>');
    for (let level = 0; inherits && level < last; level++) if (read[level] === '' && sameGroup(level)) read[level] = above[level] ?? '';
    if (last >= 0) above = [...read, ...row.slice(last + 1)];
    if (read.includes('')) continue;
    read.forEach((_, depth) => seen.add(read.slice(0, depth + 1).join('>')));
  }
  return [...seen].sort();
}

describe('levels', () => {
  const levels = (ends: RangeEnding, inherits: boolean): SourceRange => ({
    id: 'r',
    name: 'R',
    shape: 'levels',
    inherits,
    stretches: [stretch({ fields: ['f0', 'f1', 'f2'], end: { ends } as Stretch['end'] })],
  });
  it.each([
    ['last', false],
    ['last', true],
    ['gap', false],
    ['gap', true],
  ] as const)('that end %s (inheriting: %s) give the tree that the naive model sees', (ends, inherits) => {
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { maxLength: 8 }), (rows) => {
        const { values } = takeRange(levels(ends, inherits), new Map([['l', register(rowsOf(rows), ['f0', 'f1', 'f2'])]]), []);
        const paths = values.map(({ path, value }) => [...path, value].join('>'));
        expect([...paths].sort()).toEqual(naiveTree(rows, ends, inherits));
        // Every parent stands once, before its children.
        paths.forEach((path, place) =>
          expect(path.includes('>') ? paths.indexOf(path.slice(0, path.lastIndexOf('>'))) : -1).toBeLessThan(place),
        );
      }),
    );
  });
  it('go on below a row without anything, and inherit in the same group only', () => {
    const rows = [
      ['a', 'b', '1'],
      ['', '', ''],
      ['', '', '2'],
      ['a', '', '3'],
      ['c', '', '4'],
      ['', 'd', '5'],
    ];
    const { values, leftOut } = takeRange(levels('last', true), new Map([['l', register(rowsOf(rows), ['f0', 'f1', 'f2'])]]), []);
    expect(values.map(({ path, value }) => [...path, value].join('>'))).toEqual([
      'a',
      'a>b',
      'a>b>1',
      'a>b>2',
      'a>b>3',
      'c',
      'c>d',
      'c>d>5',
    ]);
    expect(leftOut.map(({ ordinal }) => ordinal)).toEqual([1, 4]);
  });
  it('say which rows they cannot place', () => {
    const { leftOut } = takeRange(
      levels('last', false),
      new Map([
        [
          'l',
          register(
            rowsOf([
              ['a', 'b', ''],
              ['', 'c', ''],
              ['a', 'b', ''],
            ]),
            ['f0', 'f1', 'f2'],
          ),
        ],
      ]),
      [],
    );
    expect(leftOut.map(({ why, ordinal }) => [why, ordinal])).toEqual([
      ['blank', 1],
      ['repeat', 2],
    ]);
  });
});

describe('headings', () => {
  const lists = fc.array(fc.tuple(fc.constantFrom('North', 'South', 'East'), fc.array(cell, { maxLength: 5 })), {
    minLength: 1,
    maxLength: 3,
  });
  it.each(rangeEndings)('that end %s give each heading once and what stands under it', (ends) => {
    fc.assert(
      fc.property(lists, (given) => {
        const registers = given.map(([heading, texts], place) =>
          register(
            texts.map((text, row): Entry => ({ id: `${place}-${row}`, cells: text === '' ? {} : { value: text } })),
            ['value'],
            `l${place}`,
            ` ${heading}  `,
          ),
        );
        const stretches = given.map(([, texts], place) =>
          stretch({
            registerId: `l${place}`,
            end: ends === 'fixed' ? { ends, entry: texts.length > 1 ? `${place}-${texts.length - 2}` : null } : { ends },
          }),
        );
        const { values } = takeRange(
          { id: 'r', name: 'R', shape: 'headings', inherits: false, stretches },
          new Map(registers.map((own) => [own.id, own])),
          [],
        );
        const naive = new Map<string, Set<string>>();
        for (const [heading, texts] of given) {
          const gap = texts.indexOf('');
          const under =
            ends === 'fixed' ? texts.slice(0, Math.max(0, texts.length - 1)) : ends === 'gap' && gap >= 0 ? texts.slice(0, gap) : texts;
          const known = naive.get(heading) ?? new Set();
          under.filter(Boolean).forEach((text) => known.add(text));
          naive.set(heading, known);
        }
        expect(values.map(({ path, value }) => [...path, value])).toEqual(
          [...naive].flatMap(([heading, texts]) => [[heading], ...[...texts].map((text) => [heading, text])]),
        );
      }),
    );
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

const act = (entries: readonly Entry[], step: number): fc.Arbitrary<Act> => {
  const ids = entries.map(({ id }) => id);
  const some = fc.subarray(ids, { minLength: Math.min(1, ids.length), maxLength: Math.min(3, ids.length) });
  const text = fc.constantFrom('a', 'b', 'c', 'd', '');
  const fresh = fc
    .array(text, { minLength: 1, maxLength: 2 })
    .map((texts) => texts.map((own, at): Entry => ({ id: `n${step}.${at}`, cells: own === '' ? {} : { value: own } })));
  const before = fc.constantFrom(null, ...ids);
  const insert = fc.record({ act: fc.constant('insert' as const), before, entries: fresh });
  if (ids.length === 0) return insert;
  return fc.oneof(
    insert,
    fc.record({ act: fc.constant('delete' as const), entries: some }),
    fc.record({ act: fc.constant('move' as const), entries: some, before }),
    fc.record({
      act: fc.constant('sort' as const),
      field: fc.constant('value'),
      direction: fc.constantFrom('up' as const, 'down' as const),
    }),
    fc.record({
      act: fc.constant('write' as const),
      cells: fc.tuple(fc.constantFrom(...ids), text).map(([entry, own]) => [{ entry, field: 'value', text: own }]),
    }),
  );
};

/** What a range from the top takes, said without anchors: by its row numbers and the texts. */
function naiveTaking(model: Model, entries: readonly Entry[], ends: RangeEnding): string[] {
  const texts = entries.map(({ cells }) => cells['value'] ?? '');
  const gap = texts.indexOf('');
  const stretch =
    ends === 'fixed'
      ? texts.slice(0, model.end === null ? 0 : model.end + 1)
      : ends === 'last'
        ? texts
        : texts.slice(0, gap < 0 ? undefined : gap);
  return [...new Set(stretch.filter((text) => text !== ''))];
}

describe('a range from the top over random acts', () => {
  it.each(rangeEndings)('that ends %s takes what the naive model takes', (ends) => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', 'c', ''), { minLength: 1, maxLength: 7 }),
        fc.nat(),
        fc.gen(),
        (texts, lastSeed, gen) => {
          let entries: readonly Entry[] = entriesOf(...texts);
          const last = lastSeed % entries.length;
          let followed = range({ end: ends === 'fixed' ? { ends, entry: `e${last}` } : { ends } });
          let model: Model = { ids: entries.map(({ id }) => id), start: 0, end: last };
          for (let step = 0; step < 8; step++) {
            const next = gen(act, entries, step);
            const after = applyAct(entries, next, language);
            followed = followAct(followed, 'l', entries, [followed], next, language);
            expect(inverseOf(entries, next).reduce<readonly Entry[]>((back, undone) => applyAct(back, undone, language), after)).toEqual(
              entries,
            );
            model = tell(model, next, after, ends);
            entries = after;
            expect(taken(followed, entries)).toEqual(naiveTaking(model, entries, ends));
          }
        },
      ),
    );
  });
});

describe('a range that starts at an entry', () => {
  const entries = entriesOf('a', 'b', 'c', 'd', 'e');
  const middle = range({ start: { at: 'entry', entry: 'e1' }, end: { ends: 'fixed', entry: 'e3' } });
  const after = (one: SourceRange, done: Act) => {
    const followed = followAct(one, 'l', entries, [one], done, language);
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
    expect(followed.stretches[0]).toMatchObject({ start: { at: 'after', entry: 'e0' }, end: { ends: 'fixed', entry: null } });
    const growing = after(range({ start: { at: 'entry', entry: 'e1' } }), { act: 'delete', entries: ['e1', 'e2', 'e3', 'e4'] });
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
    const fixed = endAnother(stretch(), entries, [stretch()], 'fixed');
    expect(taken(range(fixed), entries)).toEqual(taken(range(), entries));
    expect(endAt(stretch({ start: { at: 'entry', entry: 'e2' } }), entries, 'e0')).toBeUndefined();
  });
});

describe('the growth rail', () => {
  it('is solid along what is taken, open where it grows, and marks what it misses', () => {
    const [rail] = railsOf([range({ end: { ends: 'gap' } })], register(entriesOf('a', 'b', '', 'c')));
    expect([0, 1, 2, 3, 4].map((ordinal) => rail!.markAt(ordinal))).toEqual(['taken', 'taken', 'grows', 'missed', undefined]);
  });
});
