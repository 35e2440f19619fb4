// What is proposed for files as an office keeps them: kinds, lists with their spellings, levels, what will be outside; and what is laid.
import {
  adoptedTable,
  catalogToBe,
  compileCatalog,
  fieldsToBe,
  findTables,
  houseList,
  houseListId,
  houseLocale,
  isRowOf,
  judge,
  laidParts,
  lookUp,
  noMends,
  proposedHouse,
  rowReader,
  tableId,
  type AdoptedTable,
  type CameBack,
  type HouseList,
  type Item,
  type Mends,
  type SheetRow,
} from '@dellum/core';
import { describe, expect, it } from 'vitest';

const text = (value: string): CameBack => ({ is: 'text', text: value });
const sheetOf = (lines: readonly (readonly (string | number)[])[]): SheetRow[] =>
  lines.map((line, at) => ({
    number: at + 1,
    cells: new Map(
      line.flatMap((cell, column): [number, CameBack][] =>
        cell === '' ? [] : [[column, typeof cell === 'number' ? { is: 'number', number: cell } : text(cell)]],
      ),
    ),
  }));

function adopted(files: readonly (readonly (readonly (string | number)[])[])[]): AdoptedTable[] {
  return files.flatMap((lines, file) => {
    const rows = sheetOf(lines);
    return findTables(rows, houseLocale).map((table, at) => adoptedTable({ file, sheet: 0, table: at }, `File ${file + 1}`, table));
  });
}

/** A linear congruential generator (Numerical Recipes): the same rows in every run. */
function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 1664525 + 1013904223) % 2 ** 32) / 2 ** 32;
}

const growers = ['Fennmoor', 'Marshland', 'Hillcrest', 'Oldbarrow', 'Tidewater', 'Bramblewick'];
const plants: readonly (readonly [group: string, plant: string])[] = [
  ...['Lavender', 'Rosemary', 'Chamomile', 'Peppermint'].map((plant) => ['Herbs', plant] as const),
  ...['Clematis', 'Honeysuckle', 'Wisteria'].map((plant) => ['Climbers', plant] as const),
  ...['Hornbeam', 'Whitebeam', 'Blackthorn', 'Dogwood'].map((plant) => ['Shrubs', plant] as const),
];
const payments = ['cash', 'bank card', 'on account'];

/** One letter is lost, doubled, or in the wrong case. */
function slip(word: string, random: () => number): string {
  const at = 1 + Math.floor(random() * (word.length - 1));
  const way = Math.floor(random() * 3);
  if (way === 0) return word.slice(0, at) + word.slice(at + 1);
  return way === 1 ? word.slice(0, at) + word[at]! + word.slice(at) : word.toUpperCase();
}

interface Sales {
  readonly lines: (string | number)[][];
  /** What was meant by each text that was written otherwise. */
  readonly meant: ReadonlyMap<string, string>;
}
function sales(seed: number, rows: number): Sales {
  const random = chance(seed);
  const meant = new Map<string, string>();
  const write = (word: string) => {
    if (random() >= 0.05) return word;
    const written = slip(word, random);
    if (written !== word) meant.set(written, word);
    return written;
  };
  const lines = Array.from({ length: rows }, (_, at): (string | number)[] => {
    const [group, plant] = plants[Math.floor(random() * plants.length)]!;
    const day = new Date(Date.UTC(2026, 0, 1 + (at % 300)));
    return [
      `00${1000 + at}`,
      `${day.getUTCDate()}.${day.getUTCMonth() + 1}.${day.getUTCFullYear()}`,
      write(growers[Math.floor(random() * growers.length)]!),
      write(group),
      write(plant),
      1 + Math.floor(random() * 40),
      `${Math.floor(random() * 900)},${10 + Math.floor(random() * 89)}`,
      write(payments[Math.floor(random() * payments.length)]!),
    ];
  });
  return {
    meant,
    lines: [
      ['Sales of the year'],
      [],
      ['No', 'Day', 'Grower', 'Group', 'Plant', 'Pots', 'Paid', 'How'],
      ...lines,
      ['Total', '', '', '', '', rows],
    ],
  };
}

