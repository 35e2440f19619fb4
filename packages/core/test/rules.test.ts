import { canBeOutside, compileCatalog, houseLocale, judge, ruleSentence, stands, type CatalogRule, type Item, type JudgedField, type Verdict } from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const items: Item[] = [
  { value: 'Lantern Basin', path: [], label: 'Lantern Basin', otherNames: ['Lantern'], state: 'offered', from: [] },
  { value: 'Heron Mole', path: [], label: 'Heron Mole', otherNames: [], state: 'offered', from: [] },
  { value: 'Old Slip', path: [], label: 'Old Slip', otherNames: [], state: 'retired', from: [] },
];
const catalogs = new Map([['q', compileCatalog('q', 'Quays', items)]]);
const rule: CatalogRule = { kind: 'catalog', catalogId: 'q', mayBeBlank: true, others: 'refuse', hint: '', refusalText: '' };
const field = (over: Partial<CatalogRule> | null = {}): JudgedField => ({ heading: 'Quay', kind: 'text', rule: over && { ...rule, ...over } });
const typed = (text: string, over?: Partial<CatalogRule>, held?: string): Verdict => judge(field(over), text, { locale: houseLocale, catalogs, suggest: true, ...(held !== undefined && { held }) });

/** One row a case: what is typed, the rule's deviation, what is held; the verdict, its value or code. */
const table: [text: string, over: Partial<CatalogRule>, held: string | undefined, verdict: string, result: string][] = [
  ['Lantern Basin', {}, undefined, 'taken', 'Lantern Basin'],
  [' lantern  BASIN ', {}, undefined, 'taken', 'Lantern Basin'],
  ['Lantern', {}, undefined, 'taken', 'Lantern Basin'],
  ['', {}, undefined, 'taken', ''],
  ['  \u00A0', {}, 'Heron Mole', 'taken', ''],
  ['', { mayBeBlank: false }, 'Heron Mole', 'refused', 'blank'],
  ['', { mayBeBlank: false }, undefined, 'taken', ''],
  ['Nroth Basin', {}, undefined, 'refused', 'outside'],
  ['Nroth Basin', {}, 'Nroth Basin', 'taken', 'Nroth Basin'],
  ['Old Slip', {}, undefined, 'refused', 'retired'],
  ['Old Slip', {}, 'Old Slip', 'taken', 'Old Slip'],
  ['Anything', { others: 'accept' }, undefined, 'taken', 'Anything'],
  ['heron mole', { others: 'accept' }, undefined, 'taken', 'Heron Mole'],
  ['a\u0000', { others: 'accept' }, undefined, 'refused', 'forbidden character'],
  ['x'.repeat(501), { others: 'accept' }, undefined, 'refused', 'length'],
];

describe('judge, entering', () => {
  it.each(table)('%j with %j over %j is %s: %s', (text, over, held, verdict, result) => {
    const judged = typed(text, over, held);
    expect([judged.verdict, judged.verdict === 'taken' ? judged.value : judged.code]).toEqual([verdict, result]);
  });
  it('says what was taken under another spelling', () => expect(typed(' lantern  BASIN ')).toEqual({ verdict: 'taken', value: 'Lantern Basin', corrected: '“ lantern  BASIN ” was taken as Lantern Basin.' }));
  it('refuses with a plain message and suggestions, in the words of the rule where it has some', () => {
    expect(typed('Heron Mloe')).toMatchObject({ message: '“Heron Mloe” is not in Quays. Did you mean Heron Mole?', suggestions: ['Heron Mole'] });
    expect(typed('zzz', { refusalText: 'Pick a quay.' })).toMatchObject({ message: 'Pick a quay.', suggestions: [] });
  });
  it('computes suggestions only when asked for', () => expect(judge(field(), 'Heron Mloe', { locale: houseLocale, catalogs })).toMatchObject({ suggestions: [] }));
  it('reads by the kind of the field where there is no rule', () => {
    const date: JudgedField = { heading: 'Arrival', kind: 'date', rule: null };
    expect(judge(date, '24.11.26', { locale: houseLocale, catalogs })).toEqual({ verdict: 'taken', value: '2026-11-24' });
    expect(judge(date, '31.2.26', { locale: houseLocale, catalogs })).toMatchObject({ code: 'wrong kind' });
  });
});

describe('laws of the judge', () => {
  const text = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('Lantern Basin', 'LANTERN', 'Old Slip', ' heron mole', ''));
  const deviation = fc.record({ mayBeBlank: fc.boolean(), others: fc.constantFrom('refuse' as const, 'accept' as const) });
  it('what is taken stands, unless it was held already', () => {
    fc.assert(
      fc.property(text, deviation, (input, over) => {
        const verdict = typed(input, over);
        if (verdict.verdict === 'taken') expect(stands(field(over), verdict.value, { locale: houseLocale, catalogs }).right).toBe(true);
      }),
    );
  });
  it('judging what was taken once more changes nothing', () => {
    fc.assert(
      fc.property(text, deviation, (input, over) => {
        const verdict = typed(input, over);
        fc.pre(verdict.verdict === 'taken' && verdict.value !== '');
        const again = verdict.verdict === 'taken' ? typed(verdict.value, over) : undefined;
        expect(again).toEqual({ verdict: 'taken', value: verdict.verdict === 'taken' ? verdict.value : '' });
      }),
    );
  });
  it('where nothing can be outside, everything stands', () => {
    const kind = fc.constantFrom('text' as const, 'number' as const, 'date' as const);
    fc.assert(
      fc.property(text, kind, fc.option(deviation), (value, ownKind, over) => {
        const judged = { ...field(over), kind: ownKind };
        if (!canBeOutside(judged)) expect(stands(judged, value, { locale: houseLocale, catalogs }).right).toBe(true);
      }),
    );
  });
  it('a cell may always take back what it held', () => fc.assert(fc.property(text, deviation, (held, over) => { expect(typed(held, over, held)).toEqual({ verdict: 'taken', value: held }); })));
});

describe('stands', () => {
  const right = (value: string, over?: Partial<CatalogRule>) => stands(field(over), value, { locale: houseLocale, catalogs }).right;
  it('finds offered and retired values right, other spellings outside', () => {
    expect(['Lantern Basin', 'Old Slip', ''].map((value) => right(value))).toEqual([true, true, true]);
    expect(['lantern basin', 'Lantern', 'Gone Quay'].map((value) => right(value))).toEqual([false, false, false]);
    expect(right('Gone Quay', { others: 'accept' })).toBe(true);
  });
});

describe('ruleSentence', () => {
  const words = (over: Partial<CatalogRule>) => ruleSentence({ ...rule, ...over }, new Map([['q', 'Quays']])).map(({ text }) => text).join('');
  it('says the rule in one sentence', () => {
    expect(words({ refusalText: 'Pick a quay.' })).toBe('Takes one value from Quays; may be blank; any other value is refused, saying “Pick a quay.” On arrival it shows no hint.');
    expect(words({ others: 'accept', mayBeBlank: false, hint: 'Where?' })).toBe('Takes one value from Quays; must not be blank; any other value is accepted. On arrival it shows “Where?”');
  });
  it('offers every part for changing', () => expect(ruleSentence(rule, new Map()).flatMap(({ edits }) => edits ?? [])).toEqual(['catalogId', 'mayBeBlank', 'others', 'refusalText', 'hint']));
});
