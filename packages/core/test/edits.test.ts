// Settling: the same edits come out the same however they are ordered, and as a form takes them.
import {
  compileCatalog,
  houseLocale,
  inReadingOrder,
  judge,
  judgeForm,
  newRule,
  settle,
  stands,
  type CascadeField,
  type CatalogRule,
  type Cells,
  type Edit,
  type EditContext,
  type FormLayout,
  type Item,
  type Rule,
  type Verdict,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const item = (value: string, path: readonly string[] = [], companions?: Readonly<Record<string, string>>): Item => ({
  value,
  path,
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...(companions && { companions }),
});
const goods = compileCatalog('goods', 'Goods', [
  item('Fruit'),
  item('Fish'),
  item('Apple', ['Fruit'], { unit: 'box' }),
  item('Pear', ['Fruit'], { unit: 'crate' }),
  item('Cod', ['Fish'], { unit: 'tub' }),
]);
const ofGoods = (level: number, over: Partial<CatalogRule> = {}): Rule => ({ ...newRule('catalog'), catalogId: 'goods', level, ...over });
const field = (key: string, kind: CascadeField['kind'], rule: Rule | null = null): CascadeField => ({ key, heading: key, kind, rule });

// Each stands left of what it reads, so that the order of the sheet is the wrong one.
const fields: readonly CascadeField[] = [
  field('departure', 'date', { ...newRule('date'), from: { of: 'field', field: 'arrival', plus: 0 } }),
  field('arrival', 'date'),
  field('unit', 'text'),
  field('article', 'text', ofGoods(1, { parents: ['group'], brings: [{ companion: 'unit', field: 'unit' }] })),
  field('group', 'text', ofGoods(0)),
  field('least', 'number', { ...newRule('number'), most: { of: 'field', field: 'most' } }),
  field('most', 'number'),
];
const judged = { locale: houseLocale, catalogs: new Map([['goods', goods]]), today: '2026-11-28', fields };
const context: EditContext = judged;
const one = (cells: Cells, texts: Readonly<Record<string, string>>, over: Partial<EditContext> = {}) => {
  const edits = Object.entries(texts).map(([key, text]): Edit => ({ entry: 'e', field: key, typed: text }));
  const { verdicts, entries } = settle(fields, new Map([['e', cells]]), edits, { ...context, ...over });
  // Without any edit the entry is as it was.
  return {
    plan: entries.get('e') ?? { cells, cleared: [], kept: [], filled: [] },
    verdicts: Object.fromEntries(edits.map((edit, at) => [edit.field, verdicts[at]!])) as Record<string, Verdict>,
  };
};

const texts = fc.record(
  {
    departure: fc.constantFrom('1.11.2026', '5.11.2026', ''),
    arrival: fc.constantFrom('2.11.2026', '5.11.2026', 'soon', ''),
    unit: fc.constantFrom('sack', ''),
    article: fc.constantFrom('apple', 'Cod', 'Stone', ''),
    group: fc.constantFrom('fruit', 'Fish', ''),
    least: fc.constantFrom('1', '9', 'x'),
    most: fc.constantFrom('5', '10', ''),
  },
  { requiredKeys: [] },
);
const standing = fc.constantFrom<Cells>(
  {},
  { departure: '2026-11-03', arrival: '2026-11-02', group: 'Fruit', article: 'Pear', unit: 'crate', least: '2', most: '3' },
);

describe('settle', () => {
  it('reads before what is read: a pair of days is taken or refused whichever stands left', () => {
    expect(one({ departure: '2026-11-03', arrival: '2026-11-02' }, { departure: '6.11.2026', arrival: '5.11.2026' }).plan.cells).toEqual({
      departure: '2026-11-06',
      arrival: '2026-11-05',
    });
    const { plan, verdicts } = one({}, { departure: '4.11.2026', arrival: '5.11.2026' });
    expect(verdicts['departure']).toMatchObject({ verdict: 'refused', code: 'too early' });
    expect(plan.cells).toEqual({ arrival: '2026-11-05' });
  });
  it('comes out the same in whatever order the cells of an entry come', () =>
    fc.assert(
      fc.property(standing, texts, fc.infiniteStream(fc.nat()), (cells, typed, chance) => {
        const shuffled = Object.fromEntries(
          Object.entries(typed)
            .map((pair) => [chance.next().value!, pair] as const)
            .sort(([a], [b]) => a - b)
            .map(([, pair]) => pair),
        );
        const [plain, other] = [one(cells, typed), one(cells, shuffled)];
        expect(other.plan.cells).toEqual(plain.plan.cells);
        expect(other.verdicts).toEqual(plain.verdicts);
      }),
    ));
  it('stores of what was typed only what stands', () =>
    fc.assert(
      fc.property(standing, texts, (cells, typed) => {
        const { plan, verdicts } = one(cells, typed);
        for (const own of fields) {
          if (!(own.key in typed) || verdicts[own.key]!.verdict === 'refused') continue;
          expect(stands(own, plan.cells[own.key] ?? '', { ...judged, entry: plan.cells })).toEqual({ right: true });
        }
      }),
    ));
  it('changes what only administrators change by what follows from other fields alone, and for administrators as ever', () =>
    fc.assert(
      fc.property(standing, texts, (cells, typed) => {
        const closed = fields.map((own) => (own.key === 'unit' ? { ...own, rule: { ...newRule('plain'), readOnly: true } } : own));
        const open = fields.map((own) => (own.key === 'unit' ? { ...own, rule: newRule('plain') } : own));
        const edits = Object.entries(typed).map(([key, text]): Edit => ({ entry: 'e', field: key, typed: text }));
        const settled = (among: readonly CascadeField[], some: readonly Edit[], designs: boolean) =>
          settle(among, new Map([['e', cells]]), some, { ...context, designs });
        expect(settled(closed, edits, true)).toEqual(settled(open, edits, true));
        // For others it is as if nothing had been typed there.
        const others = edits.filter(({ field: key }) => key !== 'unit');
        const { verdicts, entries } = settled(closed, edits, false);
        expect(entries.get('e')?.cells ?? cells).toEqual(settled(open, others, false).entries.get('e')?.cells ?? cells);
        const at = edits.findIndex(({ field: key }) => key === 'unit');
        if (at >= 0 && typed.unit === 'sack')
          expect(verdicts[at]).toEqual({
            verdict: 'refused',
            code: 'read only',
            message: 'Only administrators change unit.',
            suggestions: [],
          });
      }),
    ));
  it('is what a form makes of the same answers', () =>
    fc.assert(
      fc.property(texts, (typed) => {
        const layout: FormLayout = {
          intro: '',
          thanks: '',
          sections: [
            {
              id: 's',
              heading: '',
              help: '',
              columns: 1,
              where: null,
              fields: fields.map(({ key }) => ({ field: key, control: null, help: '', begins: null, wide: false, where: null })),
            },
          ],
        };
        const filled = Object.fromEntries(Object.entries(typed).filter(([, text]) => text !== ''));
        const form = judgeForm(
          layout,
          fields,
          { given: Object.fromEntries(Object.entries(filled).map(([key, typed]) => [key, { typed }])), confirmed: new Set() },
          { locale: houseLocale, catalogs: context.catalogs, today: '2026-11-28', begins: {} },
        );
        expect(form.cells).toEqual(one({}, filled).plan.cells);
      }),
    ));
  it('keeps what is typed beside what an item brings along', () => {
    expect(one({}, { unit: 'sack', article: 'apple', group: 'fruit' }).plan.cells).toEqual({
      group: 'Fruit',
      article: 'Apple',
      unit: 'sack',
    });
    expect(one({}, { article: 'apple', group: 'fruit' }).plan).toMatchObject({
      cells: { unit: 'box' },
      filled: [{ field: 'unit', value: 'box' }],
    });
  });
  it('clears below what was changed, and says nothing of what was typed over it', () => {
    const before = { group: 'Fruit', article: 'Pear', unit: 'crate' };
    expect(one(before, { group: 'fish' }).plan.cleared).toContainEqual({ field: 'article', value: 'Pear' });
    const both = one(before, { group: 'fish', article: 'cod' }).plan;
    expect(both.cells).toEqual({ group: 'Fish', article: 'Cod', unit: 'tub' });
    expect(both.cleared).toEqual([]);
  });
  it('takes the old spelling of a correction under way as the new one, standing or typed', () => {
    const carries = [{ field: 'unit', from: 'sak', to: 'sack' }];
    expect(one({ unit: 'sak' }, { most: '3' }, { carries }).plan.cells).toEqual({ unit: 'sack', most: '3' });
    expect(one({}, { unit: 'sak' }, { carries })).toMatchObject({
      plan: { cells: { unit: 'sack' } },
      verdicts: { unit: { corrected: '“sak” was taken as sack.' } },
    });
  });
  it('goes round in the order of the fields where they read one another', () => {
    const round = [
      field('a', 'number', { ...newRule('number'), most: { of: 'field', field: 'b' } }),
      field('b', 'number', { ...newRule('number'), least: { of: 'field', field: 'a' } }),
    ];
    expect(inReadingOrder(round).map(({ key }) => key)).toEqual(['b', 'a']);
    expect(inReadingOrder(fields).map(({ key }) => key)).toEqual(['arrival', 'departure', 'group', 'article', 'unit', 'most', 'least']);
  });
});

describe('several values', () => {
  const wanted = field('w', 'several values', { ...newRule('plain'), mayBeBlank: false });
  it.each([',', '""', ' ; ', '"" , ""', '\u00AD,\u200B'])('%j names none, and is blank', (text) => {
    expect(judge(wanted, { typed: text }, { ...judged, held: 'a' })).toMatchObject({ verdict: 'refused', code: 'blank' });
    expect(judge({ ...wanted, rule: null }, { typed: text }, { ...judged, held: 'a' })).toEqual({ verdict: 'taken', value: '' });
  });
  it('of which there are too many are outside as they stand', () => {
    const rule = {
      ...newRule('typed'),
      values: ['a', 'b', 'c'],
      picking: { ...(newRule('typed') as { picking: CatalogRule['picking'] }).picking, most: 2 },
    } as Rule;
    expect(stands(field('w', 'several values', rule), 'a\u001Fb\u001Fc', judged)).toMatchObject({ right: false, code: 'too many' });
    expect(stands(field('w', 'several values', rule), 'a\u001Fb', judged)).toEqual({ right: true });
  });
});

it.each(['\u00AD', '\u3164', '\u2060', '\u2800 '])('a field that must not be blank is not filled by %j', (text) => {
  expect(judge(field('t', 'text', { ...newRule('plain'), mayBeBlank: false }), { typed: text }, { ...judged, held: 'a' })).toMatchObject({
    verdict: 'refused',
    code: 'blank',
  });
});

describe('what stands', () => {
  it.each([
    ['date', '2026-02-31'],
    ['date', 'soon'],
    ['date', '2026-13-01'],
    ['number', 'soon'],
    ['number', '1.0'],
    ['yes/no', 'perhaps'],
  ] as const)('in a field of kind %s, %s is of the wrong kind', (kind, value) => {
    expect(stands(field('k', kind), value, judged)).toMatchObject({ right: false, code: 'wrong kind' });
  });
  it('a leap day is a day', () => expect(stands(field('k', 'date'), '2028-02-29', judged)).toEqual({ right: true }));
});
