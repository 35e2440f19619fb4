// Forms: what is hidden is not stored, conditions that can never hold are found exactly, and no second judge.
import {
  addSection,
  comparisons,
  compileCatalog,
  controlsFor,
  houseLocale,
  judge,
  judgeForm,
  layoutFindings,
  moveSection,
  newLayout,
  newRule,
  passes,
  placeField,
  shownIn,
  takeOut,
  type CascadeField,
  type CatalogRule,
  type Comparison,
  type Filter,
  type FormField,
  type FormLayout,
  type Item,
  type Rule,
  type FormAnswers,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeCases, tableField } from './judgeTable.js';

const item = (value: string, path: string[] = []): Item => ({ value, path, label: value, otherNames: [], state: 'offered', from: [] });
const berths = compileCatalog('berths', 'Berths', [
  item('North'),
  item('South'),
  item('N1', ['North']),
  item('N2', ['North']),
  item('S1', ['South']),
]);
const catalogs = new Map([['berths', berths]]);
const context = { locale: houseLocale, catalogs, today: '2026-11-25', begins: {} };
const typed = (key: string, values: readonly string[], over: Partial<Rule> = {}): CascadeField => ({
  key,
  heading: key,
  kind: 'text',
  rule: { ...newRule('typed'), values, ...over } as Rule,
});
const bound = (key: string, over: Partial<CatalogRule>): CascadeField => ({
  key,
  heading: key,
  kind: 'text',
  rule: { ...newRule('catalog'), catalogId: 'berths', ...over },
});
const ask = (field: string, over: Partial<FormField> = {}): FormField => ({
  field,
  help: '',
  control: null,
  wide: false,
  begins: null,
  where: null,
  ...over,
});
const layout = (...fields: FormField[]): FormLayout => ({
  intro: '',
  thanks: '',
  sections: [{ id: 's', heading: '', help: '', columns: 1, where: null, fields }],
});
const answers = (texts: Record<string, string>, confirmed: string[] = []): FormAnswers => ({
  given: Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, { typed: text }])),
  confirmed: new Set(confirmed),
});
const where = (field: string, is: Comparison, value = ''): Filter => ({ all: true, conditions: [{ field, is, value }] });

const quay = bound('quay', { level: 0 });
const berth = bound('berth', { level: 1, parents: ['quay'] });
const letters = ['a', 'b', 'c'];
const [one, two, three] = [typed('one', letters), typed('two', letters), typed('three', letters)];
const fields = [one, two, three];
const ships = compileCatalog(
  'ships',
  'Ships',
  letters.map((value) => ({ ...item(value), companions: { mark: value } })),
);
catalogs.set('ships', ships);
const ship = bound('ship', { catalogId: 'ships', level: null, brings: [{ companion: 'mark', field: 'two' }] });

