// The schema of a register against the judge, by a validator that knows nothing of Dellum: what the judge takes as it is the schema takes,
// and of rules that a schema can say in full the other way round.
import {
  blankIsWrong,
  compileCatalog,
  houseLocale,
  isNumeric,
  judge,
  newRule,
  plainValue,
  schemaOf,
  settle,
  storedFor,
  givenByPlain,
  type CatalogRule,
  type FieldKind,
  type Rule,
  type SchemaField,
  type Edit,
  type Given,
} from '@dellum/core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { item } from './item.js';

const today = '2026-11-29';
const places = compileCatalog('places', 'Places', [
  item('North'),
  item('South'),
  item('Bare'),
  item('7', ['North']),
  item('8', ['North']),
  item('7', ['South']),
  item('9', ['South'], { state: 'retired' }),
  item('10', ['South'], { validFrom: '2030-01-01' }),
]);
const context = { catalogs: new Map([['places', places]]), locale: { ...houseLocale, decimalMark: ',' as const }, today };
const refuse = { others: 'refuse' as const };
const ofPlaces = (over: Partial<CatalogRule>): Rule => ({ ...newRule('catalog'), ...refuse, catalogId: 'places', ...over });
const fieldOf = (key: string, kind: FieldKind, rule: Rule | null): SchemaField => ({ key, heading: key, kind, rule });
const rule = <K extends Rule['kind']>(kind: K, over: Partial<Extract<Rule, { kind: K }>>): Rule =>
  ({ ...newRule(kind), ...refuse, ...over }) as Rule;

const fields: readonly SchemaField[] = [
  fieldOf('quay', 'text', ofPlaces({ level: 0, mayBeBlank: false })),
  fieldOf('berth', 'text', ofPlaces({ level: 1, parents: ['quay'] })),
  fieldOf('draught', 'number', rule('number', { least: { of: 'number', number: '0.5' }, most: { of: 'number', number: '12' } })),
  fieldOf('crew', 'number', rule('number', { decimals: 0, mayBeBlank: false })),
  fieldOf('rate', 'percent', rule('typed', { values: ['0.05', '0.19'] })),
  fieldOf('code', 'text', rule('length', { least: 2, most: 3 })),
  fieldOf('mark', 'text', rule('pattern', { pattern: '[A-Z]\\d+' })),
  fieldOf('goods', 'several values', rule('typed', { values: ['grain', 'a, b', '1'] })),
  fieldOf('paid', 'yes/no', null),
  fieldOf('day', 'date', null),
  fieldOf('word', 'text', null),
];
const schema = schemaOf('Visits', fields, context);
const validate = new Ajv2020({ strict: true, allowUnionTypes: true, formats: { date: /^\d{4}-\d{2}-\d{2}$/u } }).compile(schema);

type Row = Readonly<Record<string, unknown>>;
/** Whether every value of the row is stored as the value that it says it is, and nothing is missing. */
function takenAsItIs(row: Row): boolean {
  const given = fields.flatMap((field) =>
    row[field.key] === undefined ? [] : [{ field, plain: givenByPlain(field, row[field.key], context) }],
  );
  if (given.some(({ plain }) => 'fault' in plain)) return false;
  const edits = given.map(({ field, plain }): Edit => ({ entry: 'e', field: field.key, ...('fault' in plain ? { typed: '' } : plain) }));
  const { verdicts, entries } = settle(fields, new Map([['e', {}]]), edits, { ...context, fields, carries: [] });
  const cells = entries.get('e')!.cells;
  return (
    verdicts.every(({ verdict }) => verdict === 'taken') &&
    given.every(({ field }) => cells[field.key] === storedFor(field.kind, row[field.key]) && cells[field.key] !== '') &&
    fields.every((field) => !blankIsWrong(field) || (cells[field.key] ?? '') !== '')
  );
}

