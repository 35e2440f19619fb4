// What goes out and comes back: compared by a model that knows nothing but which cells were changed where.
import {
  bookOf,
  cellValue,
  ColumnWriting,
  compileCatalog,
  dayNumber,
  differences,
  format,
  heldInRow,
  houseLocale,
  inHouseWriting,
  joinedValues,
  newRule,
  parse,
  shownInColumn,
  writtenInRow,
  type CameBack,
  type Cells,
  type Column,
  type FieldKind,
  type RowBack,
} from '@dellum/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { item } from './item.js';

const kinds: readonly (readonly [key: string, kind: FieldKind])[] = [
  ['note', 'text'],
  ['count', 'number'],
  ['share', 'percent'],
  ['toll', 'amount'],
  ['day', 'date'],
  ['done', 'yes/no'],
  ['quay', 'text'],
  ['services', 'several values'],
];
const quays = ['N', 'S', '12'].map((value) => ({ ...item(value, []), label: `Quay ${value}` }));
const { columns } = bookOf(
  [
    {
      title: 'Log',
      fields: kinds.map(([key, kind]) => ({
        key,
        heading: key,
        kind,
        width: 100,
        rule: key === 'quay' ? { ...newRule('catalog'), catalogId: 'c' } : null,
      })),
    },
  ],
  { catalogs: new Map([['c', compileCatalog('c', 'Quays', quays)]]), locale: houseLocale, today: '2026-11-29', labels: true },
).sheets[0]!;

/** A value of the column, as it is stored; '' for blank. */
const valueOf = ({ key, kind }: Column): fc.Arbitrary<string> => {
  const number = fc.integer({ min: -999_999, max: 999_999 }).map((whole) => String(whole / 1000));
  const values: { readonly [Kind in FieldKind]: fc.Arbitrary<string> } = {
    text: key === 'quay' ? fc.constantFrom('N', 'S', '12') : fc.constantFrom('a', 'A', '=1+1', '12', '2026-01-01', 'two\nlines', ' x '),
    number,
    percent: number,
    amount: fc.integer({ min: -999_999, max: 999_999 }).map((cents) => String(cents / 100)),
    date: fc.integer({ min: 0, max: 60_000 }).map((days) => new Date(days * 86_400_000 - 2e12).toISOString().slice(0, 10)),
    'yes/no': fc.constantFrom('yes', 'no'),
    'several values': fc.subarray(['Water', 'a, b', '"x" y', 'Crane; 2 t'], { minLength: 1 }).map(joinedValues),
  };
  return fc.oneof({ weight: 1, arbitrary: fc.constant('') }, { weight: 4, arbitrary: values[kind] });
};
const cellsOf: fc.Arbitrary<Cells> = fc
  .tuple(...columns.map(valueOf))
  .map((values) => Object.fromEntries(values.flatMap((value, at) => (value === '' ? [] : [[columns[at]!.key, value]]))));

/** A cell as a program gives it back that has changed nothing. */
function wentOut(column: Column, cells: Cells): CameBack | undefined {
  const value = cells[column.key] ?? '';
  if (value === '') return undefined;
  const written = cellValue(column.kind, value, shownInColumn(column, cells, houseLocale));
  return written.is === 'number' ? { is: 'number', number: Number(written.number) } : written;
}
const rowOf = (row: number, entry: string | undefined, cells: Cells, of = columns): RowBack => ({
  row,
  entry,
  cells: new Map(
    of.flatMap((column) => {
      const held = wentOut(column, cells);
      return held ? [[column.key, held]] : [];
    }),
  ),
});
const none = { proposed: [], asked: [], added: [], missing: [], deleted: [] };

/** An entry as it went out, what was changed there, and what was changed here; undefined: it was deleted. */
const fate = fc.record({
  out: cellsOf,
  there: cellsOf,
  changedThere: fc.subarray(columns.map(({ key }) => key)),
  here: fc.option(cellsOf),
  changedHere: fc.subarray(columns.map(({ key }) => key)),
});
const withSome = (cells: Cells, others: Cells, keys: readonly string[]): Cells =>
  Object.fromEntries(
    columns.flatMap(({ key }) => {
      const value = (keys.includes(key) ? others : cells)[key];
      return value === undefined ? [] : [[key, value]];
    }),
  );
const fates = fc
  .array(fate, { maxLength: 6 })
  .map((all) =>
    all.map(({ out, there, changedThere, here, changedHere }, at) => ({
      id: `entry ${at}`,
      out,
      there: withSome(out, there, changedThere),
      now: here === null ? undefined : withSome(out, here, changedHere),
    })),
  );