describe('A proposal for a house that has lists', () => {
  const { lines, meant } = sales(11, 600);
  const found = adopted([lines]);
  const item = (path: readonly string[], value: string, over: Partial<Item> = {}): Item => ({
    ...{ path, value, label: value, state: 'offered', from: [], otherNames: [] },
    ...over,
  });
  const house = [
    houseList({ id: 'c1', title: 'Growers' }, [
      // Its values are codes; what the file holds is what is shown for them, or called besides.
      ...growers.map((grower, at) => item([], `G${at}`, at === 0 ? { label: 'Fenn', otherNames: [grower] } : { label: grower })),
      item([], 'G9', { label: 'Gone', state: 'retired' }),
    ]),
    houseList({ id: 'c2', title: 'Plants' }, [
      ...['Herbs', 'Climbers', 'Shrubs'].map((group) => item([], group)),
      ...plants.map(([group, plant]) => item([group], plant)),
    ]),
    houseList(
      { id: 'c3', title: 'Towns' },
      ['Ashby', 'Selmer'].map((town) => item([], town)),
    ),
  ];
  const idIn = (text: string) => growers.indexOf(text);

  it('binds columns to them, at their levels, and makes catalogs of the rest alone', () => {
    const proposal = proposedHouse(found, noMends, house);
    expect(proposal.lists.map(({ title, catalog, levels }) => [title, catalog, levels.map(({ heading }) => heading)])).toEqual([
      ['Growers', 'c1', ['Grower']],
      ['Plants', 'c2', ['Group', 'Plant']],
      ['How', null, ['How']],
    ]);
    const laid = laidParts(proposal, found, () => crypto.randomUUID());
    expect(laid.parts.catalogs.map(({ title }) => title)).toEqual(['How']);
    const fields = laid.parts.sheets[0]!.registers[0]!.fields;
    expect(fields.flatMap(({ key, rule }) => (rule?.kind === 'catalog' ? [[key, rule.catalogId, rule.level, rule.parents]] : []))).toEqual([
      ['grower', 'c1', null, []],
      ['group', 'c2', 0, []],
      ['plant', 'c2', 1, ['group']],
      ['how', laid.parts.catalogs[0]!.id, null, []],
    ]);
    // Each row holds what the house writes for it, slips of the finger included.
    const read = rowReader(laid.tables[0]!, houseLocale);
    const rows = sheetOf(lines).filter(({ number }) => isRowOf(found[0]!)(number));
    const entered = rows.map((row) => ({ row, cells: read(row) }));
    expect(entered).toHaveLength(600);
    const outside = proposal.tables[0]!.columns[2]!.outside;
    const wrong = entered.filter(({ row, cells }) => {
      const held = row.cells.get(2);
      const written = held?.is === 'text' ? held.text : '';
      return cells['grower'] !== `G${idIn(meant.get(written) ?? written)}`;
    });
    expect(wrong.length).toBe(outside);
    expect(outside).toBeLessThan(12);
  });

  it('keeps levels together: a list at all of whose levels columns stand goes before one that has the outer ones alone', () => {
    const plantsElsewhere = houseList({ id: 'c5', title: 'Elsewhere' }, [
      ...['Herbs', 'Climbers', 'Shrubs'].map((group) => item([], group)),
      ...['Herbs', 'Climbers', 'Shrubs'].map((group) => item([group], `${group} of the wood`)),
    ]);
    const groups = houseList({ id: 'c6', title: 'Groups' }, [...['Herbs', 'Climbers', 'Shrubs'].map((group) => item([], group))]);
    const boundIn = (lists: readonly HouseList[]) =>
      proposedHouse(found, noMends, lists).tables[0]!.columns.flatMap(({ heading, list }) =>
        list ? [[heading, list.id, list.level]] : [],
      );
    expect(boundIn([plantsElsewhere, groups, ...house])).toEqual(boundIn(house));
    // One that is all of it goes before one of which it is a part.
    expect(boundIn([plantsElsewhere, groups])).toContainEqual(['Group', houseListId('c6'), 0]);
    expect(boundIn([plantsElsewhere])).toContainEqual(['Group', houseListId('c5'), 0]);
  });

  it('leaves out those that are not wanted, which stay to be wanted again', () => {
    const mends: Mends = { ...noMends, lists: [{ list: houseListId('c1'), wanted: false, title: 'Never' }] };
    const { lists } = proposedHouse(found, mends, house);
    expect(lists.map(({ title, catalog, wanted }) => [title, catalog, wanted])).toEqual([
      ['Plants', 'c2', true],
      ['Grower', null, true],
      ['How', null, true],
      ['Growers', 'c1', false],
    ]);
  });
});

