import {
  afterProposal,
  examine,
  houseLocale,
  lookAlikes,
  lookAtPaste,
  ofRanges,
  readSourceState,
  series,
  type Entry,
  type FindingKind,
  type RangeEnd,
  type RegisterState,
  type SourceState,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

describe('lookAlikes', () => {
  const groups = (...values: string[]) =>
    lookAlikes(values.map((value) => ({ value, entries: 0 }))).map((group) => group.map(({ value }) => value));
  it.each([
    ['another case', 'Salt Quay', 'SALT quay'],
    ['blanks', 'Crane 40 t', 'Crane 40t'],
    ['accents', 'Zoe Farrow', 'Zoë Farrow'],
    ['punctuation', 'T. Ossel', 'T Ossel'],
    ['a letter left out', 'Lantern Basin', 'Lantern Bsin'],
    ['two letters swapped', 'Heron Mole', 'Hreon Mole'],
    ['a wrong letter', 'Timber Pond', 'Timber Pomd'],
  ])('groups %s', (_what, right, wrong) => expect(groups(right, 'Something else', wrong)).toEqual([[right, wrong]]));
  it('tells numbers apart, and words that the house uses often', () => {
    expect(groups('Berth 2', 'Berth 3', 'Berth 12')).toEqual([]);
    expect(groups('Wheat seed', 'Wheat feed', 'Oats seed', 'Oats feed', 'Rye seed', 'Rye feed')).toEqual([]);
  });
  it('puts the spelling that most entries hold first', () => {
    expect(
      lookAlikes([
        { value: 'Hreon Mole', entries: 2 },
        { value: 'Heron Mole', entries: 40 },
      ])[0]!.map(({ value }) => value),
    ).toEqual(['Heron Mole', 'Hreon Mole']);
  });
  it('finds every planted slip among random names, whatever their order', () => {
    const name = fc.string({ unit: fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz'), minLength: 7, maxLength: 12 });
    fc.assert(
      fc.property(fc.uniqueArray(name, { minLength: 3, maxLength: 30 }), fc.nat(), fc.nat(), (names, which, where) => {
        const right = names[which % names.length]!;
        const wrong = right.slice(0, where % right.length) + right.slice((where % right.length) + 1);
        fc.pre(!names.includes(wrong));
        expect(groups(...names, wrong).some((group) => group.includes(right) && group.includes(wrong))).toBe(true);
      }),
    );
  });
});

const kinds = (findings: readonly { kind: FindingKind }[]) => findings.map(({ kind }) => kind);

/** A house of one list under one range, which feeds a catalog. */
function sourceStateOf(texts: readonly string[], end: RangeEnd, over: Partial<RegisterState> = {}): SourceState {
  const entries = texts.map((text, at): Entry => ({ id: `e${at}`, cells: text === '' ? {} : { value: text } }));
  const register: RegisterState = {
    id: 'l',
    heading: 'Pilots',
    fields: [{ key: 'value', heading: 'Pilots', kind: 'text' }],
    entries,
    ...over,
  };
  return {
    locale: houseLocale,
    registers: new Map([['l', register]]),
    ranges: [
      {
        id: 'r',
        name: 'Pilots',
        shape: 'list',
        inherits: false,
        stretches: [{ registerId: 'l', fields: ['value'], start: { at: 'top' }, end }],
      },
    ],
    definitions: new Map([['c', ofRanges(['r'])]]),
    kept: new Map(),
    linked: new Map(),
  };
}

/** A house of one table of groups and items under a range of levels. */
function levelsOf(...rows: readonly (readonly [group: string, item: string])[]): SourceState {
  const entries = rows.map(([group, item], at): Entry => ({ id: `e${at}`, cells: { group, item } }));
  const table: RegisterState = {
    id: 'l',
    heading: 'T',
    fields: ['group', 'item'].map((key) => ({ key, heading: key, kind: 'text' })),
    entries,
  };
  return {
    ...sourceStateOf([], { ends: 'last' }),
    registers: new Map([['l', table]]),
    ranges: [
      {
        id: 'r',
        name: 'R',
        shape: 'levels',
        inherits: false,
        stretches: [{ registerId: 'l', fields: ['group', 'item'], start: { at: 'top' }, end: { ends: 'last' } }],
      },
    ],
  };
}

describe('the range doctor', () => {
  const last: RangeEnd = { ends: 'last' };
  it.each([
    ['past the end', ['a', 'b', 'c'], { ends: 'fixed', entry: 'e1' }, '“c” comes in.'],
    ['after the gap', ['a', '', 'c'], { ends: 'gap' }, '“c” comes in.'],
    ['repeat', ['a', 'b', 'a'], last, 'What is offered stays the same.'],
    ['look-alike', ['Salt Quay', 'Salt Quai'], last, '“Salt Quai” goes out.'],
    ['outer blanks', ['a', ' b '], last, 'What is offered stays the same.'],
    ['mixed kinds', ['1', '2', '3', '4', '5', 'six'], last, '“six” goes out.'],
    ['mixed kinds', ['1.50', '2.00', '3,000', '4', '5', 'six'], last, '“six” goes out.'],
    ['mixed kinds', ['1.11.2026', '2.11.2026', '3 Nov 2026', '4.11.2026', '5.11.2026', 'soon'], last, '“soon” goes out.'],
    ['empty', ['', ''], { ends: 'fixed', entry: null }, 'What is offered stays the same.'],
  ] as const)('finds %s, says what its cure does, and the cure mends it', (kind, texts, end, effect) => {
    const sourceState = sourceStateOf(texts, end);
    const finding = examine('r', sourceState, { apart: () => false, effects: true }).find((found) => found.kind === kind)!;
    expect(finding.cure!.effect).toBe(effect);
    const mended = afterProposal(sourceState, finding.cure!.proposal);
    if (kind !== 'empty') expect(kinds(examine('r', mended, { apart: () => false }))).not.toContain(kind);
  });
  it('finds what is of the wrong kind, and names that nothing uses', () => {
    const dates = sourceStateOf(['2026-01-01', 'soon'], last, { fields: [{ key: 'value', heading: 'Day', kind: 'date' }] });
    expect(kinds(examine('r', { ...dates, definitions: new Map() }))).toEqual(['wrong kind', 'unused']);
  });
  it('finds headings that almost match the values they should equal', () => {
    const quays = sourceStateOf(['Lantern Basin', 'Heron Mole', 'Salt Quay'], last);
    const lists = ['Lantern Basin', 'Heron Mol', 'Salt Quay'].map((heading, at): RegisterState => ({
      id: `q${at}`,
      heading,
      fields: [{ key: 'value', heading, kind: 'text' }],
      entries: [],
    }));
    const sourceState: SourceState = {
      ...quays,
      registers: new Map([...quays.registers, ...lists.map((register) => [register.id, register] as const)]),
      ranges: [
        ...quays.ranges,
        {
          id: 'h',
          name: 'Berths',
          shape: 'headings',
          inherits: false,
          stretches: lists.map(({ id }) => ({ registerId: id, fields: ['value'], start: { at: 'top' }, end: last })),
        },
      ],
    };
    const finding = examine('h', sourceState, { effects: true }).find(({ kind }) => kind === 'heading almost matches')!;
    expect(finding).toMatchObject({
      words: 'The heading “Heron Mol” almost matches “Heron Mole”.',
      cure: { effect: '“Heron Mole” comes in; “Heron Mol” goes out.' },
    });
  });
  it('finds nothing in a list that is in order', () =>
    expect(examine('r', sourceStateOf(['a', 'b'], last), { apart: () => false })).toEqual([]));
  it('writes a parent right in every row of its children', () => {
    const sourceState = levelsOf(['Dry bulk', 'Coal'], ['Dry-bulk', 'Grain'], ['Dry bulk', 'Sand']);
    const finding = examine('r', sourceState, { apart: () => false }).find(({ kind }) => kind === 'look-alike')!;
    expect(
      readSourceState(afterProposal(sourceState, finding.cure!.proposal))
        .taking('r')
        .values.filter(({ path }) => path.length === 0)
        .map(({ value }) => value),
    ).toEqual(['Dry bulk']);
  });
  it('knows words that are used often elsewhere in the range, and takes them for no slip in a small group', () => {
    const sourceState = levelsOf(
      ...['Wheat', 'Rye', 'Oats'].flatMap(
        (grain) =>
          [
            [grain, `${grain} seed`],
            [grain, `${grain} feed`],
          ] as const,
      ),
    );
    expect(examine('r', sourceState, { apart: () => false })).toEqual([]);
  });
});

describe('series', () => {
  it.each([
    [
      ['1', '2'],
      ['3', '4', '5'],
    ],
    [['Gate 1'], ['Gate 2', 'Gate 3', 'Gate 4']],
    [
      ['Gate 08', 'Gate 10'],
      ['Gate 12', 'Gate 14', 'Gate 16'],
    ],
    [['2026-02-27'], ['2026-02-28', '2026-03-01', '2026-03-02']],
    [
      ['2026-01-05', '2026-01-12'],
      ['2026-01-19', '2026-01-26', '2026-02-02'],
    ],
    [
      ['2026-01-31', '2026-02-28'],
      ['2026-03-28', '2026-04-25', '2026-05-23'],
    ],
    [
      ['2026-11-15', '2026-12-15'],
      ['2027-01-15', '2027-02-15', '2027-03-15'],
    ],
    [
      ['slack', 'ebb', 'flood'],
      ['slack', 'ebb', 'flood'],
    ],
    [[], []],
  ] as const)('carries %j on as %j', (given, next) => expect(series(given, 3)).toEqual(next));
});

describe('a look at a paste', () => {
  const none = () => false;
  it('counts blanks, repeats and look-alikes, and sees a first row that is headings', () => {
    const look = lookAtPaste([['Pilots'], ['Tam Ossel'], [''], ['Tam Osel'], ['Rook'], ['Rook']], ['Pilots'], ['Tam Ossel'], none);
    expect(look).toMatchObject({ rows: 6, blanks: 1, repeats: 2, headings: true });
    expect(look.alike).toEqual([['Tam Ossel', 'Tam Osel']].map((group) => expect.arrayContaining(group)));
    expect(lookAtPaste([['Length'], ['12'], ['30'], ['7.5']], ['Greatest length'], [], none).headings).toBe(true);
    expect(lookAtPaste([['Rook'], ['Tam']], ['Pilots'], [], none).headings).toBe(false);
  });
});
