import {
  afterProposal,
  carried,
  diffCatalogs,
  goesWith,
  houseLocale,
  impactOf,
  meant,
  ofRanges,
  proposalOf,
  proposedAnswer,
  questionKey,
  readSourceState,
  rekeyed,
  answered,
  takenBack,
  touchedBy,
  type Entry,
  type Item,
  type SourceState,
  type Step,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

/** Items as a list gives them: a value owns the cells that hold it. */
function fromCells(cells: readonly (readonly [cell: string, value: string])[], retired: readonly string[] = []): Item[] {
  const rows = new Map<string, { register: string; entry: string; ordinal: number }[]>();
  cells.forEach(([entry, value], ordinal) => rows.set(value, [...(rows.get(value) ?? []), { register: 'l', entry, ordinal }]));
  const item = (value: string, over: Partial<Item>): Item => ({
    value,
    path: [],
    label: value,
    otherNames: [],
    state: 'offered',
    from: [],
    ...over,
  });
  return [
    ...[...rows].map(([value, own]) => item(value, { from: [{ by: 'range', id: 'r', rows: own }] })),
    ...retired.map((value) => item(value, { state: 'retired' })),
  ];
}

/** Items that stand under others, as a table of tuples gives them. */
function fromTuples(tuples: readonly (readonly string[])[]): Item[] {
  const items = new Map<string, Item>();
  tuples.forEach((tuple, ordinal) =>
    tuple.forEach((value, level) => {
      const path = tuple.slice(0, level);
      const rows = level === tuple.length - 1 ? [{ register: 't', entry: `${ordinal}`, ordinal }] : [];
      const key = JSON.stringify([path, value]);
      if (!items.has(key))
        items.set(key, { value, path, label: value, otherNames: [], state: 'offered', from: [{ by: 'range', id: 'r', rows }] });
    }),
  );
  return [...items.values()];
}

describe('a value that stands on two levels', () => {
  const before = fromTuples([
    ['Other', 'Other'],
    ['Other', 'Rope'],
    ['Fuel', 'Other'],
  ]);
  const after = fromTuples([
    ['Sundry', 'Other'],
    ['Sundry', 'Rope'],
    ['Fuel', 'Other'],
  ]);
  const diff = diffCatalogs(before, after, 0);
  it('is edited on the one where it is edited', () => {
    expect(diff.edited).toEqual([{ from: 'Other', to: 'Sundry', level: 0, merges: false }]);
    expect(diffCatalogs(before, after).edited).toEqual([]);
  });
  it('is asked about there, and its answer says so', () => {
    const { questions } = impactOf(diff, new Map([['group', new Map([['Other', 3]])]]), new Map(), 0);
    expect(questions).toMatchObject([{ value: 'Other', level: 0, becomes: 'Sundry', holds: { group: 3 } }]);
    expect(answered(questions, new Map([[questionKey({ value: 'Other' }), 'corrected']]))).toBeUndefined();
    expect(answered(questions, new Map([[questionKey({ value: 'Other', level: 0 }), 'corrected']]))).toEqual({
      retire: [],
      carry: [{ from: 'Other', to: 'Sundry', level: 0 }],
    });
  });
  it('takes along what stands below it, and nothing else', () => {
    expect(rekeyed(before, after, diff.edited).map(({ to }) => [...to.path, to.value].join(' › '))).toEqual([
      'Sundry',
      'Sundry › Other',
      'Sundry › Rope',
    ]);
    const goes = (level?: number) =>
      before.filter((item) => goesWith({ value: 'Other', level }, item, 1)).map(({ path, value }) => [...path, value].join(' › '));
    expect(goes(0)).toEqual(['Other', 'Other › Other', 'Other › Rope']);
    expect(goes()).toEqual(['Other › Other', 'Fuel › Other']);
  });
});

describe('diffCatalogs', () => {
  const before = fromCells([
    ['1', 'Tam Ossel'],
    ['2', 'Bryn Calloway'],
    ['3', 'Rook Tansy'],
  ]);
  it('pairs an edited value by its cell', () =>
    expect(
      diffCatalogs(
        before,
        fromCells([
          ['1', 'Someone Else'],
          ['2', 'Bryn Calloway'],
          ['3', 'Rook Tansy'],
        ]),
      ),
    ).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Someone Else', merges: false }], added: [], removed: [] }));
  it('pairs what is left by likeness', () =>
    expect(
      diffCatalogs(
        before,
        fromCells([
          ['9', 'Tam Osel'],
          ['2', 'Bryn Calloway'],
          ['3', 'Rook Tansy'],
        ]),
      ),
    ).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Tam Osel' }] }));
  it('sees two values become one', () =>
    expect(
      diffCatalogs(
        before,
        fromCells([
          ['1', 'Rook Tansy'],
          ['2', 'Bryn Calloway'],
          ['3', 'Rook Tansy'],
        ]),
      ),
    ).toMatchObject({ edited: [{ from: 'Tam Ossel', to: 'Rook Tansy', merges: true }], added: [] }));
  it('adds a value when one of two repeats is edited', () => {
    const twice = fromCells([
      ['1', 'a'],
      ['2', 'a'],
    ]);
    expect(
      diffCatalogs(
        twice,
        fromCells([
          ['1', 'a'],
          ['2', 'b'],
        ]),
      ),
    ).toMatchObject({ added: ['b'], removed: [], edited: [] });
  });
  it('restores what was retired', () =>
    expect(diffCatalogs(fromCells([], ['x']), fromCells([['1', 'x']]))).toMatchObject({ restored: ['x'], added: [] }));

  const cells = fc.uniqueArray(fc.tuple(fc.nat({ max: 9 }).map(String), fc.constantFrom('a', 'b', 'c', 'Tam Ossel', 'Tam Osel')), {
    selector: ([cell]) => cell,
    maxLength: 8,
  });
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
  const diff = diffCatalogs(
    fromCells([
      ['1', 'Tam Ossel'],
      ['2', 'b'],
      ['3', 'c'],
    ]),
    fromCells([
      ['1', 'Tam Osel'],
      ['4', 'new'],
    ]),
  );
  const usage = new Map([
    [
      'f',
      new Map([
        ['Tam Ossel', 4],
        ['b', 2],
        ['new', 3],
      ]),
    ],
    ['g', new Map([['b', 1]])],
  ]);
  it('asks only about values that entries hold, and counts what comes inside', () => {
    const { questions, inside } = impactOf(diff, usage);
    expect(questions).toEqual([
      { value: 'b', holds: { f: 2, g: 1 }, choices: ['retired', 'gone'] },
      {
        value: 'Tam Ossel',
        becomes: 'Tam Osel',
        merges: false,
        holds: { f: 4 },
        choices: ['corrected', 'replaced', 'gone'],
        proposed: 'corrected',
      },
    ]);
    expect(inside).toEqual({ f: 3 });
  });
  it('settles when every question has one of its own answers', () => {
    const { questions } = impactOf(diff, usage);
    expect(answered(questions, new Map([['b', 'gone']]))).toBeUndefined();
    expect(
      answered(
        questions,
        new Map([
          ['b', 'corrected'],
          ['Tam Ossel', 'gone'],
        ]),
      ),
    ).toBeUndefined();
    expect(
      answered(
        questions,
        new Map([
          ['b', 'retired'],
          ['Tam Ossel', 'corrected'],
        ]),
      ),
    ).toEqual({ retire: [{ value: 'b' }], carry: [{ from: 'Tam Ossel', to: 'Tam Osel' }] });
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

describe('meant', () => {
  const before = fromCells([
    ['1', 'Tam Ossel'],
    ['2', 'T. Ossel'],
    ['3', 'Rook'],
  ]);
  it('lets a value that only went become the one that is named for it', () => {
    const after = fromCells([
      ['1', 'Tam Ossel'],
      ['3', 'Rook'],
    ]);
    expect(meant(diffCatalogs(before, after), [{ from: 'T. Ossel', to: 'Tam Ossel' }], after)).toMatchObject({
      removed: [],
      edited: [{ from: 'T. Ossel', to: 'Tam Ossel', merges: true }],
    });
    expect(meant(diffCatalogs(before, after), [{ from: 'T. Ossel', to: 'Nobody' }], after).removed).toEqual(['T. Ossel']);
  });
});

describe('a sourceState after a proposal', () => {
  const entry = (id: string, text: string): Entry => ({ id, cells: { value: text } });
  const sourceState: SourceState = {
    locale: houseLocale,
    registers: new Map([
      [
        'l',
        {
          id: 'l',
          heading: 'Pilots',
          fields: [{ key: 'value', heading: 'Pilots', kind: 'text' }],
          entries: [entry('e0', 'a'), entry('e1', 'b'), entry('e2', 'c')],
        },
      ],
    ]),
    ranges: [
      {
        id: 'r',
        name: 'R',
        shape: 'list',
        inherits: false,
        stretches: [{ registerId: 'l', fields: ['value'], start: { at: 'entry', entry: 'e1' }, end: { ends: 'fixed', entry: 'e2' } }],
      },
    ],
    definitions: new Map([
      ['c', ofRanges(['r'])],
      ['d', { ...ofRanges([]), parts: [{ kind: 'linked', join: 'or', sourceId: 's' }] }],
    ]),
    kept: new Map([['c', [{ value: 'b', path: [], retired: false, otherNames: ['B.'] }]]]),
    linked: new Map([['s', [{ value: 'x' }]]]),
  };
  const steps: readonly Step[] = [
    { what: 'act', registerId: 'l', act: { act: 'delete', entries: ['e1'] } },
    { what: 'act', registerId: 'l', act: { act: 'sort', field: 'value', direction: 'down' } },
    { what: 'heading changed', registerId: 'l', heading: 'Others' },
    { what: 'range deleted', range: sourceState.ranges[0]! },
    { what: 'catalog changed', catalogId: 'c', definition: { ...ofRanges(['r']), order: { by: 'reversed' } } },
    { what: 'items kept', catalogId: 'c', items: [{ value: 'b', path: [], retired: true, otherNames: [] }] },
    { what: 'linked read', sourceId: 's', rows: [{ value: 'y' }] },
  ];
  const plain = ({ registers, ranges, definitions, kept, linked }: SourceState) => ({
    registers: [...registers],
    ranges: [...ranges],
    definitions: [...definitions],
    kept: [...kept],
    linked: [...linked],
  });
  it('is what it was once everything is taken back, anchors included', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...steps], { minLength: 1 }), (some) => {
        const proposal = proposalOf(...some);
        const back = afterProposal(afterProposal(sourceState, proposal), { steps: takenBack(sourceState, proposal) });
        expect(plain(back)).toEqual(plain(sourceState));
      }),
    );
  });
  it('knows which catalogs a step touches', () => {
    expect(touchedBy(sourceState, steps[0]!)).toEqual(['c']);
    expect(touchedBy(sourceState, steps[6]!)).toEqual(['d']);
    expect(
      readSourceState(afterProposal(sourceState, proposalOf(steps[0]!)))
        .items('c')
        .map(({ value }) => value),
    ).toEqual(['c']);
  });
});
