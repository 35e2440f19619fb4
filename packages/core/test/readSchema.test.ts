// Schemas that are read, against a validator that knows nothing of Dellum: the rules take what the schema takes. They are written as others
// write them, after the standard (JSON Schema 2020-12).
import {
  blankIsWrong,
  compileCatalog,
  houseLocale,
  partFaults,
  schemaOf,
  schemaParts,
  settle,
  storedFor,
  givenByPlain,
  type Item,
  type SchemaParts,
  type Edit,
} from '@dellum/core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const locale = houseLocale;
const today = '2026-12-01';
const read = (schema: unknown): SchemaParts => {
  let made = 0;
  const found = schemaParts(schema, () => `id ${made++}`)!;
  expect(partFaults(found.parts)).toEqual([]);
  return found;
};
const compiled = (schema: object) =>
  new Ajv2020({ strict: false, allowUnionTypes: true, formats: { date: /^\d{4}-\d{2}-\d{2}$/u } }).compile(schema);

/** The sheet that was read, with its catalogs as their source sheet has them. */
function houseOf({ parts, rows }: SchemaParts) {
  const { fields } = parts.sheets[0]!.registers[0]!;
  const catalogs = parts.catalogs.map(({ id, title, definition, kept }) => {
    const [part] = definition.parts;
    const range = parts.ranges.find((one) => part?.kind === 'range' && one.id === part.rangeId)!;
    const [{ registerId, fields: levels }] = range.stretches as readonly [(typeof range.stretches)[0]];
    const items = new Map<string, Item>();
    for (const cells of rows.get(registerId)!) {
      const all = levels.flatMap((key) => cells[key] ?? []);
      for (let level = 0; level < all.length; level++) {
        const [path, value] = [all.slice(0, level), all[level]!];
        const label = kept.find((one) => one.value === value && one.path.join() === path.join())?.label ?? value;
        items.set(JSON.stringify([...path, value]), { value, path, label, otherNames: [], state: 'offered', from: [] });
      }
    }
    return compileCatalog(id, title, [...items.values()]);
  });
  return { fields, context: { catalogs: new Map(catalogs.map((one) => [one.id, one])), locale, today } };
}

type Row = Readonly<Record<string, unknown>>;
/** Whether each value of a row is stored as what it says it is, and nothing is missing. */
function takes({ fields, context }: ReturnType<typeof houseOf>, row: Row): boolean {
  const given = fields.flatMap((field) =>
    row[field.key] === undefined ? [] : [{ field, plain: givenByPlain(field, row[field.key], context) }],
  );
  if (given.some(({ plain }) => 'fault' in plain)) return false;
  const edits = given.map(({ field, plain }): Edit => ({ entry: 'e', field: field.key, ...('fault' in plain ? { typed: '' } : plain) }));
  const { verdicts, entries } = settle(fields, new Map([['e', {}]]), edits, { ...context, fields, carries: [] });
  const cells = entries.get('e')?.cells ?? {};
  return (
    verdicts.every(({ verdict }) => verdict === 'taken') &&
    given.every(({ field }) => cells[field.key] === storedFor(field.kind, row[field.key]) && cells[field.key] !== '') &&
    fields.every((field) => !blankIsWrong(field) || (cells[field.key] ?? '') !== '')
  );
}

