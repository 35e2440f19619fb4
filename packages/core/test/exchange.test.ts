import {
  bookOf,
  cellValue,
  choices,
  compileCatalog,
  dayNumber,
  exactInColumn,
  freeSheetIn,
  houseLocale,
  keyMark,
  namesOf,
  newRule,
  openFormula,
  shownInColumn,
  validationOf,
  type Book,
  type BookField,
  type CatalogRule,
  type Cells,
  type Item,
  type Rule,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { item } from './item.js';
import { calculated, offeredBy, type Workbook } from './formulas.js';

const field = (key: string, rule: Rule | null, kind: BookField['kind'] = 'text'): BookField => ({
  key,
  heading: key,
  kind,
  width: 120,
  rule,
});
const ofCatalog = (over: Partial<CatalogRule>): CatalogRule => ({ ...newRule('catalog'), catalogId: 'c', ...over });

const today = '2026-11-29';
const model = (fields: readonly BookField[], items: readonly Item[], labels = false) =>
  bookOf([{ title: 'Sheet', fields }], {
    catalogs: new Map([['c', compileCatalog('c', 'Places', items)]]),
    locale: houseLocale,
    today,
    labels,
  });

/** The book as a program that has opened it sees it: lists side by side on the sheet Lists, one entry in row 2 of the first sheet. */
function opened(book: Book, cells: Cells): Workbook {
  const place = new Map(book.lists.map((list, at) => [list.name, at * 2]));
  const names = new Map(
    book.lists.flatMap((list) => namesOf(list, 'Lists', { key: place.get(list.name)!, value: place.get(list.name)! + 1 })),
  );
  const columns = book.sheets[0]!.columns;
  return {
    names,
    today: dayNumber(today) - dayNumber('1899-12-30'),
    cell(sheet, row, at) {
      if (sheet === 'Sheet') return row === 2 && columns[at] ? shownInColumn(columns[at], cells, houseLocale) : '';
      const held = book.lists[Math.floor(at / 2)]?.rows[row - 2];
      if (!held) return '';
      return at % 2 === 0 ? held.under.join(keyMark) : held.value;
    },
  };
}

function offered(book: Book, key: string, cells: Cells) {
  const { columns } = book.sheets[0]!;
  const column = columns.find((one) => one.key === key)!;
  const validation = validationOf(column.check!, (other) => columns.findIndex((one) => one.key === other))!;
  return offeredBy(validation.formulas[0]!, opened(book, cells), 'Sheet', 2);
}

const word = fc.constantFrom('a', 'A', 'b*', '?', '<5', 'a b', '=c', '~');
const tuples = fc.uniqueArray(fc.tuple(word, word, word), { minLength: 1, maxLength: 20, selector: (tuple) => tuple.join('/') });
function treeOf(all: readonly (readonly string[])[]): Item[] {
  const items = new Map<string, Item>();
  for (const tuple of all)
    tuple.forEach((value, depth) => {
      const key = tuple.slice(0, depth + 1).join('/');
      if (!items.has(key)) items.set(key, item(value, tuple.slice(0, depth)));
    });
  return [...items.values()];
}

describe('a book', () => {
  it('offers in its cells what Dellum offers: over every parent, whatever signs they are written with, and nothing under a blank one', () => {
    fc.assert(
      fc.property(tuples, (all) => {
        const items = treeOf(all);
        const catalog = compileCatalog('c', 'Places', items);
        const fields = [
          field('one', ofCatalog({ level: 0 })),
          field('two', ofCatalog({ level: 1, parents: ['one'] })),
          field('three', ofCatalog({ level: 2, parents: ['one', 'two'] })),
        ];
        const book = model(fields, items);
        const values = (parents: readonly string[]) => choices(catalog, parents).map(({ value }) => value);
        expect(offered(book, 'one', {})).toEqual(values([]));
        for (const [one, two] of [...all, ['none', 'none']]) {
          expect(offered(book, 'two', { one: one! })).toEqual(values([one!]));
          expect(offered(book, 'three', { one: one!, two: two! })).toEqual(values([one!, two!]));
          expect(offered(book, 'three', { two: two! })).toEqual([]);
        }
        expect(offered(book, 'two', {})).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('shows labels where they are wanted, in cells, lists and the keys of what stands under them', () => {
    const items = [
      item('N', [], { label: 'North' }),
      item('S', [], { label: 'South', state: 'retired' }),
      item('N1', ['N'], { label: 'First' }),
      item('S1', ['S'], { label: 'Last' }),
    ];
    const fields = [field('quay', ofCatalog({ level: 0 })), field('berth', ofCatalog({ level: 1, parents: ['quay'] }))];
    const cells = { quay: 'N', berth: 'N1' };
    const shown = (labels: boolean) => {
      const book = model(fields, items, labels);
      const { columns } = book.sheets[0]!;
      return [
        columns.map((column) => shownInColumn(column, cells, houseLocale)),
        offered(book, 'quay', cells),
        offered(book, 'berth', cells),
      ];
    };
    expect(shown(true)).toEqual([['North', 'First'], ['North'], ['First']]);
    expect(shown(false)).toEqual([['N', 'N1'], ['N'], ['N1']]);
    // A rate is a number, however its list writes it.
    const [rate] = model([field('rate', ofCatalog({}), 'percent')], [item('0.075', [], { label: '7.5 %' })], true).sheets[0]!.columns;
    expect([exactInColumn(rate!, { rate: '0.075' }), shownInColumn(rate!, { rate: '0.075' }, houseLocale)]).toEqual(['0.075', '7.5 %']);
    // What is retired is shown where it stands, and not offered.
    const { columns } = model(fields, items, true).sheets[0]!;
    expect(columns.map((column) => shownInColumn(column, { quay: 'S', berth: 'S1' }, houseLocale))).toEqual(['South', 'Last']);
  });

  it('keeps typed choices in the rule where they fit, and makes a list of others', () => {
    const typed = (values: readonly string[], kind: BookField['kind'] = 'text') =>
      model([field('state', { ...newRule('typed'), values } as Rule, kind)], []);
    expect(typed(['to do', 'done']).sheets[0]!.columns[0]!.check).toEqual({ check: 'values', values: ['to do', 'done'] });
    for (const values of [['a, b', 'c'], ['"a"'], Array.from({ length: 80 }, (_, at) => `value ${at}`)]) {
      const book = typed(values);
      expect(book.sheets[0]!.columns[0]!.check).toEqual({ check: 'list', list: 'state_list' });
      expect(offered(book, 'state', {})).toEqual(values);
    }
    expect(typed(['0.125'], 'percent').lists[0]!.rows).toEqual([{ under: [], value: '0.125' }]);
  });

  it('says what programs that open it cannot do', () => {
    const lost = (rule: Partial<Rule> & { kind: Rule['kind'] }, kind: BookField['kind'] = 'text') =>
      model([field('a', { ...newRule(rule.kind), ...rule } as Rule, kind)], []).lost.map(({ what }) => what);
    expect(lost({ kind: 'plain' })).toEqual([]);
    expect(lost({ kind: 'pattern', pattern: 'x+' })).toEqual(['is not compared with its pattern there']);
    expect(lost({ kind: 'number', decimals: 2 }, 'number')).toEqual(['takes any number of decimals there']);
    expect(lost({ kind: 'typed', values: ['x'] }, 'several values')).toEqual(['takes several values, and has no list there']);
    expect(lost({ kind: 'typed', values: ['x'], others: 'add' })[0]).toContain('after a warning');
    const where = { all: true, conditions: [{ field: 'a', is: 'is' as const, value: 'x' }] };
    expect(lost({ kind: 'length', least: 1, where, noRepeats: true })).toEqual([
      'is not checked there, since its rule holds only in some entries',
      'can be repeated there',
    ]);
  });

  it('bounds days and numbers by values, by today and by other cells of the row, of which a blank one is no bound', () => {
    const bound = (rule: Partial<Rule> & { kind: Rule['kind'] }, kind: BookField['kind'], begun: string) => {
      const book = model([field('begun', null, kind), field('ended', { ...newRule(rule.kind), ...rule } as Rule, kind)], []);
      const { columns } = book.sheets[0]!;
      const validation = validationOf(columns[1]!.check!, (key) => columns.findIndex((column) => column.key === key))!;
      const at = { ...opened(book, {}), cell: () => (begun === '' ? '' : Number(begun)) };
      return [validation.type, validation.operator, ...validation.formulas.map((formula) => calculated(formula, at, 'Sheet', 2))];
    };
    const day = (text: string) => dayNumber(text) - dayNumber('1899-12-30');
    const after = { of: 'field', field: 'begun', plus: 2 } as const;
    expect(bound({ kind: 'date', from: after }, 'date', '46000')).toEqual(['date', 'greaterThanOrEqual', 46002]);
    expect(bound({ kind: 'date', from: { of: 'day', day: '2026-01-01' }, until: { of: 'today', plus: -1 } }, 'date', '')).toEqual([
      'date',
      'between',
      day('2026-01-01'),
      day('2026-11-28'),
    ]);
    expect(bound({ kind: 'date', until: after }, 'date', '')).toEqual(['date', 'lessThanOrEqual', 9e307]);
    expect(bound({ kind: 'number', most: { of: 'field', field: 'begun' }, decimals: 0 }, 'number', '7')).toEqual([
      'whole',
      'lessThanOrEqual',
      7,
    ]);
    expect(bound({ kind: 'length', least: 2, most: 4 }, 'text', '')).toEqual(['textLength', 'between', 2, 4]);
  });

  it('is written in the other standard, too', () => {
    expect(openFormula('OFFSET(Lists!$B$2,0,0,MAX(1,COUNTA(Lists!$B$2:$B$1041)),1)')).toBe(
      'OFFSET([$Lists.$B$2];0;0;MAX(1;COUNTA([$Lists.$B$2:.$B$1041]));1)',
    );
    expect(openFormula('EXACT(list_2026_A1_Ö_list_keys,$D2&"A1,b"&$AB2)*9E+307')).toBe(
      'EXACT(list_2026_A1_Ö_list_keys;[.$D2]&"A1,b"&[.$AB2])*9E+307',
    );
  });

  it('holds numbers and days as such, and as a text what a double or the calendar of 1900 would change', () => {
    expect(cellValue('amount', '12.5', '12.50 EUR')).toEqual({ is: 'number', number: '12.5', decimals: 1 });
    expect(cellValue('number', '1234567890123456', '1,234,567,890,123,456')).toMatchObject({ is: 'text' });
    expect(cellValue('number', '0.000001234', '0.000001234')).toMatchObject({ is: 'number' });
    expect(cellValue('date', '2026-11-29', '29/11/2026')).toEqual({ is: 'day', serial: 46355 });
    expect(cellValue('date', '1900-02-28', '28/02/1900')).toMatchObject({ is: 'text' });
    expect(cellValue('number', 'soon', 'soon')).toEqual({ is: 'text', text: 'soon' });
    expect(cellValue('text', '0012', '0012')).toEqual({ is: 'text', text: '0012' });
  });

  it('gives sheets and lists names that no other has and that both standards take', () => {
    expect(freeSheetIn('Orders: 2026/27 [north] * all of them, every one', [])).toBe('Orders  2026 27  north    all o');
    expect(freeSheetIn('orders', ['Orders'])).toBe('orders 2');
    expect(freeSheetIn('///', [])).toBe('Sheet');
    const twice = bookOf([{ title: 'T', fields: [field('a', ofCatalog({ catalogId: 'c' })), field('b', ofCatalog({ catalogId: 'd' }))] }], {
      catalogs: new Map([
        ['c', compileCatalog('c', '2026: A1 & Ö', [item('x')])],
        ['d', compileCatalog('d', '2026 a1 Ö', [item('y')])],
      ]),
      locale: houseLocale,
      today,
      labels: false,
    });
    expect(twice.lists.map(({ name }) => name)).toEqual(['list_2026_A1_Ö_list', 'list_2026_a1_Ö_list_2']);
  });
});
