// Entries under the items of a catalog: lists joined by a key, ranges named by their parents, and names that almost match.
import {
  afterProposal,
  behindOf,
  catalogSentence,
  cycleThrough,
  examine,
  examineParents,
  orphansOf,
  houseLocale,
  levelsOf,
  ofRanges,
  readSourceState,
  touchedBy,
  type CatalogDefinition,
  type CatalogPart,
  type RegisterState,
  type SourceRange,
  type SourceState,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const table = (id: string, rows: readonly Readonly<Record<string, string>>[]): RegisterState => {
  const keys = [...new Set(rows.flatMap(Object.keys))];
  return {
    id,
    heading: id,
    fields: keys.map((key) => ({ key, heading: key, kind: 'text' })),
    entries: rows.map((cells, at) => ({ id: `${id} ${at}`, cells })),
  };
};
const over = (register: RegisterState, name = register.id, field = 'value'): SourceRange => ({
  id: `range ${register.id}`,
  name,
  shape: 'list',
  inherits: false,
  stretches: [{ registerId: register.id, fields: [field], start: { at: 'top' }, end: { ends: 'last' } }],
});
const composed = (...parts: CatalogPart[]): CatalogDefinition => ({ ...ofRanges([]), parts });
const keyed = (catalogId: string, registerId: string, rest: Partial<Extract<CatalogPart, { kind: 'keyed' }>> = {}): CatalogPart => ({
  kind: 'keyed',
  join: 'or',
  catalogId,
  by: null,
  registerId,
  key: 'parent',
  value: 'value',
  label: null,
  companions: [],
  ...rest,
});
const named = (catalogId: string): CatalogPart => ({ kind: 'named', join: 'or', catalogId });
const typed = (values: readonly string[]): CatalogPart => ({ kind: 'typed', join: 'or', values });
const sourceState = (
  definitions: Readonly<Record<string, CatalogDefinition>>,
  registers: readonly RegisterState[] = [],
  ranges: readonly SourceRange[] = [],
): SourceState => ({
  locale: houseLocale,
  registers: new Map(registers.map((register) => [register.id, register])),
  ranges,
  definitions: new Map(Object.entries(definitions)),
  kept: new Map(),
  linked: new Map(),
});
const tuples = (at: SourceState, id = 'c') =>
  readSourceState(at)
    .items(id)
    .map(({ path, value }) => [...path, value].join(' › '));

const parent = fc.constantFrom('North', 'South', 'Mole');
const child = fc.constantFrom('1', '2', '3', '');
const pairs = fc.array(fc.tuple(parent, child), { maxLength: 14 });

describe('entries under the items of a catalog', () => {
  it('give the pairs that a naive look finds, parents in their order, children in theirs', () => {
    fc.assert(
      fc.property(pairs, fc.uniqueArray(parent), (rows, parents) => {
        const berths = table(
          'berths',
          rows.map(([up, value]) => ({ parent: up, value })),
        );
        const naive = parents.flatMap((up) => [
          up,
          ...new Set(rows.filter(([key, value]) => key === up && value !== '').map(([, value]) => `${up} › ${value}`)),
        ]);
        expect(tuples(sourceState({ quays: composed(typed(parents)), c: composed(keyed('quays', 'berths')) }, [berths]))).toEqual(naive);
      }),
    );
  });
  it('find their parent by a companion, in any spelling of its value, and own all their rows', () => {
    const quays = table('quays', [
      { code: 'N', name: 'North Quay' },
      { code: 'S', name: 'South Quay' },
    ]);
    const berths = table('berths', [
      { parent: 'S', value: 'S 1' },
      { parent: ' N ', value: 'N 1', length: '90' },
      { parent: 'S', value: 'S 1' },
      { parent: 'X', value: 'lost' },
    ]);
    const query: CatalogPart = {
      kind: 'query',
      join: 'or',
      registerId: 'quays',
      value: 'name',
      label: null,
      companions: ['code'],
      filter: null,
    };
    const byCode = sourceState({ quays: composed(query), c: composed(keyed('quays', 'berths', { by: 'code', companions: ['length'] })) }, [
      quays,
      berths,
    ]);
    expect(tuples(byCode)).toEqual(['North Quay', 'North Quay › N 1', 'South Quay', 'South Quay › S 1']);
    const items = readSourceState(byCode).items('c');
    expect(items[1]).toMatchObject({ companions: { length: '90' }, from: [{ by: 'keyed', id: 'berths' }] });
    expect(items[3]!.from[0]!.rows.map(({ ordinal }) => ordinal)).toEqual([0, 2]);
    expect(items[0]!.from).toMatchObject([{ by: 'catalog', id: 'quays' }]);
    const byValue = sourceState({ quays: composed(typed(['North Quay'])), c: composed(keyed('quays', 'loose')) }, [
      table('loose', [{ parent: 'north  quay', value: 'A' }]),
    ]);
    expect(tuples(byValue)).toEqual(['North Quay', 'North Quay › A']);
  });
  it('stack to eight levels, each catalog under the one before', () => {
    const registers = Array.from({ length: 7 }, (_, at) => table(`t${at}`, [{ parent: `v${at}`, value: `v${at + 1}` }]));
    const definitions = Object.fromEntries(registers.map((_, at) => [`c${at + 1}`, composed(keyed(`c${at}`, `t${at}`))]));
    const all = sourceState({ c0: composed(typed(['v0'])), ...definitions }, registers);
    const items = readSourceState(all).items('c7');
    expect(levelsOf(items)).toBe(8);
    expect(items.at(-1)!.path).toEqual(['v0', 'v1', 'v2', 'v3', 'v4', 'v5', 'v6']);
  });
});

describe('ranges that bear the names of their parents', () => {
  const north = table('n', [{ value: 'N 1' }, { value: '' }, { value: 'N 2' }]);
  const mole = table('m', [{ value: 'M 1' }]);
  const ranges = [over(north, 'North Quay'), over(mole, 'mole ')];
  const at = sourceState({ quays: composed(typed(['North Quay', 'Mole', 'Pier'])), c: composed(named('quays')) }, [north, mole], ranges);

  it('give the children, which come from the range; a parent without one has none', () => {
    expect(tuples(at)).toEqual(['North Quay', 'North Quay › N 1', 'North Quay › N 2', 'Mole', 'Mole › M 1', 'Pier']);
    expect(readSourceState(at).items('c')[1]!.from).toMatchObject([{ by: 'range', id: 'range n' }]);
    expect(examine('range n', at).map(({ kind }) => kind)).not.toContain('unused');
    expect(examine('range n', { ...at, definitions: new Map() }).map(({ kind }) => kind)).toContain('unused');
  });
  it('grow by a new parent and a new range alone, and are touched by both', () => {
    const pier = table('p', [{ value: 'P 1' }]);
    const made = { what: 'range made' as const, range: over(pier, 'Pier') };
    expect(touchedBy(at, made)).toContain('c');
    expect(tuples(afterProposal({ ...at, registers: new Map([...at.registers, ['p', pier]]) }, { steps: [made] }))).toContain('Pier › P 1');
    expect(touchedBy(at, { what: 'act', registerId: 'n', act: { act: 'write', cells: [] } })).toContain('c');
    expect(touchedBy(at, { what: 'act', registerId: 'elsewhere', act: { act: 'write', cells: [] } })).not.toContain('c');
  });
});

describe('names of parents that almost match', () => {
  it('are found with the cure that puts things in their place', () => {
    const berths = table('berths', [
      { parent: 'Nroth Quay', value: 'N 1' },
      { parent: 'North Quay', value: 'N 2' },
      { parent: 'Elsewhere', value: 'E' },
    ]);
    const salt = table('s', [{ value: 'S 1' }]);
    const at = sourceState(
      { quays: composed(typed(['North Quay', 'Salt Quay'])), c: composed(keyed('quays', 'berths'), named('quays')) },
      [berths, salt],
      [over(salt, 'Salt-Quay')],
    );
    const found = examineParents('c', at);
    expect(found.map(({ words }) => words)).toEqual([
      'An entry of berths names the parent “Nroth Quay”, which almost matches “North Quay”.',
      'Nothing stands under “Salt Quay”: the range “Salt-Quay” almost bears its name.',
    ]);
    // A parent that resembles none is no slip of the finger: its rows are told by themselves.
    expect(orphansOf('c', at)).toMatchObject([
      {
        catalogId: 'c',
        words: 'A row of berths names “Elsewhere”, which is not there: nothing offers it.',
        row: { register: 'berths', ordinal: 2 },
      },
    ]);
    const mended = found.reduce((now, { cure }) => afterProposal(now, cure.proposal), at);
    expect(examineParents('c', mended)).toEqual([]);
    expect(tuples(mended)).toEqual(expect.arrayContaining(['North Quay › N 1', 'Salt Quay › S 1']));
  });
});

describe('a catalog under another', () => {
  const names = {
    range: (id: string) => id,
    register: (id: string) => id,
    field: (_register: string, key: string) => key,
    linked: (id: string) => id,
    catalog: (id: string) => id,
  };
  it('cannot stand under itself, also through the field that gives its values', () => {
    const definitions = new Map([
      ['a', composed(keyed('b', 'berths'))],
      ['b', composed(named('a'))],
    ]);
    expect(
      cycleThrough(
        'a',
        behindOf(definitions, () => undefined),
      ),
    ).toEqual(['a', 'b', 'a']);
    expect(
      cycleThrough(
        'a',
        behindOf(new Map([['a', composed(keyed('x', 'berths'))]]), () => 'a'),
      ),
    ).toEqual(['a', 'a']);
  });
  it('says what stands under what', () => {
    expect(catalogSentence(composed(keyed('Quays', 'Berths', { by: 'code' }), named('Quays')), names, (key) => key)).toBe(
      'Offers value of Berths under Quays, by parent (their code), then the ranges named by Quays, in the order of their sources; repeats stand once.',
    );
  });
});