const any = fc.constantFrom<unknown>(
  ...[
    'North',
    'South',
    'Bare',
    'north',
    '7',
    '8',
    '9',
    '10',
    'AB',
    'ABC',
    'ABCD',
    'A',
    'é',
    'A12',
    'a12',
    'grain',
    'x',
    '=1',
    '1.234',
    '👩‍👩‍👧',
    '',
  ],
  ...[0, 0.5, 12, 12.5, 3, -1, 1e21, 0.05, 0.19, 5, true, false, null],
  ...[['grain'], ['a, b', '1'], ['grain', 'grain'], ['x'], [], {}, '2026-11-05', '2026-02-30', '5.11.2026'],
);
const rowOf: fc.Arbitrary<Row> = fc.record(
  {
    quay: fc.oneof({ weight: 4, arbitrary: fc.constantFrom('North', 'South', 'Bare') }, { weight: 1, arbitrary: any }),
    berth: fc.oneof({ weight: 3, arbitrary: fc.constantFrom('7', '8', '9', '10') }, { weight: 1, arbitrary: any }),
    draught: any,
    crew: fc.oneof({ weight: 3, arbitrary: fc.nat(9) }, { weight: 1, arbitrary: any }),
    rate: any,
    code: any,
    mark: any,
    goods: any,
    paid: any,
    day: any,
    word: any,
  },
  { requiredKeys: [] },
);
/** Few cells at once, so that many rows are taken. */
const rows = fc
  .tuple(rowOf, fc.uniqueArray(fc.constantFrom(...fields.map(({ key }) => key)), { maxLength: 3 }))
  .map(([row, kept]) => ({
    quay: 'North',
    crew: 4,
    ...Object.fromEntries(kept.flatMap((key) => (row[key] === undefined ? [] : [[key, row[key]]]))),
  }));

describe('the schema of a register', () => {
  it('takes what the judge takes as it is, and of these rules nothing else', () => {
    let taken = 0;
    fc.assert(
      fc.property(rows, (row: Row) => {
        const isTaken = takenAsItIs(row);
        taken += isTaken ? 1 : 0;
        // Left to the check: a day that the calendar does not have, a blank, characters of several code points.
        const isLeft = (value: unknown) =>
          value === '2026-02-30' || value === '' || value === '👩‍👩‍👧' || (Array.isArray(value) && value.length === 0);
        const cannotBeSaid = Object.values(row).some(isLeft);
        // A number may come as its text, which JSON may not be able to hold otherwise.
        if (fields.some(({ key, kind }) => isNumeric(kind) && typeof row[key] === 'string')) return;
        if (isTaken || !cannotBeSaid) expect([row, validate(row)]).toEqual([row, isTaken]);
      }),
      { numRuns: 4000 },
    );
    expect(taken).toBeGreaterThan(300);
  });
  it('says nothing of values that are taken after a question, nor of those that are there in some entries only', () => {
    const loose = fields.map((field) => ({ ...field, rule: field.rule && { ...field.rule, others: 'confirm' as const } }));
    const properties = schemaOf('Visits', loose, context)['properties'] as Record<string, object>;
    expect(properties['quay']).toEqual({ title: 'quay', type: 'string' });
    const where = { all: true, conditions: [{ field: 'word', is: 'is' as const, value: 'x' }] };
    const some = schemaOf('Visits', [{ ...fields[0]!, rule: { ...fields[0]!.rule!, where } }], context);
    expect(some['required']).toEqual([]);
  });
  it('names a long list once, whoever takes from it', () => {
    const twice = schemaOf('Visits', [fields[0]!, { ...fields[0]!, key: 'from', heading: 'From' }], context);
    expect(Object.values(twice['$defs'] as object)).toEqual([{ title: 'Places', enum: ['North', 'South', 'Bare'] }]);
  });
});

describe('a value of another program', () => {
  it('is the value that it was read as', () => {
    const decimal = fc.tuple(fc.integer(), fc.nat(6)).map(([digits, places]) => String(digits / 10 ** places));
    const stored = fc.oneof(
      decimal.filter((text) => !text.includes('e')).map((value) => ['number', value] as const),
      fc.constantFrom('yes', 'no').map((value) => ['yes/no', value] as const),
      fc
        .uniqueArray(
          fc.string({ minLength: 1 }).filter((text) => text.trim() !== '' && !text.includes('\u001F')),
          { minLength: 1 },
        )
        .map((values) => ['several values', values.join('\u001F')] as const),
      fc.string({ minLength: 1 }).map((value) => ['text', value] as const),
    );
    fc.assert(
      fc.property(stored, ([kind, value]) => {
        const plain: unknown = JSON.parse(JSON.stringify(plainValue(kind, value)));
        expect(storedFor(kind, plain)).toBe(value);
      }),
    );
  });
  it('is judged as what it is, never as somebody of the house would have typed it', () => {
    const number = fieldOf('draught', 'number', null);
    for (const [plain, stored] of [
      [1.234, '1.234'],
      ['1.234', '1.234'],
      [-7, '-7'],
    ] as const) {
      expect(judge(number, givenByPlain(number, plain, context) as Given, context)).toMatchObject({ verdict: 'taken', value: stored });
    }
    for (const plain of ['1,234', '1e3', ' 5', 'x', true, ['5'], {}, 1e21])
      expect(givenByPlain(number, plain, context)).toHaveProperty('fault');
    expect(givenByPlain(fieldOf('day', 'date', null), '5.11.2026', context)).toHaveProperty('fault');
  });
});