const words = ['alder', 'birch', 'cedar', 'a, b', 'North 1', '7'];
const subset = fc.subarray(words, { minLength: 1 });
const described = fc.constantFrom({}, { description: 'As it stands on the label.' });
/** What a property may be, as people write it. */
const property = fc.oneof(
  fc.constantFrom<object>({ type: 'string' }, { type: 'boolean' }, { type: 'string', format: 'date' }, { type: 'number' }),
  subset.map((values) => ({ type: 'string', enum: values })),
  subset.map((values) => ({ oneOf: values.map((value) => ({ const: value })) })),
  subset.map((values) => ({ type: 'array', items: { type: 'string', enum: values }, uniqueItems: true, minItems: 1 })),
  fc.constantFrom<object>(
    { $ref: '#/$defs/tree' },
    { allOf: [{ $ref: '#/$defs/a~1b' }] },
    { type: 'array', items: { $ref: '#/$defs/tree' }, uniqueItems: true, minItems: 1 },
  ),
  fc.record({ type: fc.constant('integer'), minimum: fc.integer({ min: -3, max: 3 }), exclusiveMaximum: fc.integer({ min: 4, max: 9 }) }),
  fc.record({ type: fc.constant('number'), minimum: fc.constantFrom(0, 0.5), maximum: fc.constantFrom(5, 7.25) }),
  fc.constantFrom<object>({ type: 'number', multipleOf: 0.5, minimum: 0 }, { type: 'number', enum: [1, 2.5, 40] }),
  fc.record({ type: fc.constant('string'), minLength: fc.constantFrom(1, 2, 5), maxLength: fc.constantFrom(5, 6) }),
  fc.constantFrom('^[a-z]+$', 'e', '^a|r$', '^(?:North|7).*$', '^\\u0061.*$').map((pattern) => ({ type: 'string', minLength: 1, pattern })),
);
const properties = ['one', 'two', 'three'];
const schemas = fc
  .record({ held: fc.tuple(property, property, property), more: described, required: fc.subarray(properties) })
  .map(({ held, more, required }) => ({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Samples',
    type: 'object',
    properties: Object.fromEntries(held.map((one, at) => [properties[at]!, { ...one, ...more }])),
    required,
    $defs: { tree: { title: 'Trees', enum: ['alder', 'birch', 'cedar', 'yew'] }, 'a/b': { type: 'string', maxLength: 6, minLength: 1 } },
  }));
const value = fc.constantFrom<unknown>(
  ...[...words, 'yew', 'Birch', 'elm', 'a', '2026-12-01', '1', ''],
  ...[0, 1, 2.5, 0.5, 4, 7.25, 8, -3, 40, true, false],
  ...[['alder'], ['a, b', 'cedar'], ['elm'], ['alder', 'alder']],
);
const rows = fc.record(Object.fromEntries(properties.map((name) => [name, value])), { requiredKeys: [] });

/** What the rule of a step says is left out is none of it. */
const withoutSteps = (schema: object) => JSON.parse(JSON.stringify(schema).replaceAll('"multipleOf":0.5,', '')) as object;

