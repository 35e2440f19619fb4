import {
  canBeOutside,
  cellsOfNew,
  compileCatalog,
  dateOrders,
  decimalMarks,
  explain,
  fieldKinds,
  format,
  patternFault,
  patternOf,
  ruleFaults,
  houseLocale,
  isOfKind,
  joinedValues,
  judge,
  newRule,
  ruleSentence,
  ruleTakes,
  stands,
  typedAs,
  typedList,
  typedValue,
  writeTypedList,
  type CatalogRule,
  type FieldKind,
  type Given,
  type Item,
  type JudgedField,
  type RuleNames,
  type Verdict,
  type Rule,
  type TypedRule,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const items: Item[] = [
  { value: 'Lantern Basin', path: [], label: 'Lantern Basin', otherNames: ['Lantern'], state: 'offered', from: [] },
  { value: 'Heron Mole', path: [], label: 'Heron Mole', otherNames: [], state: 'offered', from: [] },
  { value: 'Old Slip', path: [], label: 'Old Slip', otherNames: [], state: 'retired', from: [] },
];
const catalogs = new Map([['q', compileCatalog('q', 'Quays', items)]]);
const rule: CatalogRule = { ...newRule('catalog'), catalogId: 'q' };
const names: RuleNames = { locale: houseLocale, catalog: (id) => (id === 'q' ? 'Quays' : 'a catalog'), field: (key) => key };
const field = (over: Partial<CatalogRule> | null = {}): JudgedField => ({
  heading: 'Quay',
  kind: 'text',
  rule: over && { ...rule, ...over },
});
const writeTyped = (kind: JudgedField['kind'], text: string) => (kind === 'several values' ? writeTypedList([text]) : text);
const typed = (text: string, over?: Partial<CatalogRule>, held?: string): Verdict =>
  judge(field(over), { typed: text }, { locale: houseLocale, catalogs, suggest: true, ...(held !== undefined && { held }) });

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
    expect([judged.verdict, 'code' in judged ? judged.code : judged.value]).toEqual([verdict, result]);
  });
  it('says what was taken under another spelling', () =>
    expect(typed(' lantern  BASIN ')).toEqual({
      verdict: 'taken',
      value: 'Lantern Basin',
      corrected: '“ lantern  BASIN ” was taken as Lantern Basin.',
    }));
  it('refuses with a plain message and suggestions, in the words of the rule where it has some', () => {
    expect(typed('Heron Mloe')).toMatchObject({
      message: '“Heron Mloe” is not in Quays. Did you mean Heron Mole?',
      suggestions: ['Heron Mole'],
    });
    expect(typed('zzz', { refusalText: 'Pick a quay.' })).toMatchObject({ message: 'Pick a quay.', suggestions: [] });
  });
  it('computes suggestions only when asked for', () =>
    expect(judge(field(), { typed: 'Heron Mloe' }, { locale: houseLocale, catalogs })).toMatchObject({ suggestions: [] }));
  it('reads by the kind of the field where there is no rule', () => {
    const date: JudgedField = { heading: 'Arrival', kind: 'date', rule: null };
    expect(judge(date, { typed: '24.11.26' }, { locale: houseLocale, catalogs })).toEqual({ verdict: 'taken', value: '2026-11-24' });
    expect(judge(date, { typed: '31.2.26' }, { locale: houseLocale, catalogs })).toMatchObject({ code: 'wrong kind' });
  });
});

