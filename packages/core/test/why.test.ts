import {
  compileCatalog,
  examine,
  explain,
  houseLocale,
  judge,
  newRule,
  ofRanges,
  readSourceState,
  type CatalogDefinition,
  type CatalogPart,
  type CatalogRule,
  type Entry,
  type JudgedField,
  type KeptItem,
  type PartNames,
  type SourceRange,
  type SourceState,
  type TraceSources,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const names: PartNames = {
  range: (id) => id.toUpperCase(),
  register: (id) => id,
  field: (_id, key) => key,
  linked: (id) => id,
  catalog: (id) => id,
};
const ruleNames = { locale: houseLocale, catalog: () => 'Pilots', field: (key: string) => key };
const texts = ['Tam', 'Bryn', '', 'Rook'];
const range: SourceRange = {
  id: 'pilots',
  name: 'Pilots',
  shape: 'list',
  inherits: false,
  stretches: [{ registerId: 'l', fields: ['value'], start: { at: 'top' }, end: { ends: 'fixed', entry: 'e1' } }],
};

function house(definition: CatalogDefinition, kept: readonly KeptItem[] = [], ranges: readonly SourceRange[] = [range]) {
  const entries = texts.map((text, at): Entry => ({ id: `e${at}`, cells: text === '' ? {} : { value: text } }));
  const sourceState: SourceState = {
    locale: houseLocale,
    registers: new Map([['l', { id: 'l', heading: 'l', fields: [{ key: 'value', heading: 'value', kind: 'text' }], entries }]]),
    ranges,
    definitions: new Map([['c', definition]]),
    kept: new Map([['c', kept]]),
    linked: new Map(),
  };
  const reader = readSourceState(sourceState);
  const catalogs = new Map([['c', compileCatalog('c', 'Pilots', reader.items('c'))]]);
  const sources: TraceSources = { definition, reader, names, nameOf: (key) => key, findings: (id) => examine(id, sourceState) };
  return { catalogs, sources };
}

const field = (over: Partial<CatalogRule> = {}): JudgedField => ({
  heading: 'Pilot',
  kind: 'text',
  rule: { ...newRule('catalog'), catalogId: 'c', ...over },
});
const trace = (text: string, made: ReturnType<typeof house>, over?: Partial<CatalogRule>) =>
  explain(field(over), text, { locale: houseLocale, catalogs: made.catalogs, today: '2026-11-25' }, ruleNames, made.sources);
const said = (found: ReturnType<typeof trace>) =>
  found.steps.map(({ step, words, passed }) => `${passed ? '' : 'lost: '}${step}: ${words}`);
const typed = (values: readonly string[], join: CatalogPart['join'] = 'or'): CatalogPart => ({ kind: 'typed', join, values });
const of = (...parts: CatalogPart[]): CatalogDefinition => ({ ...ofRanges([]), parts });

describe('explain', () => {
  it('leads an offered value to its row', () => {
    expect(said(trace('tam', house(ofRanges(['pilots']))))).toEqual([
      'rule: Pilot takes one value from Pilots.',
      'catalog: It is Tam, written differently.',
      'part: It comes from the range PILOTS, row 1.',
    ]);
  });
  it('says where a value of a source is lost', () => {
    const lost = (text: string, made: ReturnType<typeof house>) => said(trace(text, made)).filter((words) => words.startsWith('lost'))[1];
    expect(lost('rook', house(ofRanges(['pilots'])))).toBe(
      'lost: part: It stands in row 4 under the range PILOTS, but it stands past the end of the range.',
    );
    expect(
      lost('Rook', house(ofRanges(['pilots']), [], [{ ...range, stretches: [{ ...range.stretches[0]!, end: { ends: 'gap' } }] }])),
    ).toContain('after the gap');
    expect(lost('Nell', house(ofRanges(['pilots'])))).toBe('lost: part: No source of Pilots has it: PILOTS.');
    expect(lost('b', house(of(typed(['a', 'b']), typed(['b'], 'without'))))).toContain('it is taken out');
    expect(lost('b', house(of(typed(['a', 'b']), typed(['a'], 'and'))))).toContain('it is not in');
    expect(
      lost('b', house({ ...of(typed(['a', 'b'])), filter: { all: true, conditions: [{ field: 'value', is: 'is', value: 'a' }] } })),
    ).toContain('offers only items where value is “a”');
    expect(lost('x', house(of()))).toBe('lost: part: Pilots has no parts yet, so it gives nothing.');
  });
  it('leads to where a value is lost, with what takes it in; without the sources it says who can help', () => {
    const made = house(ofRanges(['pilots']));
    const [catalog, part] = trace('rook', made).steps.filter(({ passed }) => !passed);
    expect(catalog).toMatchObject({ at: { catalogId: 'c', composing: false } });
    expect(part).toMatchObject({
      origin: { by: 'range', id: 'pilots', rows: [{ register: 'l', entry: 'e3', ordinal: 3 }] },
      cure: { kind: 'past the end', rangeId: 'pilots' },
    });
    const clerk = explain(field(), 'rook', { locale: houseLocale, catalogs: made.catalogs, today: '2026-11-25' }, ruleNames);
    expect(said(clerk).filter((words) => words.startsWith('lost'))).toEqual([
      'lost: catalog: Pilots does not have it. Whoever keeps Pilots can add it.',
      'lost: other values: Any other value is refused here.',
    ]);
  });
  it('says what closes a value that is there', () => {
    const made = house(ofRanges(['pilots']), [
      { value: 'Tam', path: [], retired: true, otherNames: [] },
      { value: 'Bryn', path: [], retired: false, otherNames: ['B'], validUntil: '2026-01-31' },
    ]);
    expect(trace('Tam', made).steps.find(({ passed }) => !passed)).toMatchObject({ step: 'state' });
    expect(trace('B', made).steps.find(({ passed }) => !passed)).toMatchObject({
      step: 'validity',
      words: 'Bryn was offered until 31.01.2026.',
    });
  });
  it('agrees with the judge, and names a step exactly where the value is lost', () => {
    const text = fc.constantFrom('Tam', 'tam', 'Bryn', 'Rook', 'Nell', '');
    const over = fc.record({ others: fc.constantFrom('refuse' as const, 'accept' as const, 'confirm' as const), mayBeBlank: fc.boolean() });
    const retired = fc.boolean();
    fc.assert(
      fc.property(text, over, retired, (value, rule, gone) => {
        const made = house(ofRanges(['pilots']), gone ? [{ value: 'Tam', path: [], retired: true, otherNames: [] }] : []);
        const found = trace(value, made, rule);
        const verdict = judge(field(rule), { typed: value }, { locale: houseLocale, catalogs: made.catalogs, today: '2026-11-25' });
        expect(found.offered).toBe(verdict.verdict === 'taken');
        if (!found.offered) expect(found.steps.some(({ passed }) => !passed)).toBe(true);
      }),
    );
  });
});