describe('A schema of somebody else', () => {
  it('makes rules that take what it takes', () => {
    fc.assert(
      fc.property(schemas, rows, (schema, row) => {
        const house = houseOf(read(schema));
        // A number may come as its text, which JSON may not be able to hold otherwise.
        if (house.fields.some(({ key, kind }) => kind === 'number' && typeof row[key] === 'string')) return;
        expect(takes(house, row)).toBe(compiled(withoutSteps(schema))(row));
      }),
      { numRuns: 300 },
    );
  });

  const quays = { North: ['N1', 'N2'], South: ['S1', 'N2'] };
  const asIf = Object.entries(quays).map(([quay, berths]) => ({
    if: { properties: { quay: { const: quay } }, required: ['quay'] },
    then: { properties: { berth: { enum: berths } } },
  }));
  const asChoices = Object.entries(quays).map(([quay, berths]) => ({ properties: { quay: { const: quay }, berth: { enum: berths } } }));
  const side = {
    if: { properties: { quay: { const: 'South' }, berth: { const: 'S1' } } },
    then: { properties: { side: { enum: ['left', 'right'] } } },
  };
  const visit = {
    type: 'object',
    properties: { quay: { type: 'string', enum: ['North', 'South', 'Bare'] }, berth: { type: 'string' }, side: { type: 'string' } },
  };

  it.each([
    ['if and then', { ...visit, allOf: [...asIf, side] }],
    ['choices', { ...visit, dependentSchemas: { quay: { oneOf: asChoices } }, allOf: [side] }],
  ])('makes a list of levels of what depends on one another, said by %s', (_, schema) => {
    const { parts, rows: laid, said } = read(schema);
    expect(said).toEqual([
      '“berth”: it is not said what it may be under 1 value of “quay”; nothing is offered there.',
      '“side”: it is not said what it may be under 3 values of “berth”; nothing is offered there.',
    ]);
    expect(parts.catalogs.map(({ title }) => title)).toEqual(['side']);
    expect([...laid.values()].flat().map((cells) => Object.values(cells).join(' '))).toEqual([
      'Bare',
      'North N1',
      'North N2',
      'South N2',
      'South S1 left',
      'South S1 right',
    ]);
    const house = houseOf({ parts, rows: laid, said });
    const given = ['North', 'South', 'Bare'].flatMap((quay) => ['N1', 'N2', 'S1'].map((berth) => ({ quay, berth })));
    expect(given.filter((row) => takes(house, row)).map(({ quay, berth }) => `${quay} ${berth}`)).toEqual([
      'North N1',
      'North N2',
      'South N2',
      'South S1',
    ]);
    expect(takes(house, { quay: 'South', berth: 'S1', side: 'left' })).toBe(true);
    expect(takes(house, { quay: 'South', berth: 'N2', side: 'left' })).toBe(false);
  });

  it('takes under each value what it takes, also where it says nothing of a field, or that it holds nothing', () => {
    const berths = ['1', '2', '3'];
    const under = fc.option(
      fc.oneof(
        fc.subarray(berths, { minLength: 1 }).map((held) => ({ enum: held })),
        fc.constant(false),
      ),
    );
    const row = fc.record(
      { quay: fc.constantFrom('N', 'S', 'E', 'W'), berth: fc.constantFrom(...berths, '4') },
      { requiredKeys: ['quay'] },
    );
    fc.assert(
      fc.property(fc.tuple(under, under, under), row, (all, held) => {
        const said = all.flatMap((berth, at) =>
          berth === null ? [] : [{ if: { properties: { quay: { const: 'NSE'[at] } } }, then: { properties: { berth } } }],
        );
        const schema = {
          type: 'object',
          properties: { quay: { enum: ['N', 'S', 'E'] }, berth: { type: 'string', enum: berths } },
          ...(said.length > 0 && { allOf: said }),
        };
        const found = read(schema);
        expect(found.said).toEqual([]);
        expect(takes(houseOf(found), held)).toBe(compiled(schema)(held));
      }),
      { numRuns: 200 },
    );
  });

  it('makes a list of many values, of values that are called otherwise, and of what several fields choose from', () => {
    const many = Array.from({ length: 13 }, (_, at) => `value ${at}`);
    const { parts, rows: laid } = read({
      properties: {
        few: { enum: ['a', 'b'] },
        many: { enum: many, title: 'Of many' },
        named: {
          oneOf: [
            { const: 'L', title: 'left' },
            { const: 'R', title: 'right' },
          ],
        },
        from: { $ref: '#/$defs/place' },
        to: { $ref: '#/$defs/place' },
      },
      $defs: { place: { title: 'Places', enum: ['North', 'South', 'north', ' ', null] } },
    });
    expect(parts.catalogs.map(({ title, kept }) => [title, kept.map(({ value, label }) => [value, label])])).toEqual([
      ['Of many', []],
      [
        'named',
        [
          ['L', 'left'],
          ['R', 'right'],
        ],
      ],
      ['Places', []],
    ]);
    expect([...laid.values()].map((all) => all.map(({ value: held }) => held))).toEqual([many, ['L', 'R'], ['North', 'South']]);
    const catalogOf = (key: string) => {
      const { rule } = parts.sheets[0]!.registers[0]!.fields.find((field) => field.key === key)!;
      return rule?.kind === 'catalog' ? parts.catalogs.find(({ id }) => id === rule.catalogId)!.title : rule?.kind;
    };
    expect(['few', 'many', 'named', 'from', 'to'].map(catalogOf)).toEqual(['typed', 'Of many', 'named', 'Places', 'Places']);
  });

  it('says what of it is left out, follows nothing, and never runs in a circle', () => {
    const { parts, said } = read({
      title: ' Visits ',
      description: 'For the office.',
      $ref: '#/$defs/visit',
      not: { required: ['who', 'place'] },
      dependentRequired: { who: ['place'] },
      $defs: {
        visit: {
          type: 'object',
          properties: {
            who: { $ref: 'https://elsewhere.example/person.json' },
            place: { type: 'object', properties: {} },
            code: { type: 'string', pattern: '^(?=x)x$' },
            step: { type: 'number', multipleOf: 3, exclusiveMinimum: 0 },
            loop: { $ref: '#/$defs/loop' },
            kept: { type: ['string', 'null'], default: 'as ever', description: 'What was agreed.', readOnly: true },
            either: { anyOf: [{ type: 'integer' }, { type: 'null' }] },
            ['constructor']: { type: 'string' },
            tags: { type: 'array', items: { type: 'string', pattern: '^x' } },
          },
          required: ['kept', 'either', 'code'],
        },
        loop: { allOf: [{ $ref: '#/$defs/loop' }] },
      },
      allOf: [
        { if: { properties: { code: { const: 'x' } } }, then: { properties: { loop: { enum: ['y'] } } } },
        { if: { properties: { loop: { const: 'y' } } }, then: { properties: { code: { enum: ['x'] } } } },
      ],
    });
    expect(said).toEqual([
      '“who”: what is said of it elsewhere (https://elsewhere.example/person.json) is not asked.',
      '“place” is made of several members there; it is kept as a text.',
      '“code”: its pattern (^(?=x)x$) is none that is understood here, and is left out.',
      '“step”: that it goes in steps of 3 is left out.',
      '“step”: 0 itself is taken, too.',
      '“tags”: how each of its values must be written is left out.',
      '“code”: what it may be by what other fields hold is left out.',
      '“loop”: what it may be by what other fields hold is left out.',
      'What the schema says of whole entries by “not”, “dependentRequired” is left out.',
    ]);
    const [sheet] = parts.sheets;
    expect([sheet!.title, sheet!.note]).toEqual(['Visits', 'For the office.']);
    expect(sheet!.registers[0]!.fields.map(({ key, kind, rule }) => [key, kind, rule?.kind, rule?.mayBeBlank])).toEqual([
      ['who', 'text', undefined, undefined],
      ['place', 'text', undefined, undefined],
      ['code', 'text', 'plain', false],
      ['step', 'number', 'number', true],
      ['loop', 'text', undefined, undefined],
      ['kept', 'text', 'plain', true],
      ['either', 'number', 'number', true],
      ['constructor_2', 'text', undefined, undefined],
      ['tags', 'several values', undefined, undefined],
    ]);
    expect(sheet!.registers[0]!.fields[5]!.rule).toMatchObject({
      begins: { with: 'value', value: 'as ever' },
      hint: 'What was agreed.',
      readOnly: true,
    });
  });

  it('never takes long, whatever points at what, and however many values lie under one another', () => {
    const twice = Object.fromEntries(
      Array.from({ length: 300 }, (_, at) => [`d${at}`, { allOf: [1, 2, 3].map(() => ({ $ref: `#/$defs/d${at + 1}` })) }]),
    );
    const values = (letter: string) => Array.from({ length: 3000 }, (_, at) => `${letter}${at}`);
    const under = (when: object, child: string, allowed: readonly string[]) => ({
      if: { properties: when },
      then: { properties: { [child]: { enum: allowed } } },
    });
    const { parts } = read({
      properties: { quay: { enum: values('q') }, berth: { type: 'string' }, side: { type: 'string' }, loop: { $ref: '#/$defs/d0' } },
      $defs: twice,
      // Of 3,000 quays each has one berth of the same name, which has 3,000 sides.
      allOf: [
        ...values('q').map((quay) => under({ quay: { const: quay } }, 'berth', ['b'])),
        under({ berth: { const: 'b' } }, 'side', values('s')),
      ],
    });
    expect(parts.sheets[0]!.registers[0]!.fields).toHaveLength(4);
  });

  it.each([[null], ['text'], [[]], [{ type: 'string' }], [{ properties: {} }], [{ properties: [] }]])('is none: %j', (held) => {
    expect(schemaParts(held, () => 'id')).toBeUndefined();
  });
});

describe('The schema of a sheet', () => {
  it('comes back as it went out: another sheet with the same schema takes the same', () => {
    fc.assert(
      fc.property(schemas, rows, (schema, row) => {
        const { fields, context } = houseOf(read(schema));
        const out = schemaOf('Samples', fields, context);
        const again = houseOf(read(JSON.parse(JSON.stringify(out))));
        expect(again.fields.map(({ key, heading, kind, rule }) => [key, heading, kind, rule?.mayBeBlank ?? true])).toEqual(
          fields.map(({ key, heading, kind, rule }) => [key, heading, kind, rule?.mayBeBlank ?? true]),
        );
        expect(compiled(schemaOf('Samples', again.fields, again.context))(row)).toBe(compiled(out)(row));
      }),
      { numRuns: 80 },
    );
  });
});