describe('laws of the judge', () => {
  const text = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('Lantern Basin', 'LANTERN', 'Old Slip', ' heron mole', ''));
  const deviation = fc.record({ mayBeBlank: fc.boolean(), others: fc.constantFrom('refuse' as const, 'accept' as const) });
  it('what is taken stands, unless it was held already', () => {
    fc.assert(
      fc.property(text, deviation, (input, over) => {
        const verdict = typed(input, over);
        // A blank cell that is left blank holds nothing that was taken.
        if (verdict.verdict === 'taken' && input.trim() !== '')
          expect(stands(field(over), verdict.value, { locale: houseLocale, catalogs }).right).toBe(true);
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
  it('a cell may always take back what it held', () =>
    fc.assert(
      fc.property(text, deviation, (held, over) => {
        expect(typed(held, over, held)).toEqual({ verdict: 'taken', value: held });
      }),
    ));
});

describe('the text of a value', () => {
  const name = fc.constantFrom('A', 'B', 'Fenn', 'fenn', '7', '0.07', '7 %', 'Holt');
  const item = fc.record({ value: name, label: name, otherNames: fc.uniqueArray(name, { maxLength: 2 }) });
  const localeFc = fc.record({
    language: fc.constantFrom('en-GB', 'de-DE', 'en-US'),
    decimalMark: fc.constantFrom(...decimalMarks),
    dateOrder: fc.constantFrom(...dateOrders),
    yearPivot: fc.constant(68),
    currency: fc.constantFrom('EUR', 'JPY', 'KWD'),
  });
  const valueOf: { readonly [Kind in FieldKind]: fc.Arbitrary<string> } = {
    text: fc.constantFrom(
      'A',
      'a',
      '7',
      '7 %',
      '1.5',
      '1,5',
      '2026-03-01',
      'tomorrow',
      'yes',
      'no',
      'B, C',
      '"x"',
      '100 %',
      '+3',
      'A '.trim(),
    ),
    number: fc.constantFrom('1', '100', '0.5', '1.5', '15', '-3', '1000', '1.25'),
    amount: fc.constantFrom('1', '100', '0.5', '1.5', '15', '1000', '12.25'),
    percent: fc.constantFrom('0.01', '1', '0.1', '0.125', '0.00125', '100', '12.5'),
    date: fc.constantFrom('2026-03-01', '2026-01-03', '2026-12-02', '2026-12-04', '1969-01-02', '2068-02-01'),
    'yes/no': fc.constantFrom('yes', 'no'),
    'several values': fc.constantFrom('A', 'B, C', '7', '"x"', 'x;y', 'yes'),
  };
  const labelled = (kind: FieldKind) =>
    fc.record({
      value: valueOf[kind],
      label: fc.oneof(fc.constant(''), valueOf.text, valueOf[kind]),
      otherNames: fc.uniqueArray(fc.oneof(valueOf.text, valueOf[kind]), { maxLength: 2 }),
      state: fc.constantFrom('offered' as const, 'offered' as const, 'retired' as const),
    });
  const chosenFrom = fc
    .constantFrom(...fieldKinds)
    .chain((kind) =>
      fc.record({
        kind: fc.constant(kind),
        some: fc.uniqueArray(labelled(kind), { selector: ({ value }) => value, minLength: 1, maxLength: 6 }),
        held: fc.oneof(fc.constant(''), valueOf[kind]),
        ofCatalog: fc.boolean(),
      }),
    );
  it('is taken as what was chosen, in every kind of field, in every house, over whatever the cell holds', () =>
    fc.assert(
      fc.property(chosenFrom, localeFc, ({ kind, some, held, ofCatalog }, locale) => {
        const right = some.filter(({ value }) => isOfKind(kind, value) || kind === 'several values');
        const list = right.map((one): Item => ({ ...one, label: one.label || one.value, path: [], from: [] }));
        const catalog = compileCatalog('q', 'Quays', list);
        const own: Rule = ofCatalog ? rule : { ...newRule('typed'), values: list.map(({ value }) => value) };
        const judged = { heading: 'Quay', kind, rule: own };
        const context = { locale, catalogs: new Map([['q', catalog]]), today: '2026-12-01' };
        const offers = ofCatalog ? catalog : typedList(own as TypedRule, kind, locale);
        for (const item of offers.items.filter(({ state }) => state === 'offered')) {
          const picked = typedAs(offers, item.value, kind, { ...context, held });
          const text = kind === 'several values' ? writeTypedList([picked]) : picked;
          expect(judge(judged, { typed: text }, { ...context, held })).toMatchObject({ verdict: 'taken', value: item.value });
          expect(judge(judged, { chosen: item.value }, { ...context, held })).toEqual({ verdict: 'taken', value: item.value });
          // Whatever stands in the cell besides stays as it stands.
          if (kind === 'several values' && held !== '')
            expect(judge(judged, { chosen: joinedValues([held, item.value]) }, { ...context, held })).toMatchObject({
              verdict: stands(judged, held, context).right ? 'taken' : 'marked',
              value: joinedValues([held, item.value]),
            });
          if (kind === 'several values' && held !== '' && held !== item.value && offers.index.get('value').has(held)) {
            const both = writeTypedList([typedAs(offers, held, kind, { ...context, held }), picked]);
            expect(judge(judged, { typed: both }, { ...context, held })).toMatchObject({
              verdict: 'taken',
              value: joinedValues([held, item.value]),
            });
          }
          const why = explain(judged, text, context, names).steps;
          expect(why.filter(({ passed }) => !passed)).toEqual([]);
          // What the cell is shown with when it is opened again means what it holds.
          const again = typedValue(judged, item.value, context.catalogs, locale, context.today);
          expect(judge(judged, { typed: again }, { ...context, held: '' })).toMatchObject({ verdict: 'taken', value: item.value });
        }
      }),
      { numRuns: 400 },
    ));
  it('is never taken for a text that reads like it, nor a text for it', () => {
    const percent = { heading: 'Share', kind: 'percent' as const, rule: { ...newRule('typed'), values: ['0.01', '1'] } };
    const at = (given: Given, held = '') => judge(percent, given, { locale: houseLocale, catalogs, held });
    expect(at({ chosen: '1' })).toEqual({ verdict: 'taken', value: '1' });
    expect(at({ typed: '1' })).toEqual({ verdict: 'taken', value: '0.01' });
    expect(at({ chosen: '0.01' }, '1')).toEqual({ verdict: 'taken', value: '0.01' });
    expect(at({ chosen: '0.5' })).toMatchObject({ verdict: 'refused', code: 'outside', message: '“50 %” is not in the list.' });
    expect(at({ chosen: '1 %' })).toMatchObject({ verdict: 'refused' });
    expect(judge({ ...percent, rule: null }, { chosen: '1,0' }, { locale: houseLocale, catalogs })).toMatchObject({ code: 'wrong kind' });
    expect(
      ruleFaults({ ...percent.rule, begins: { with: 'value', value: '1' } }, percent, { locale: houseLocale, catalogs, rules: new Map() }),
    ).toEqual([]);
  });
  it('keeps what stands outside among several values when another one is added, and takes nothing else that is outside', () => {
    const tags = { heading: 'Tags', kind: 'several values' as const, rule: { ...newRule('typed'), values: ['red', 'blue'] } };
    const at = (given: Given) => judge(tags, given, { locale: houseLocale, catalogs, held: 'gone\u001Fred' });
    const outside = { code: 'outside', message: '“gone” is not in the list.' };
    expect(at({ typed: 'gone, red, blue' })).toEqual({ verdict: 'marked', value: 'gone\u001Fred\u001Fblue', ...outside });
    expect(at({ chosen: 'gone\u001Fblue' })).toEqual({ verdict: 'marked', value: 'gone\u001Fblue', ...outside });
    expect(at({ chosen: 'blue' })).toEqual({ verdict: 'taken', value: 'blue' });
    expect(at({ typed: 'gone, red, green' })).toMatchObject({ verdict: 'refused', code: 'outside' });
  });
  it('is taken back where the cell holds it, in every house, whatever its rule has come to be', () =>
    fc.assert(
      fc.property(
        fc
          .constantFrom(...fieldKinds)
          .chain((kind) =>
            fc.record({
              kind: fc.constant(kind),
              values: fc.uniqueArray(valueOf[kind], { minLength: 1, maxLength: kind === 'several values' ? 3 : 1 }),
            }),
          ),
        fc.constantFrom(null, newRule('plain'), { ...newRule('typed'), values: ['z'] }, { ...rule, catalogId: 'q' }),
        localeFc,
        ({ kind, values }, own, locale) => {
          const held = joinedValues(values);
          const shown = kind === 'several values' ? writeTypedList(values) : format(kind, held, locale);
          expect(judge({ heading: 'Quay', kind, rule: own }, { typed: shown }, { locale, catalogs, held, today: '2026-12-01' })).toEqual({
            verdict: 'taken',
            value: held,
          });
        },
      ),
    ));
  it('is taken as that value when it is typed, whatever labels and other names it shares', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(item, { selector: ({ value }) => value, minLength: 1, maxLength: 6 }),
        fc.constantFrom('text', 'several values', 'percent', 'number'),
        (some, kind) => {
          const isOne = ({ value }: { value: string }) => isOfKind(kind, value);
          const list = some.filter(isOne).map((one): Item => ({ ...one, path: [], state: 'offered', from: [] }));
          const catalog = compileCatalog('q', 'Quays', list);
          for (const { value } of list)
            expect(
              judge(
                { heading: 'Quay', kind, rule },
                { typed: writeTyped(kind, typedAs(catalog, value, kind, { locale: houseLocale })) },
                { locale: houseLocale, catalogs: new Map([['q', catalog]]) },
              ),
            ).toMatchObject({ verdict: 'taken', value });
        },
      ),
    ));
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
  const words = (over: Partial<CatalogRule>) =>
    ruleSentence({ ...rule, ...over }, names)
      .map(({ text }) => text)
      .join('');
  it('says the rule in one sentence', () => {
    expect(words({ refusalText: 'Pick a quay.' })).toBe(
      'Takes one value from Quays; may be blank; any other value is refused, saying “Pick a quay.” A new entry begins empty; on arrival it shows no hint.',
    );
    expect(words({ others: 'accept', mayBeBlank: false, hint: 'Where?' })).toBe(
      'Takes one value from Quays; must not be blank; any other value is accepted. A new entry begins empty; on arrival it shows “Where?”',
    );
  });
  it('says who may change the field', () =>
    expect(words({ readOnly: true, noRepeats: true })).toContain(
      '; no value twice; only administrators change it; any other value is refused',
    ));
  it.each([
    [{ from: { of: 'field', field: 'Seen on', plus: 0 } }, 'a date from Seen on'],
    [{ from: { of: 'field', field: 'Arrival', plus: 0 } }, 'a date from Arrival on'],
    [{ from: { of: 'field', field: 'Arrival', plus: 1 } }, 'a date after Arrival'],
    [{ from: { of: 'field', field: 'Arrival', plus: 1 }, until: { of: 'today', plus: -1 } }, 'a date after Arrival and before today'],
    [{ until: { of: 'day', day: '2026-12-31' } }, 'a date until 31.12.2026'],
  ] as const)('says the days of %o as people do', (over, said) => {
    const days = { ...newRule('date'), from: null, until: null, ...over } as Rule;
    expect(ruleTakes(days, { ...names, field: (key) => key })).toBe(said);
  });
  it('offers every part for changing', () =>
    expect(ruleSentence(rule, names).flatMap(({ edits }) => edits ?? [])).toEqual([
      'kind',
      'catalog',
      'mayBeBlank',
      'others',
      'refusalText',
      'begins',
      'hint',
    ]));
});

describe('patternOf', () => {
  it('is matched by every example it was made of, and by nothing built otherwise', () => {
    const code = fc
      .tuple(fc.stringMatching(/^[A-Z]{1,3}$/u), fc.stringMatching(/^[0-9]{1,4}$/u))
      .map(([letters, digits]) => `${letters}-${digits}`);
    fc.assert(
      fc.property(fc.array(code, { minLength: 1, maxLength: 6 }), (examples) => {
        const pattern = patternOf(examples)!;
        const field: JudgedField = {
          heading: 'Code',
          kind: 'text',
          rule: { ...newRule('pattern'), kind: 'pattern', pattern, examples } as JudgedField['rule'],
        };
        for (const example of examples) expect(judge(field, { typed: example }, { locale: houseLocale, catalogs }).verdict).toBe('taken');
        expect(judge(field, { typed: `${examples[0]!}x` }, { locale: houseLocale, catalogs })).toMatchObject({ code: 'pattern' });
      }),
    );
  });
  it('is none for examples that are not built alike, and reads no pattern that could run away', () => {
    expect(patternOf(['AB-1', '12'])).toBeUndefined();
    expect(
      [patternFault('(a+)+$'), patternFault('(?=a)b'), patternFault('[a-'), patternFault('')].map((fault) => fault === undefined),
    ).toEqual([true, false, false, false]);
    const evil: JudgedField = {
      heading: 'Code',
      kind: 'text',
      rule: { ...newRule('pattern'), kind: 'pattern', pattern: '(a+)+$', examples: [] } as JudgedField['rule'],
    };
    expect(judge(evil, { typed: `${'a'.repeat(400)}!` }, { locale: houseLocale, catalogs })).toMatchObject({ code: 'pattern' });
  });
});

describe('other values', () => {
  it('are asked about once, stored marked, and stay outside', () => {
    const asked = typed('Nell', { others: 'confirm' });
    expect(asked).toMatchObject({ verdict: 'refused', code: 'outside', mayConfirm: true });
    const confirmed = judge(field({ others: 'confirm' }), { typed: 'Nell' }, { locale: houseLocale, catalogs, confirmed: true });
    expect(confirmed).toMatchObject({ verdict: 'marked', value: 'Nell', code: 'outside' });
    expect(stands(field({ others: 'confirm' }), 'Nell', { locale: houseLocale, catalogs }).right).toBe(false);
  });
  it('that are no value of the kind are refused, whatever the rule says', () => {
    for (const others of ['accept', 'confirm'] as const)
      expect(
        judge({ ...field({ others }), kind: 'date' }, { typed: 'someday' }, { locale: houseLocale, catalogs, confirmed: true }),
      ).toMatchObject({ code: 'wrong kind' });
  });
});

describe('dates', () => {
  const arrival = { key: 'arrival', heading: 'Arrival', kind: 'date' } as const;
  const departure: JudgedField = {
    heading: 'Departure',
    kind: 'date',
    rule: {
      ...newRule('date'),
      kind: 'date',
      from: { of: 'field', field: 'arrival', plus: 1 },
      until: { of: 'today', plus: 7 },
    } as JudgedField['rule'],
  };
  const at = (text: string, entry?: Record<string, string>) =>
    judge(departure, { typed: text }, { locale: houseLocale, catalogs, today: '2026-11-25', fields: [arrival], ...(entry && { entry }) });
  it('are measured by another field and by today', () => {
    expect(at('25.11.2026', { arrival: '2026-11-25' })).toMatchObject({
      code: 'too early',
      message: 'Departure must not be before 1 day after Arrival (26.11.2026).',
    });
    expect(at('26.11.2026', { arrival: '2026-11-25' })).toEqual({ verdict: 'taken', value: '2026-11-26' });
    expect(at('+8')).toMatchObject({ code: 'too late' });
    expect(at('tomorrow')).toEqual({ verdict: 'taken', value: '2026-11-26' });
    expect(at('−1')).toEqual({ verdict: 'taken', value: '2026-11-24' });
  });
  it('that were right on their day stay right', () => {
    const standing = (value: string, entry: Record<string, string>) =>
      stands(departure, value, { locale: houseLocale, catalogs, today: '2026-11-25', fields: [arrival], entry });
    expect(standing('2027-12-01', { arrival: '2027-11-01' }).right).toBe(true);
    expect(standing('2026-11-01', { arrival: '2026-11-01' })).toMatchObject({ right: false, code: 'too early' });
  });
});

describe('faults and beginnings', () => {
  it('say what can never be met', () => {
    const faultsOf = (rule: JudgedField['rule'], kind: JudgedField['kind'] = 'text') =>
      ruleFaults(rule!, { heading: 'F', kind, rule }, { locale: houseLocale, catalogs, rules: new Map() }).map(({ part }) => part);
    expect(faultsOf({ ...newRule('length'), kind: 'length', least: 5, most: 4 } as JudgedField['rule'])).toEqual(['bounds']);
    expect(faultsOf({ ...newRule('typed'), kind: 'typed', values: [] } as JudgedField['rule'])).toEqual(['values']);
    expect(faultsOf({ ...rule, catalogId: 'none' })).toEqual(['catalog']);
    expect(faultsOf({ ...newRule('date') }, 'text')).toEqual(['kind']);
    expect(faultsOf({ ...rule, begins: { with: 'value', value: 'Nowhere' } })).toEqual(['begins']);
    expect(faultsOf({ ...rule, begins: { with: 'value', value: 'Heron Mole' } })).toEqual([]);
  });
  it('fill the cells of a new entry', () => {
    const made = (key: string, kind: JudgedField['kind'], begins: CatalogRule['begins']) => ({
      key,
      heading: key,
      kind,
      rule: { ...newRule('plain'), begins } as JudgedField['rule'],
    });
    const fields = [
      made('day', 'date', { with: 'today', value: '' }),
      made('shift', 'text', { with: 'above', value: '' }),
      made('state', 'text', { with: 'value', value: 'open' }),
      made('rest', 'text', { with: 'empty', value: '' }),
    ];
    expect(cellsOfNew(fields, { shift: 'night', rest: 'x' }, '2026-11-25')).toEqual({ day: '2026-11-25', shift: 'night', state: 'open' });
    expect(cellsOfNew(fields, undefined, '2026-11-25')).toEqual({ day: '2026-11-25', state: 'open' });
  });
});