describe('judgeForm', () => {
  it('says of every case of the judge table what the judge says', () => {
    for (const { field: key, text } of judgeCases) {
      const field = { ...tableField(key).field, key };
      const about = tableField(key).context;
      const { verdicts } = judgeForm(layout(ask(key)), [field], answers({ [key]: text }), { ...about, begins: {} });
      expect([key, text, verdicts.get(key)]).toEqual([
        key,
        text,
        judge(field, { typed: text }, { ...about, entry: {}, fields: [field], answering: true, confirmed: false }),
      ]);
    }
  });

  it('stores no hidden field, and shows exactly what the stored entry shows', () => {
    const condition = fc.record({
      field: fc.constantFrom('ship', 'one', 'two', 'three'),
      is: fc.constantFrom<Comparison>('is', 'is not', 'is blank', 'is filled'),
      value: fc.constantFrom(...letters),
    });
    const filter = fc.option(fc.record({ all: fc.boolean(), conditions: fc.array(condition, { minLength: 1, maxLength: 2 }) }));
    const text = fc.constantFrom('', 'a', 'b', 'c', 'x');
    fc.assert(
      fc.property(fc.tuple(filter, filter, filter, filter), fc.tuple(text, text, text, text), (filters, texts) => {
        // What is chosen in the first brings a value into the third.
        const all = [ship, ...fields];
        const form = layout(...all.map(({ key }, at) => ask(key, { where: filters[at]! })));
        const typedIn = Object.fromEntries(all.map(({ key }, at) => [key, texts[at]!]));
        const { cells, shown, verdicts } = judgeForm(form, all, answers(typedIn), context);
        expect(Object.keys(cells).every((key) => shown.has(key))).toBe(true);
        expect([...verdicts.keys()]).toEqual(all.map(({ key }) => key).filter((key) => shown.has(key)));
        const round = layoutFindings(form, { ...context, fields: all }).some(({ what }) => what === 'goes round');
        if (!round) expect([...shown]).toEqual([...shownIn(form, cells)]);
      }),
    );
  });

  it('passes over a field that the register has no more, and asks all others as without it', () => {
    const form = (...more: FormField[]) => layout(ask('one'), ...more, ask('two', { where: where('one', 'is', 'a') }));
    const given = answers({ one: 'a', two: 'b', gone: 'x' });
    const { cells, shown, verdicts } = judgeForm(form(ask('gone')), fields, given, context);
    expect([cells, [...shown], [...verdicts.keys()]]).toEqual([{ one: 'a', two: 'b' }, ['one', 'two'], ['one', 'two']]);
    expect(judgeForm(form(), fields, given, context).cells).toEqual(cells);
  });

  it('judges parents first in whatever order they are asked, brings along, and wants what must not be blank', () => {
    const must = bound('berth', { level: 1, parents: ['quay'], mayBeBlank: false });
    const form = layout(ask('berth'), ask('quay'));
    expect(judgeForm(form, [quay, must], answers({ berth: 'n1', quay: 'north' }), context).cells).toEqual({ quay: 'North', berth: 'N1' });
    expect(judgeForm(form, [quay, must], answers({ quay: 'North' }), context).verdicts.get('berth')).toMatchObject({
      verdict: 'refused',
      code: 'blank',
    });
    expect(judgeForm(form, [quay, must], answers({ quay: 'South', berth: 'N1' }), context).verdicts.get('berth')).toMatchObject({
      verdict: 'refused',
      code: 'not under parent',
    });
    const upward = bound('berth', { level: 1, parents: ['quay'], blankParent: 'all' });
    expect(judgeForm(form, [quay, upward], answers({ berth: 'S1' }), context).cells).toEqual({ quay: 'South', berth: 'S1' });
  });

  it('keeps what the form does not ask as a new entry begins, and stores what is meant once that is said', () => {
    const loose = typed('one', letters, { others: 'confirm' });
    const form = layout(ask('one'));
    expect(judgeForm(form, [loose, two], answers({ one: 'x' }), { ...context, begins: { two: 'b' } }).verdicts.get('one')).toMatchObject({
      verdict: 'refused',
      mayConfirm: true,
    });
    expect(judgeForm(form, [loose, two], answers({ one: 'x' }, ['one']), { ...context, begins: { two: 'b' } }).cells).toEqual({
      one: 'x',
      two: 'b',
    });
  });
});

describe('laying out', () => {
  it('asks every field once, moves only what is moved, and loses nothing but what is taken out', () => {
    const keys = ['one', 'two', 'three', 'four'];
    const act = fc.oneof(
      fc.record({
        act: fc.constant('place' as const),
        field: fc.constantFrom(...keys),
        section: fc.constantFrom('s', 't', 'gone'),
        before: fc.option(fc.constantFrom(...keys)),
      }),
      fc.record({ act: fc.constant('out' as const), field: fc.constantFrom(...keys) }),
      fc.record({ act: fc.constant('section' as const), by: fc.integer({ min: -3, max: 3 }) }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
        let form = addSection(layout(ask('one', { help: 'first' }), ask('two')), 't', 'More');
        for (const one of acts) {
          const before = form;
          const asked = (of: FormLayout) => of.sections.flatMap(({ fields: own }) => own.map(({ field }) => field));
          if (one.act === 'place') form = placeField(form, one.field, one.section, one.before);
          else if (one.act === 'out') form = takeOut(form, one.field);
          else form = moveSection(form, 't', one.by);
          expect(new Set(asked(form)).size).toBe(asked(form).length);
          if (one.act !== 'section') {
            const others = (of: FormLayout) =>
              of.sections.map(({ fields: own }) => own.map(({ field }) => field).filter((field) => field !== one.field));
            expect(others(form)).toEqual(others(before));
          }
        }
        const first = form.sections.flatMap(({ fields: own }) => own).find(({ field }) => field === 'one');
        if (first && !acts.some((one) => one.act === 'out' && one.field === 'one')) expect(first.help).toBe('first');
      }),
    );
  });
});