type Fate = typeof fates extends fc.Arbitrary<(infer One)[]> ? One : never;
const known = (all: readonly Fate[]) => ({
  out: new Map(all.map(({ id, out }) => [id, out])),
  now: new Map(all.flatMap(({ id, now }) => (now ? [[id, now] as const] : []))),
  locale: houseLocale,
});

describe('a sheet that comes back', () => {
  it('as it went out asks and changes nothing, whatever was done here, in any order, with any of its columns', () =>
    fc.assert(
      fc.property(fates, fc.subarray([...columns]), fc.array(fc.nat()), (all, left, order) => {
        const rows = all.map(({ id, out }, at) => rowOf(at + 2, id, out, left));
        rows.sort((a, b) => (order[a.row] ?? 0) - (order[b.row] ?? 0));
        expect(differences({ columns: left, rows, ...known(all) })).toEqual(none);
      }),
    ));

  it('is known as unchanged by one text of all it holds, and by no other', () =>
    fc.assert(
      fc.property(cellsOf, cellsOf, (one, other) => {
        const held = heldInRow(columns, rowOf(2, 'one', one).cells);
        expect(held).toBe(writtenInRow(columns, one, houseLocale));
        const same = columns.every(({ key }) => one[key] === other[key]);
        expect(writtenInRow(columns, other, houseLocale) === held).toBe(same);
      }),
    ));

  it('proposes what was changed there alone, asks about what was changed in both places, and says which entries are gone', () =>
    fc.assert(
      fc.property(fates, (all) => {
        const rows = all.map(({ id, there }, at) => rowOf(at + 2, id, there));
        const found = differences({ columns, rows, ...known(all) });
        const cells = (which: (out: string, there: string, now: string) => boolean) =>
          all.flatMap(({ id, out, there, now }) =>
            now
              ? columns.filter(({ key }) => which(out[key] ?? '', there[key] ?? '', now[key] ?? '')).map(({ key }) => `${id} ${key}`)
              : [],
          );
        const names = (some: typeof found.proposed) => some.map(({ entry, field }) => `${entry} ${field}`);
        expect(names(found.proposed)).toEqual(cells((out, there, now) => there !== out && now === out));
        expect(names(found.asked)).toEqual(cells((out, there, now) => there !== out && now !== out && now !== there));
        expect(found.deleted.map(({ entry }) => entry)).toEqual(
          all.filter(({ out, there, now }) => !now && columns.some(({ key }) => out[key] !== there[key])).map(({ id }) => id),
        );
        expect([found.added, found.missing]).toEqual([[], []]);
        // What is proposed is, typed, what stands there.
        for (const { entry, field, text } of [...found.proposed, ...found.asked]) {
          const { there } = all.find(({ id }) => id === entry)!;
          const column = columns.find(({ key }) => key === field)!;
          const read = field === 'quay' ? text.replace('Quay ', '') : column.kind === 'text' ? text : parsed(column.kind, text);
          expect(read).toBe(there[field] ?? '');
        }
      }),
    ));

  it('has new rows, copied rows and missing rows, each told apart', () => {
    const [one, two, three] = [{ note: 'a' }, { note: 'b' }, { note: 'c' }];
    const out = new Map(Object.entries({ one, two, three }));
    const rows = [
      rowOf(2, 'two', two),
      rowOf(3, 'two', { note: 'b', count: '3' }),
      rowOf(4, undefined, {}),
      rowOf(5, 'nobody', { note: 'z' }),
    ];
    const now = new Map(Object.entries({ one, two }));
    expect(differences({ columns, rows, out, now, locale: houseLocale })).toEqual({
      ...none,
      added: [
        {
          row: 3,
          cells: [
            { field: 'note', text: 'b' },
            { field: 'count', text: '3' },
          ],
        },
        { row: 5, cells: [{ field: 'note', text: 'z' }] },
      ],
      missing: ['one'],
    });
  });

  it.each<[string, Partial<Cells>, string, CameBack]>([
    ['a number as a text', { count: '1200.5' }, 'count', { is: 'text', text: format('number', '1200.5', houseLocale) }],
    ['a day as a text', { day: '2026-11-05' }, 'day', { is: 'text', text: '2026-11-05' }],
    ['a sum that is as good as the number', { toll: '0.3' }, 'toll', { is: 'number', number: 0.1 + 0.2 }],
    [
      'a day before those that are counted alike',
      { day: '1850-01-01' },
      'day',
      { is: 'text', text: format('date', '1850-01-01', houseLocale) },
    ],
  ])('is the same in another way of writing: %s', (_what, cells, field, came) => {
    const out = new Map([['one', cells as Cells]]);
    const rows = [{ row: 2, entry: 'one', cells: new Map([[field, came]]) }];
    expect(differences({ columns: columns.filter(({ key }) => key === field), rows, out, now: out, locale: houseLocale })).toEqual(none);
  });

  it.each<[string, string, CameBack, string]>([
    ['a number in a text', 'note', { is: 'number', number: 12 }, '12'],
    ['a day in a text', 'note', { is: 'day', serial: dayNumber('2026-11-05') - dayNumber('1899-12-30') }, '2026-11-05'],
    ['a day in a number', 'count', { is: 'day', serial: dayNumber('2026-11-05') - dayNumber('1899-12-30') }, '2026-11-05'],
    ['a number in a day', 'day', { is: 'number', number: 7 }, '7'],
    ['a very small number', 'count', { is: 'number', number: 1e-7 }, '0.0000001'],
    ['words in a number', 'count', { is: 'text', text: 'about ten' }, 'about ten'],
  ])('is judged by what stands there: %s', (_what, field, came, text) => {
    const out = new Map<string, Cells>([['one', {}]]);
    const rows = [{ row: 2, entry: 'one', cells: new Map([[field, came]]) }];
    const { proposed } = differences({ columns, rows, out, now: out, locale: houseLocale });
    expect(proposed).toEqual([{ row: 2, entry: 'one', field, text, was: '', now: '' }]);
  });
});