describe('A proposal', () => {
  const { lines, meant } = sales(7, 600);
  const found = adopted([lines]);
  const proposal = proposedHouse(found, noMends);

  it('reads each column as what it is, also as the house does not write: codes stay codes, commas are decimal', () => {
    const [table] = proposal.tables;
    expect(table!.rows).toBe(600);
    expect(table!.columns.map(({ heading, kind, unread }) => [heading, kind, unread])).toEqual([
      ['No', 'text', 0],
      ['Day', 'date', 0],
      ['Grower', 'text', 0],
      ['Group', 'text', 0],
      ['Plant', 'text', 0],
      ['Pots', 'number', 0],
      ['Paid', 'number', 0],
      ['How', 'text', 0],
    ]);
    expect(table!.columns[6]!.writing.decimalMark).toBe(',');
  });

  it('finds the lists and the levels, and nothing else', () => {
    expect(proposal.lists.map(({ levels }) => levels.map(({ heading }) => heading))).toEqual([['Group', 'Plant'], ['Grower'], ['How']]);
    expect(proposal.lists[0]!.levels[1]!.values.map(({ path, value }) => `${path[0]}: ${value}`).sort()).toEqual(
      plants.map(([group, plant]) => `${group}: ${plant}`).sort(),
    );
    expect(proposal.lists[1]!.levels[0]!.values.map(({ value }) => value).sort()).toEqual([...growers].sort());
  });

  it('gathers the spellings of a value under it', () => {
    const gathered = proposal.lists.flatMap(({ levels }) =>
      levels.flatMap(({ values }) => values.flatMap(({ value, spellings }) => spellings.map((one) => [one.value, value] as const))),
    );
    const right = gathered.filter(([written, value]) => meant.get(written) === value).length;
    expect(meant.size).toBeGreaterThan(60);
    expect(right / gathered.length).toBeGreaterThanOrEqual(0.97);
    expect(right / meant.size).toBeGreaterThanOrEqual(0.97);
  });

  it('follows what is changed by hand: a list less, a spelling that is a value of its own, a title', () => {
    const growersId = proposal.lists[1]!.id;
    const [first] = proposal.lists[1]!.levels[0]!.values.flatMap(({ spellings }) => spellings);
    const mends: Mends = {
      ...noMends,
      lists: [
        { list: proposal.lists[2]!.id, wanted: false },
        { list: growersId, title: 'Growers' },
      ],
      spellings: [{ list: growersId, from: first!.value, to: first!.value }],
    };
    const mended = proposedHouse(found, mends);
    expect(mended.tables[0]!.columns[7]!.list).toBeNull();
    expect(mended.lists[1]!.title).toBe('Growers');
    expect(mended.lists[1]!.levels[0]!.values.map(({ value }) => value)).toContain(first!.value);
    const left = proposedHouse(found, { ...mends, spellings: [{ list: growersId, from: first!.value, to: null }] });
    expect(left.tables[0]!.columns[2]!.outside).toBe(first!.entries);
    expect(left.lists[1]!.outside).toEqual([first]);
  });

  it('is laid so that each row fits what is offered, and each spelling is understood from then on', () => {
    let made = 0;
    const house = laidParts(proposal, found, () => `id ${made++}`);
    expect(house.parts.sheets.map(({ kind, title }) => [kind, title])).toEqual([
      ['entry', 'File 1'],
      ['source', 'Lists'],
    ]);
    const [register] = house.parts.sheets[0]!.registers;
    const plant = register!.fields[4]!;
    expect(plant.rule).toMatchObject({ kind: 'catalog', level: 1, parents: [register!.fields[3]!.key] });
    const rows = house.lists[0]!.rows.map((cells) => Object.values(cells).join(': '));
    const offered = new Set(rows);
    const [table] = house.tables;
    const entries = sheetOf(lines).slice(3, 603).map(rowReader(table!, houseLocale));
    expect(entries[0]).toMatchObject({ no: '001000', day: '2026-01-01' });
    const off = entries.filter((cells) => !offered.has(`${cells['group']}: ${cells['plant']}`)).length;
    expect(off).toBeLessThanOrEqual(600 * 0.01);
    const catalog = house.parts.catalogs.find(({ title }) => title === 'Grower')!;
    const items = growers.map((value) => ({
      ...{ value, path: [], label: value, state: 'offered' as const, from: [] },
      otherNames: catalog.kept.filter((kept) => kept.value === value).flatMap(({ otherNames }) => otherNames),
    }));
    const compiled = compileCatalog('', '', items);
    for (const [written, value] of meant) {
      if (growers.includes(value)) expect(lookUp(compiled, written)).toMatchObject({ found: 'item', item: { value } });
    }
  });

  it('can be tried before it is there: each field has the rule that it will have, and takes each text as it will', () => {
    const codes = new Map(growers.map((grower, at) => [grower, `G${10 + at}`]));
    const both = adopted([lines, [['Code', 'Name'], ...growers.map((grower) => [codes.get(grower)!, grower])]]);
    const proposed = proposedHouse(both, noMends);
    const house = laidParts(proposed, both, () => crypto.randomUUID());
    const laid = house.parts.sheets[0]!.registers[0]!.fields;
    const catalogOf = new Map(proposed.lists.map(({ id }, at) => [id, house.parts.catalogs[at]!.id]));
    const fields = fieldsToBe(proposed.tables[0]!, proposed).map(({ field }) => field);
    expect(
      fields.map((field) => ({
        ...field,
        rule: field.rule?.kind === 'catalog' ? { ...field.rule, catalogId: catalogOf.get(field.rule.catalogId) } : field.rule,
      })),
    ).toEqual(laid);
    const catalogs = new Map(proposed.lists.map((list) => [list.id, catalogToBe(list)]));
    const context = { locale: houseLocale, today: '2026-11-30', fields, catalogs, entry: { group: 'Herbs' }, held: '', suggest: true };
    const verdictOf = (key: string, typed: string) =>
      judge(
        fields.find((field) => field.key === key)!,
        { typed },
        context,
      );
    for (const [written, grower] of meant)
      if (growers.includes(grower)) expect(verdictOf('grower', written)).toMatchObject({ verdict: 'taken', value: codes.get(grower) });
    expect(verdictOf('plant', 'Lavender')).toMatchObject({ verdict: 'taken', value: 'Lavender' });
    expect(verdictOf('plant', 'Clematis')).toMatchObject({ verdict: 'refused' });
  });

  it('takes a short table of values for the list that the columns of a long one name, with its levels', () => {
    const list = [['Group', 'Plant', 'Height, cm'], ...plants.map(([group, plant], at) => [group, plant, 40 + at])];
    const both = adopted([lines, list]);
    const { tables, lists } = proposedHouse(both, noMends);
    expect(tables.map(({ use }) => use)).toEqual(['entries', 'list']);
    expect(lists[0]).toMatchObject({
      home: tableId(both[1]!),
      columns: [
        { at: 3, level: 0 },
        { at: 4, level: 1 },
      ],
    });
    expect(tables[0]!.columns[4]!.outside).toBeLessThanOrEqual(6);
    const house = laidParts({ tables, lists }, both, () => crypto.randomUUID());
    expect(house.parts.catalogs[0]!.definition.parts[0]).toMatchObject({ companions: ['height_cm'] });
    expect(house.parts.ranges[0]!.stretches[0]!.fields).toEqual(['group', 'plant']);
  });

  it('joins a table of codes and names to the columns that hold the names: the code is stored, and its name shown', () => {
    const codes = new Map(growers.map((grower, at) => [grower, `G${10 + at}`]));
    const list = [['Code', 'Name'], ...growers.map((grower) => [codes.get(grower)!, grower])];
    const both = adopted([lines, list]);
    const proposal = proposedHouse(both, noMends);
    expect(proposal.lists[0]).toMatchObject({ home: tableId(both[1]!), columns: [{ at: 2, level: 0 }] });
    expect(proposal.tables[0]!.columns[2]!.outside).toBe(0);
    const house = laidParts(proposal, both, () => crypto.randomUUID());
    expect(house.parts.catalogs[0]!.definition.parts[0]).toMatchObject({ label: 'name' });
    const rows = sheetOf(lines).slice(3, 603);
    for (const row of rows) {
      const written = (row.cells.get(2) as { text: string }).text;
      expect(rowReader(house.tables[0]!, houseLocale)(row)['grower']).toBe(codes.get(meant.get(written) ?? written));
    }
  });

  it('takes values that differ by one letter for what they are where a list has both', () => {
    const list = [['Bay'], ['Alder'], ['Elder'], ['Aider']];
    const log = [
      ['No', 'Bay'],
      ...Array.from({ length: 40 }, (_, at) => [`N${at}`, at === 7 ? 'Eldr' : ['Alder', 'Elder', 'Aider'][at % 3]!]),
    ];
    const { lists, tables } = proposedHouse(adopted([log, list]), noMends);
    const spelled = lists[0]!.levels[0]!.values.map(({ value, spellings }) => [value, spellings.map((one) => one.value)]);
    expect(spelled).toEqual([
      ['Alder', []],
      ['Elder', ['Eldr']],
      ['Aider', []],
    ]);
    expect(tables[0]!.columns[1]!.outside).toBe(0);
  });

  it('makes one list of columns of several files that hold the same values', () => {
    const two = adopted([lines, sales(11, 300).lines]);
    const { lists } = proposedHouse(two, noMends);
    expect(lists.map(({ levels, columns }) => [levels.length, columns.length])).toEqual([
      [2, 4],
      [1, 2],
      [1, 2],
    ]);
    const mended = proposedHouse(two, { ...noMends, lists: [{ list: lists[2]!.id, into: lists[1]!.id }] });
    expect(mended.lists).toHaveLength(2);
    expect(mended.lists[1]!.levels[0]!.values.map(({ value }) => value)).toEqual(expect.arrayContaining([...growers, ...payments]));
  });

  it('says which rows contradict the levels', () => {
    const wrong = lines.map((line, at) => (at === 10 ? line.map((cell, place) => (place === 3 ? 'Bulbs' : cell)) : line));
    const { lists, tables } = proposedHouse(adopted([wrong]), noMends);
    const [one] = lists[0]!.contradictions.filter(({ path }) => path[0] === 'Bulbs');
    expect(one).toMatchObject({ row: 11, rows: 1, instead: [plants.find(([, plant]) => plant === one!.path[1])![0], one!.path[1]] });
    expect(tables[0]!.columns[4]!.outside).toBeGreaterThanOrEqual(1);
  });
});