describe('layoutFindings', () => {
  const found = (form: FormLayout, over: readonly CascadeField[] = fields) =>
    layoutFindings(form, { ...context, fields: over }).map(({ what, field }) => (field ? `${what}: ${field}` : what));

  it('finds that a condition never holds exactly when no answer meets it', () => {
    const condition = fc.record({
      field: fc.constantFrom('one', 'two'),
      is: fc.constantFrom(...comparisons),
      value: fc.constantFrom(...letters, 'x', 'ab'),
    });
    const filter = fc.record({ all: fc.constant(true), conditions: fc.array(condition, { minLength: 1, maxLength: 4 }) });
    fc.assert(
      fc.property(filter, (given) => {
        const held = ['', ...letters];
        const can = held.some((first) => held.some((second) => passes(given, (key) => (key === 'one' ? first : second))));
        const form = layout(ask('one'), ask('two'), ask('three', { where: given }));
        expect(found(form).includes('never holds: three')).toBe(!can);
      }),
      { numRuns: 500 },
    );
  });

  it('names a child before its parent, a parent that is not asked, and what is required and never reached', () => {
    const form = (...asked: string[]) => layout(...asked.map((key) => ask(key)));
    expect(found(form('berth', 'quay'), [quay, berth])).toEqual(['child first: berth']);
    expect(found(form('berth'), [quay, berth])).toEqual(['parent not asked: berth']);
    expect(found(form('quay', 'berth'), [quay, berth])).toEqual([]);
    expect(found(newLayout([berth, quay]), [quay, berth])).toEqual([]);
    const must = typed('two', letters, { mayBeBlank: false });
    expect(found(form('one'), [one, must])).toEqual(['unreachable']);
    expect(found(layout(ask('one'), ask('two', { where: where('one', 'is', 'x') })), [one, must])).toEqual([
      'unreachable: two',
      'never holds: two',
    ]);
    expect(found(form('one'), [one, typed('two', letters, { mayBeBlank: false, begins: { with: 'value', value: 'a' } })])).toEqual([]);
  });

  it('names conditions that go round, lists too long for their control, and beginnings that are refused', () => {
    expect(found(layout(ask('one', { where: where('two', 'is filled') }), ask('two', { where: where('one', 'is blank') })))).toEqual([
      'goes round: one',
      'goes round: two',
    ]);
    expect(found(layout(ask('ship', { where: where('two', 'is blank') }), ask('two')), [ship, two])).toEqual(['goes round: ship']);
    const many = typed(
      'one',
      Array.from({ length: 40 }, (_, at) => `v${at}`),
    );
    expect(found(layout(ask('one', { control: 'radio buttons' })), [many])).toEqual(['list too long: one']);
    expect(found(layout(ask('one')), [many])).toEqual([]);
    expect(found(layout(ask('one', { begins: 'x' }), ask('gone'), ask('one')))).toEqual([
      'begins refused: one',
      'gone: gone',
      'twice: one',
    ]);
    expect(found({ intro: '', thanks: '', sections: [] })).toEqual(['nothing asked']);
  });

  it('lets the control follow from the rule and the length of its list', () => {
    expect(controlsFor(one, 3)[0]).toBe('radio buttons');
    expect([controlsFor(one, 12)[0], controlsFor(one, 100_000)[0]]).toEqual(['drop-down', 'picker']);
    expect(controlsFor(typed('one', letters, { others: 'request' } as Partial<Rule>), 3)).toEqual(['picker']);
    expect([
      controlsFor({ kind: 'several values', rule: one.rule }, 3)[0],
      controlsFor({ kind: 'date', rule: null }, undefined)[0],
      controlsFor({ kind: 'yes/no', rule: null }, undefined)[0],
    ]).toEqual(['check boxes', 'calendar', 'yes or no']);
  });
});