function parsed(kind: FieldKind, text: string): string | undefined {
  if (text === '') return '';
  const read = parse(kind, text, houseLocale);
  return read.ok ? read.value : undefined;
}

describe('a column of a file that writes otherwise than the house', () => {
  const numeric = fc.constantFrom<FieldKind>('number', 'amount', 'percent');
  const marks = fc.constantFrom('.', ',') as fc.Arbitrary<'.' | ','>;
  const orders = fc.constantFrom('dmy', 'mdy') as fc.Arbitrary<'dmy' | 'mdy'>;
  const text = (written: string): CameBack => ({ is: 'text', text: written });
  /** What the house then reads of texts that were written in another way. */
  const readHere = (kind: FieldKind, texts: readonly string[], house: typeof houseLocale) => {
    const column = new ColumnWriting(kind, house);
    for (const one of texts) column.see(text(one));
    const writing = column.found;
    return texts.map((one) => {
      const cell = writing ? inHouseWriting(kind, text(one), writing, house) : text(one);
      const read = parse(kind, cell.is === 'text' ? cell.text : '', house);
      return read.ok ? read.value : undefined;
    });
  };

  it('holds the numbers that it means, wherever one of them tells', () => {
    fc.assert(
      fc.property(
        numeric,
        marks,
        marks,
        fc.array(fc.integer({ min: -9_999_999, max: 9_999_999 }), { maxLength: 12 }),
        (kind, here, there, all) => {
          const house = { ...houseLocale, decimalMark: here };
          // The last one is a number in one way of writing only.
          const values = [...all.map((cents) => String(cents / 100)), kind === 'percent' ? '0.065' : '6.5'];
          const texts = values.map((value) => format(kind, value, { ...house, decimalMark: there }));
          expect(readHere(kind, texts, house)).toEqual(values.map((value) => (value === '-0' ? '0' : value)));
        },
      ),
    );
  });

  it('holds the days that it means, wherever one of them tells', () => {
    const days = fc.array(fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 28 })), { maxLength: 8 });
    fc.assert(
      fc.property(orders, orders, days, (here, there, all) => {
        const house = { ...houseLocale, dateOrder: here };
        const two = (number: number) => String(number).padStart(2, '0');
        const values = [...all, [11, 29] as const].map(([month, day]) => `2026-${two(month)}-${two(day)}`);
        const texts = values.map((value) => {
          const [year, month, day] = value.split('-');
          return there === 'dmy' ? `${day}/${month}/${year}` : `${month}/${day}/${year}`;
        });
        expect(readHere('date', texts, house)).toEqual(values);
      }),
    );
  });

  it('stays as it stands where it is read in the way of the house, or in none', () => {
    for (const texts of [['1,234', '12'], ['x', '6.5', '7,5x'], []]) {
      const column = new ColumnWriting('number', houseLocale);
      for (const one of texts) column.see(text(one));
      expect([texts, column.found]).toEqual([texts, undefined]);
    }
    const other = { decimalMark: ',', dateOrder: 'dmy' } as const;
    for (const cell of [text('soon'), text(''), { is: 'number', number: 5 }] as const)
      expect(inHouseWriting('number', cell, other, houseLocale)).toEqual(cell);
  });
});
