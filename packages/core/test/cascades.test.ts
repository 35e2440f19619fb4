import {
  catalogAtLevel,
  catalogUnder,
  choices,
  compileCatalog,
  hasTuple,
  houseLocale,
  judge,
  newRule,
  pathsTo,
  planCascade,
  stands,
  type CatalogRule,
  type Cells,
  type Item,
  type JudgedField,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

/** A tree of three levels from tuples, parents before their children, each once. */
function treeOf(tuples: readonly (readonly string[])[]): Item[] {
  const items = new Map<string, Item>();
  for (const tuple of tuples) {
    tuple.forEach((value, depth) => {
      const key = tuple.slice(0, depth + 1).join('/');
      if (!items.has(key)) items.set(key, { value, path: tuple.slice(0, depth), label: value, otherNames: [], state: 'offered', from: [] });
    });
  }
  return [...items.values()];
}

const value = fc.constantFrom('a', 'b', 'c');
const tuples = fc.array(fc.tuple(value, value, value), { minLength: 1, maxLength: 12 });
const keys = ['one', 'two', 'three'] as const;
const ruleAt = (level: number, over: Partial<CatalogRule> = {}): CatalogRule => ({
  ...newRule('catalog'),
  catalogId: 'c',
  level,
  parents: keys.slice(0, level),
  ...over,
});
const fieldsWith = (over: Partial<CatalogRule> = {}) =>
  keys.map((key, level): JudgedField & { key: string } => ({
    key,
    heading: key,
    kind: 'text',
    rule: ruleAt(level, level === 0 ? {} : over),
  }));
const contextOf = (items: readonly Item[]) => ({ locale: houseLocale, catalogs: new Map([['c', compileCatalog('c', 'Tree', items)]]) });
const cellsOf = (values: readonly string[]): Cells =>
  Object.fromEntries(values.flatMap((text, at) => (text === '' ? [] : [[keys[at]!, text]])));

describe('choices', () => {
  it('are the distinct values of a level among the tuples that agree, as a naive look finds them', () => {
    fc.assert(
      fc.property(tuples, value, value, (rows, first, second) => {
        const catalog = compileCatalog('c', 'Tree', treeOf(rows));
        const naive = (parents: readonly string[]) => [
          ...new Set(rows.filter((row) => parents.every((parent, at) => row[at] === parent)).map((row) => row[parents.length]!)),
        ];
        expect(choices(catalog, []).map((item) => item.value)).toEqual(naive([]));
        expect(choices(catalog, [first]).map((item) => item.value)).toEqual(naive([first]));
        expect(choices(catalog, [first, second]).map((item) => item.value)).toEqual(naive([first, second]));
        for (const level of [0, 1, 2])
          expect(new Set(catalogAtLevel(catalog, level).items.map((item) => item.value))).toEqual(new Set(rows.map((row) => row[level]!)));
        expect(hasTuple(catalog, [first, second])).toBe(rows.some((row) => row[0] === first && row[1] === second));
        expect(pathsTo(catalog, second, [first, '']).map((path) => path.join())).toEqual([
          ...new Set(rows.filter((row) => row[0] === first && row[2] === second).map((row) => row.slice(0, 2).join())),
        ]);
      }),
    );
  });
  it('are compiled once for each path', () => {
    const catalog = compileCatalog('c', 'Tree', treeOf([['a', 'b', 'c']]));
    expect(catalogUnder(catalog, ['a'])).toBe(catalogUnder(catalog, ['a']));
  });
});

describe('filling upwards', () => {
  it('takes no parent that is retired', () => {
    const items = treeOf([
      ['a', 'b', 'c'],
      ['d', 'e', 'c'],
    ]).map((item): Item => (item.value === 'd' ? { ...item, state: 'retired' } : item));
    const catalog = compileCatalog('c', 'Tree', items);
    expect(pathsTo(catalog, 'c', ['', ''])).toEqual([['a', 'b']]);
    expect(judge(fieldsWith({ blankParent: 'all' })[2]!, { typed: 'c' }, { ...contextOf(items), entry: {} })).toMatchObject({
      verdict: 'taken',
      fills: { one: 'a', two: 'b' },
    });
  });
});

describe('planCascade', () => {
  const before = fc.tuple(fc.constantFrom('', 'a', 'b', 'c'), fc.constantFrom('', 'a', 'b', 'c'), fc.constantFrom('', 'a', 'b', 'c'));
  const outsideIn = (fields: ReturnType<typeof fieldsWith>, cells: Cells, context: ReturnType<typeof contextOf>) =>
    fields.filter((field) => !stands(field, cells[field.key] ?? '', { ...context, entry: cells }).right).map(({ key }) => key);

  it('leaves nothing outside below a change of a right entry, touches nothing else, and is done once', () => {
    fc.assert(
      fc.property(tuples, before, fc.constantFrom(0, 1), value, (rows, held, level, changed) => {
        const context = contextOf(treeOf(rows));
        const fields = fieldsWith();
        const cells = { ...cellsOf(held), [keys[level]!]: changed };
        const plan = planCascade(fields, cells, [keys[level]!], context);
        const above = outsideIn(fields.slice(0, level + 1), plan.cells, context);
        if (above.length === 0) expect(outsideIn(fields, plan.cells, context)).toEqual([]);
        // Only deeper fields change, and only by being emptied.
        for (const [at, key] of keys.entries())
          if (at <= level || plan.cells[key] !== undefined) expect(plan.cells[key]).toBe(cells[key as keyof typeof cells]);
        expect(planCascade(fields, plan.cells, [keys[level]!], context).cells).toEqual(plan.cells);
      }),
    );
  });
  it('keeps on demand; a kept value fails at the shallowest level, deeper ones say that their parent does', () => {
    const context = contextOf(
      treeOf([
        ['a', 'x', 'p'],
        ['b', 'y', 'q'],
      ]),
    );
    const fields = fieldsWith({ misfit: 'keep' });
    const plan = planCascade(fields, { one: 'b', two: 'x', three: 'p' }, ['one'], context);
    expect([plan.kept, plan.cleared, plan.cells]).toEqual([['two', 'three'], [], { one: 'b', two: 'x', three: 'p' }]);
    const codes = fields.map((field) => stands(field, plan.cells[field.key] ?? '', { ...context, entry: plan.cells }));
    expect(codes.map((standing) => (standing.right ? '' : standing.code))).toEqual(['', 'not under parent', 'parent outside']);
  });
  it('clears what lies below a field that was brought along', () => {
    const items = treeOf([
      ['a', 'x', 'p'],
      ['b', 'y', 'q'],
    ]);
    const ships: Item[] = [
      { value: 'Loam', path: [], label: 'Loam', otherNames: [], state: 'offered', from: [], companions: { home: 'b' } },
    ];
    const context = {
      locale: houseLocale,
      catalogs: new Map([
        ['c', compileCatalog('c', 'Tree', items)],
        ['s', compileCatalog('s', 'Ships', ships)],
      ]),
    };
    const ship = {
      key: 'ship',
      heading: 'ship',
      kind: 'text' as const,
      rule: { ...newRule('catalog'), catalogId: 's', brings: [{ companion: 'home', field: 'one' }] },
    };
    const plan = planCascade([ship, ...fieldsWith()], { ship: 'Loam', one: 'a', two: 'x', three: 'p' }, ['ship'], context);
    expect([plan.cells, plan.cleared.map(({ field }) => field)]).toEqual([{ ship: 'Loam', one: 'b' }, ['two', 'three']]);
  });
  it('fills a single choice by itself, all the way down', () => {
    const context = contextOf(
      treeOf([
        ['a', 'x', 'p'],
        ['b', 'y', 'q'],
        ['b', 'y', 'r'],
      ]),
    );
    const plan = planCascade(fieldsWith({ fillsSingle: true }), { one: 'a' }, ['one'], context);
    expect(plan.cells).toEqual({ one: 'a', two: 'x', three: 'p' });
    expect(planCascade(fieldsWith({ fillsSingle: true }), { one: 'b' }, ['one'], context).cells).toEqual({ one: 'b', two: 'y' });
  });
});

describe('judge, in a cascade', () => {
  it('takes exactly what is offered under the parents', () => {
    fc.assert(
      fc.property(tuples, value, value, fc.constantFrom('a', 'b', 'c', 'd'), (rows, first, second, typed) => {
        const context = contextOf(treeOf(rows));
        const [, , three] = fieldsWith();
        const verdict = judge(three!, { typed }, { ...context, entry: { one: first, two: second } });
        expect(verdict.verdict === 'taken').toBe(rows.some((row) => row[0] === first && row[1] === second && row[2] === typed));
      }),
    );
  });
  it('offers under the parents that are filled, while others above are blank; a child never contradicts a filled one', () => {
    const given = fc.constantFrom('', 'a', 'b', 'x', 'y');
    fc.assert(
      fc.property(tuples, given, given, fc.constantFrom('a', 'b', 'c', 'd'), (rows, first, second, typed) => {
        const context = contextOf(treeOf(rows));
        const [, , three] = fieldsWith({ blankParent: 'all' });
        const agreeing = rows.some((row) => (first === '' || row[0] === first) && (second === '' || row[1] === second) && row[2] === typed);
        const entry = { ...(first && { one: first }), ...(second && { two: second }) };
        expect(judge(three!, { typed }, { ...context, entry }).verdict === 'taken').toBe(agreeing);
        expect(stands(three!, typed, { ...context, entry }).right).toBe(agreeing);
      }),
    );
  });
  it('names the first blank parent, and offers nothing', () => {
    const context = {
      ...contextOf(treeOf([['a', 'x', 'p']])),
      fields: keys.map((key) => ({ key, heading: key.toUpperCase(), kind: 'text' as const })),
    };
    const [, , three] = fieldsWith();
    expect(judge(three!, { typed: 'p' }, { ...context, entry: { two: 'x' } })).toMatchObject({
      code: 'parent blank',
      message: 'ONE is blank. Choose it first; then its values are offered here.',
    });
  });
  it('fills upwards where exactly one path has the value', () => {
    const context = contextOf(
      treeOf([
        ['a', 'x', 'p'],
        ['b', 'y', 'q'],
        ['b', 'z', 'q'],
      ]),
    );
    const [, , three] = fieldsWith({ blankParent: 'all' });
    expect(judge(three!, { typed: 'p' }, { ...context, entry: {} })).toMatchObject({ verdict: 'taken', fills: { one: 'a', two: 'x' } });
    expect(judge(three!, { typed: 'q' }, { ...context, entry: {} })).toEqual({ verdict: 'taken', value: 'q' });
    expect(judge(three!, { typed: 'q' }, { ...context, entry: { two: 'z' } })).toMatchObject({ fills: { one: 'b' } });
  });
});
