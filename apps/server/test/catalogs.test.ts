// Catalogs in full: composed, their items changed from the catalog page, history, acts taken back, queries over entries.
import { ofRanges, unpackItems, withItemChanges, type Answer, type CatalogDefinition, type Item } from '@dellum/core';
import {
  definitionMark,
  ruleMark,
  type BuildView,
  type CatalogChange,
  type CatalogItems,
  type ChangedCatalog,
  type DefinitionTrial,
  type Outcome,
  type PackedCatalog,
  type Problem,
  type RangeLine,
  type RangeLook,
  type Slip,
  type Upkeep,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entriesOf, insertingAll, inserting, openHouse, startServer, until, type House, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const visits = [
  { visit: 'V1', pilot: 'Tam Ossel' },
  { visit: 'V2', pilot: 'Tam Ossel' },
  { visit: 'V3', pilot: 'Bryn Calloway' },
];
type Told = Outcome & Problem;
const post = (house: House, path: string, body: unknown) => house.administrator.call<Told>('POST', path, body);
const items = async (house: House, id = house.catalog.id) => (await house.administrator.get<CatalogItems>(`/catalogs/${id}/items`)).items;
const values = async (house: House, id = house.catalog.id) =>
  (await items(house, id)).map(({ value, state, otherNames }) =>
    [value, state === 'retired' ? 'retired' : '', ...otherNames].filter(Boolean).join(' | '),
  );
const itemAct = (house: House, act: Record<string, unknown>) =>
  post(house, `/catalogs/${house.catalog.id}/items/acts`, { path: [], ...act });
const answer = (house: House, slip: Slip, given: string) =>
  post(house, `/slips/${slip.id}/answers`, {
    answers: slip.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: given })),
  });
const held = async (house: House) => (await entriesOf(house.clerk, house.visits)).map(({ cells }) => cells['pilot']);
const definition = (parts: readonly unknown[], over: Partial<CatalogDefinition> = {}) => ({ ...ofRanges([]), ...over, parts });
const make = async (house: House, title: string, parts: readonly unknown[], over: Partial<CatalogDefinition> = {}) => {
  const made = await house.administrator.call<{ id: string } & Problem>('POST', '/catalogs', {
    title,
    note: '',
    definition: definition(parts, over),
  });
  return { ...made, id: made.body.id };
};
const range = (house: House) => ({ kind: 'range', join: 'or', rangeId: house.rangeId, label: null, companions: [] });

describe('composing', () => {
  it('joins typed values, ranges and other catalogs, and follows what they do', async () => {
    const house = await openHouse(running, visits);
    const { id } = await make(
      house,
      'Others',
      [
        { kind: 'typed', join: 'or', values: [' Ada  Brisk ', 'Ada Brisk', 'Rook Tansy'] },
        { kind: 'catalog', join: 'or', catalogId: house.catalog.id },
        { kind: 'typed', join: 'without', values: ['Bryn Calloway'] },
      ],
      { order: { by: 'alphabetical' } },
    );
    expect(await values(house, id)).toEqual(['Ada Brisk', 'Rook Tansy', 'Tam Ossel']);
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [inserting('Wenna Hallet')] });
    expect(await values(house, id)).toEqual(['Ada Brisk', 'Rook Tansy', 'Tam Ossel', 'Wenna Hallet']);
  });
  it('is tried before it is set; what would go and is held is asked about', async () => {
    const house = await openHouse(running, visits);
    const filter = {
      all: true,
      conditions: [
        { field: 'value', is: 'contains', value: 'o' },
        { field: 'value', is: 'is not', value: 'Tam Ossel' },
      ],
    };
    const wanted = definition([range(house)], { filter: filter as CatalogDefinition['filter'] });
    const trial = await house.administrator.call<DefinitionTrial>('POST', `/catalogs/${house.catalog.id}/trial`, wanted);
    expect(trial.body).toMatchObject({ offered: 2, levels: 1, first: ['Bryn Calloway', 'Rook Tansy'] });
    const { body } = await house.administrator.call<Told>('PUT', `/catalogs/${house.catalog.id}/definition`, wanted);
    expect(body.slip!.questions.map(({ value }) => value)).toEqual(['Tam Ossel']);
    expect(await values(house)).toHaveLength(3);
    expect((await answer(house, body.slip!, 'retired')).status).toBe(200);
    expect(await values(house)).toEqual(['Bryn Calloway', 'Rook Tansy', 'Tam Ossel | retired']);
  });
  it('says that a filter would leave nothing', async () => {
    const house = await openHouse(running, []);
    const wanted = definition([range(house)], { filter: { all: true, conditions: [{ field: 'value', is: 'is', value: 'nobody' }] } });
    const { body } = await house.administrator.call<Told>('PUT', `/catalogs/${house.catalog.id}/definition`, wanted);
    expect(body.notes).toEqual(['Pilots offers nothing now.']);
    expect((await house.administrator.get<Upkeep>('/upkeep')).empty).toEqual([
      { catalogId: house.catalog.id, words: 'The filter of Pilots leaves nothing: none of 3 values passes it.' },
    ]);
  });
  it('refuses a cycle and names it, also one through a bound field', async () => {
    const house = await openHouse(running, visits);
    const { id } = await make(house, 'Outer', [{ kind: 'catalog', join: 'or', catalogId: house.catalog.id }]);
    const through = await house.administrator.call(
      'PUT',
      `/catalogs/${house.catalog.id}/definition`,
      definition([{ kind: 'catalog', join: 'or', catalogId: id }]),
    );
    expect([through.body.code, through.body.detail]).toEqual([
      'cycle',
      'The catalog would feed itself: Pilots takes from Outer takes from Pilots. Leave one of these parts out.',
    ]);
    const field = await house.administrator.call(
      'PUT',
      `/catalogs/${house.catalog.id}/definition`,
      definition([{ kind: 'query', join: 'or', registerId: house.visits.id, value: 'pilot', companions: [] }]),
    );
    expect(field.body.code).toBe('cycle');
  });
  it.each([
    [{ kind: 'range', join: 'or' }, 'not-valid'],
    [{ kind: 'range', join: 'or', rangeId: '00000000-0000-4000-8000-000000000000' }, 'not-found'],
    [{ kind: 'linked', join: 'or', sourceId: '00000000-0000-4000-8000-000000000000' }, 'not-found'],
    [{ kind: 'typed', join: 'or', values: ['a\u0000'] }, 'value-refused'],
    [{ kind: 'nothing', join: 'or' }, 'not-valid'],
    [{ kind: 'constructor', join: 'or' }, 'not-valid'],
    [{ kind: 'typed', join: 'or', values: ['a'], rangeId: '00000000-0000-4000-8000-000000000000' }, 'not-valid'],
    [null, 'not-valid'],
    [[{ kind: 'typed', join: 'or', values: ['a'] }], 'not-valid'],
  ])('refuses the part %j: %s', async (part, code) => {
    const house = await openHouse(running, []);
    expect((await make(house, 'New', [part])).body.code).toBe(code);
  });
});

describe('a query over entries', () => {
  it('follows the entries; a change that others depend on waits for an administrator', async () => {
    const house = await openHouse(running, visits);
    const { id } = await make(house, 'Visit numbers', [
      { kind: 'query', join: 'or', registerId: house.visits.id, value: 'visit', companions: ['pilot'] },
    ]);
    expect((await items(house, id)).map(({ value, companions }) => [value, companions?.['pilot']])).toEqual([
      ['V1', 'Tam Ossel'],
      ['V2', 'Tam Ossel'],
      ['V3', 'Bryn Calloway'],
    ]);
    const [entry] = await entriesOf(house.clerk, house.visits);
    const edit = (text: string, version: number) =>
      house.clerk.call<Problem>('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, { field: 'visit', text, version });
    expect((await edit('V9', 1)).status).toBe(200);
    expect(await values(house, id)).toEqual(['V9', 'V2', 'V3']);
    // Another sheet takes its values from there and holds one.
    const made = await house.administrator.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: 'Log' });
    const sheet = (await house.administrator.get<BuildView>('/build')).sheets.find((known) => known.id === made.body.id)!;
    const field = await house.administrator.call<{ id: string }>('POST', `/registers/${sheet.registers[0]!.id}/fields`, {
      heading: 'Of visit',
      kind: 'text',
    });
    await house.administrator.call('PUT', `/fields/${field.body.id}/rule`, {
      kind: 'catalog',
      catalogId: id,
      mayBeBlank: true,
      others: 'refuse',
      hint: '',
      refusalText: '',
    });
    const { body: added } = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${sheet.registers[0]!.id}/entries`, {
      count: 1,
    });
    expect(
      (
        await house.clerk.call('PATCH', `/registers/${sheet.registers[0]!.id}/entries/${added.entries[0]!}`, {
          field: 'of_visit',
          text: 'v9',
          version: 1,
        })
      ).status,
    ).toBe(200);
    const late = await edit('V10', 2);
    expect([late.status, late.body.code]).toEqual([409, 'slip-open']);
    expect(late.body.detail).toContain('1 entry holds “V9”');
    const [slip] = await house.administrator.get<Slip[]>('/slips');
    await answer(house, slip!, 'corrected');
    expect(await values(house, id)).toEqual(['V10 | V9', 'V2', 'V3']);
    await until(async () => (await entriesOf(house.clerk, sheet.registers[0]!))[0]!.cells['of_visit'] === 'V10');
  });
});

describe('items, from the catalog page', () => {
  it('are added where the catalog keeps its values; a fixed end asks first', async () => {
    const house = await openHouse(running, visits);
    const add = (body: Record<string, unknown>) => post(house, `/catalogs/${house.catalog.id}/items`, { path: [], ...body });
    expect((await add({ value: '  Nell   Farrow ' })).body.notes).toEqual(['“Nell Farrow” is offered now in 1 field.']);
    expect((await add({ value: 'nell farrow' })).body.code).toBe('name-taken');
    await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { ends: 'fixed' });
    expect((await add({ value: 'Ada Brisk' })).body.code).toBe('range-fixed');
    expect((await add({ value: 'Ada Brisk', widen: true })).status).toBe(200);
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell Farrow', 'Ada Brisk']);
  });
  it('are corrected: the slip proposes it, entries follow, the old spelling is understood', async () => {
    const house = await openHouse(running, visits);
    const { body } = await itemAct(house, { act: 'correct', value: 'Tam Ossel', to: 'Wenna Hallet' });
    expect(body.slip!.questions[0]).toMatchObject({ value: 'Tam Ossel', becomes: 'Wenna Hallet', proposed: 'corrected' });
    await answer(house, body.slip!, 'corrected');
    expect(await values(house)).toEqual(['Wenna Hallet | Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    expect(await held(house)).toEqual(['Wenna Hallet', 'Wenna Hallet', 'Bryn Calloway']);
    // One that no entry holds is live at once, and remembered all the same.
    await itemAct(house, { act: 'correct', value: 'Rook Tansy', to: 'Rook Tansey' });
    expect(await values(house)).toContain('Rook Tansey | Rook Tansy');
  });
  it('are merged: the two become one, entries follow', async () => {
    const house = await openHouse(running, visits);
    expect((await itemAct(house, { act: 'merge', value: 'Tam Ossel', to: 'Tam Ossel' })).body.code).toBe('not-valid');
    const { body } = await itemAct(house, { act: 'merge', value: 'Tam Ossel', to: 'Bryn Calloway' });
    expect(body.slip!.questions[0]).toMatchObject({ value: 'Tam Ossel', becomes: 'Bryn Calloway', merges: true, proposed: 'corrected' });
    await answer(house, body.slip!, 'corrected');
    expect(await values(house)).toEqual(['Bryn Calloway | Tam Ossel', 'Rook Tansy']);
    expect(await held(house)).toEqual(['Bryn Calloway', 'Bryn Calloway', 'Bryn Calloway']);
    expect((await entriesOf(house.administrator, house.pilots)).map(({ cells }) => cells['value'])).toEqual([
      'Bryn Calloway',
      'Rook Tansy',
    ]);
  });
  it('are retired while they stand in their source, offered again, removed and moved', async () => {
    const house = await openHouse(running, visits);
    const { body } = await itemAct(house, { act: 'retire', value: 'Rook Tansy' });
    expect(body.slip).toBeNull();
    expect(await values(house)).toContain('Rook Tansy | retired');
    await itemAct(house, { act: 'restore', value: 'Rook Tansy' });
    await itemAct(house, { act: 'move', value: 'Rook Tansy', before: 'Tam Ossel' });
    expect(await values(house)).toEqual(['Rook Tansy', 'Tam Ossel', 'Bryn Calloway']);
    await itemAct(house, { act: 'remove', value: 'Rook Tansy' });
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway']);
    const gone = await itemAct(house, { act: 'remove', value: 'Tam Ossel' });
    await answer(house, gone.body.slip!, 'retired');
    await itemAct(house, { act: 'restore', value: 'Tam Ossel' });
    expect(await values(house)).toEqual(['Bryn Calloway', 'Tam Ossel']);
  });
  it('are typed at once into a catalog that is composed of nothing yet', async () => {
    const house = await openHouse(running, []);
    const { id } = await make(house, 'Moods', []);
    for (const value of ['calm', 'brisk']) expect((await post(house, `/catalogs/${id}/items`, { path: [], value })).status).toBe(200);
    expect((await house.administrator.get<CatalogItems>(`/catalogs/${id}/items`)).items.map(({ value }) => value)).toEqual([
      'calm',
      'brisk',
    ]);
  });
  it('are retired without a second question, and keep the label under which they were shown', async () => {
    const house = await openHouse(running, visits);
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/items/kept`, {
      path: [],
      value: 'Tam Ossel',
      label: 'Tam',
      otherNames: [],
    });
    const { body } = await itemAct(house, { act: 'retire', value: 'Tam Ossel' });
    expect(body).toMatchObject({ slip: null, notes: [expect.stringContaining('“Tam Ossel” is retired')] });
    await itemAct(house, { act: 'restore', value: 'Tam Ossel' });
    // Taken out of its source and answered as retired, it is still shown under its label.
    const gone = await itemAct(house, { act: 'remove', value: 'Tam Ossel' });
    await answer(house, gone.body.slip!, 'retired');
    expect((await items(house)).find(({ value }) => value === 'Tam Ossel')).toMatchObject({ label: 'Tam', state: 'retired' });
  });
  it('keep label, note, colour, days and other names, which follow a correction', async () => {
    const house = await openHouse(running, visits);
    const keep = (body: Record<string, unknown>) =>
      house.administrator.call<Told>('PUT', `/catalogs/${house.catalog.id}/items/kept`, {
        path: [],
        value: 'Rook Tansy',
        otherNames: [],
        ...body,
      });
    expect((await keep({ label: 'Rook', note: 'day watch', colour: 'teal', validUntil: '2020-01-01', otherNames: ['R. T.'] })).status).toBe(
      200,
    );
    expect((await keep({ validFrom: '2026-02-01', validUntil: '2026-01-01' })).body.faults).toHaveProperty('validUntil');
    expect((await keep({ colour: 'pink' })).body.code).toBe('not-valid');
    expect((await keep({ otherNames: ['Tam Ossel'] })).body.code).toBe('name-taken');
    await itemAct(house, { act: 'correct', value: 'Rook Tansy', to: 'Rook Tansey' });
    expect((await items(house)).find(({ value }) => value === 'Rook Tansey')).toMatchObject({
      label: 'Rook',
      note: 'day watch',
      colour: 'teal',
      validUntil: '2020-01-01',
    });
    const [entry] = await entriesOf(house.clerk, house.visits);
    const typed = await house.clerk.call<Problem>('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'pilot',
      text: 'Rook',
      version: 1,
    });
    expect(typed.body).toMatchObject({ code: 'value-refused', verdict: 'no longer valid' });
  });
});

describe('a catalog that one holds', () => {
  it('is brought up to date by what has changed since, and fetched whole where that is not known', async () => {
    const house = await openHouse(running, visits);
    const packedAt = (query = '', visitor = house.clerk) =>
      visitor.get<PackedCatalog | ChangedCatalog>(`/catalogs/${house.catalog.id}/items/packed${query}`);
    const whole = (await packedAt()) as PackedCatalog;
    let known: readonly Item[] = unpackItems(whole.packed);
    let { version } = whole;
    const first = version;
    const acts: readonly (() => Promise<unknown>)[] = [
      () => post(house, `/catalogs/${house.catalog.id}/items`, { path: [], value: 'Nell Harrow' }),
      () => itemAct(house, { act: 'retire', value: 'Bryn Calloway' }),
      async () => answer(house, (await itemAct(house, { act: 'correct', value: 'Tam Ossel', to: 'Tam Ossell' })).body.slip!, 'corrected'),
      () => itemAct(house, { act: 'move', value: 'Nell Harrow', before: 'Rook Tansy' }),
      () => Promise.resolve(),
    ];
    for (const act of acts) {
      await act();
      const came = (await packedAt(`?since=${version}`)) as ChangedCatalog;
      expect(came.since).toBe(version);
      known = came.steps.reduce((items, step) => withItemChanges(items, step), known);
      version = came.version;
      const now = await house.clerk.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`);
      expect([known, version]).toEqual([now.items, now.version]);
    }
    expect(await packedAt(`?since=${version}`)).toMatchObject({ steps: [] });
    expect(((await packedAt(`?since=${first}`)) as ChangedCatalog).steps).toHaveLength(4);
    for (const since of [0, version + 1, 2 ** 31 - 1]) expect(await packedAt(`?since=${since}`)).toHaveProperty('packed');
    // Administrators see from which rows values come.
    expect(await packedAt(`?since=${version}`, house.administrator)).toHaveProperty('packed.homes.0');
    for (const since of ['x', '-1', '1.5', '1e99', '1&since=2'])
      expect((await house.clerk.call('GET', `/catalogs/${house.catalog.id}/items/packed?since=${since}`)).status).toBe(422);
  });
});

describe('history', () => {
  it('tells corrected from replaced, and shows each item once, as it was, on any day', async () => {
    const house = await openHouse(running, [{ pilot: 'Tam Ossel' }, { pilot: 'Rook Tansy' }]);
    const writeOver = async (from: string, text: string, answer: Answer) => {
      const row = (await entriesOf(house.administrator, house.pilots)).find(({ cells }) => cells['value'] === from)!.id;
      const { body } = await house.administrator.call<Outcome>('POST', `/registers/${house.pilots.id}/acts`, {
        acts: [{ act: 'write', cells: [{ entry: row, field: 'value', text }] }],
      });
      await house.administrator.call('POST', `/slips/${body.slip!.id}/answers`, {
        answers: [{ catalogId: house.catalog.id, value: from, answer }],
      });
    };
    await writeOver('Tam Ossel', 'Tam Osel', 'corrected');
    await writeOver('Rook Tansy', 'Zoe Arden', 'replaced');
    const changes = await house.administrator.get<CatalogChange[]>(`/catalogs/${house.catalog.id}/history`);
    expect(changes.map(({ words }) => words)).toEqual([
      ['Zoe Arden came in', 'Rook Tansy was replaced by Zoe Arden'],
      ['Tam Ossel was corrected to Tam Osel'],
    ]);
    const shownOn = async (day: Date) =>
      (await house.administrator.get<CatalogItems>(`/catalogs/${house.catalog.id}/as-of?day=${day.toISOString().slice(0, 10)}`)).items.map(
        ({ value, state, otherNames }) => [value, state, ...otherNames],
      );
    expect(await shownOn(new Date(Date.now() - 2 * 86_400_000))).toEqual([
      ['Tam Ossel', 'offered'],
      ['Bryn Calloway', 'offered'],
      ['Rook Tansy', 'offered'],
    ]);
    expect(await shownOn(new Date(Date.now() + 86_400_000))).toEqual([
      ['Tam Osel', 'offered', 'Tam Ossel'],
      ['Bryn Calloway', 'offered'],
      ['Zoe Arden', 'offered'],
      ['Rook Tansy', 'retired'],
    ]);
  });
  it('says who changed what, shows the catalog as it stood, and takes one change back', async () => {
    const house = await openHouse(running, []);
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [insertingAll(['Nell', 'Ada'])] });
    // What was done so far was done yesterday.
    await running.database.kysely
      .updateTable('catalog_changes')
      .set({ at: new Date(Date.now() - 86_400_000) })
      .where('house_id', '=', house.id)
      .execute();
    const [, bryn] = await entriesOf(house.administrator, house.pilots);
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [{ act: 'delete', entries: [bryn!.id] }] });
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [{ act: 'sort', field: 'value', direction: 'up' }] });
    expect(await values(house)).toEqual(['Ada', 'Nell', 'Rook Tansy', 'Tam Ossel']);
    const changes = await house.administrator.get<CatalogChange[]>(`/catalogs/${house.catalog.id}/history`);
    expect(changes.map(({ words, by }) => [words[0], by])).toEqual([
      ['its values were put in another order', 'The administrator'],
      ['Bryn Calloway went out', 'The administrator'],
      ['Nell came in', 'The administrator'],
    ]);
    const asOf = async (ago: number) =>
      (
        await house.administrator.get<CatalogItems>(
          `/catalogs/${house.catalog.id}/as-of?day=${new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10)}`,
        )
      ).items.map(({ value }) => value);
    expect(await asOf(1)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell', 'Ada']);
    expect(await asOf(2)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    expect((await post(house, '/acts/taken-back', { act: changes[1]!.act })).status).toBe(200);
    expect(await values(house)).toContain('Bryn Calloway');
    expect((await house.administrator.call('GET', `/catalogs/${house.catalog.id}/as-of?day=never`)).body.code).toBe('not-valid');
  });
});

describe('acts on a sheet', () => {
  it('are taken back and done again, anchors included; what is held is asked about', async () => {
    const house = await openHouse(running, visits);
    await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { ends: 'fixed' });
    const list = async () => (await entriesOf(house.administrator, house.pilots)).map(({ cells }) => cells['value']);
    const again = (as: 'undo' | 'redo') => post(house, `/sheets/${house.pilots.sheetId}/${as}`, {});
    const [, , rook] = await entriesOf(house.administrator, house.pilots);
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [{ act: 'delete', entries: [rook!.id] }, insertingAll(['Past'])] });
    expect([await list(), await values(house)]).toEqual([
      ['Tam Ossel', 'Bryn Calloway', 'Past'],
      ['Tam Ossel', 'Bryn Calloway'],
    ]);
    await again('undo');
    expect([await list(), await values(house)]).toEqual([
      ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'],
      ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'],
    ]);
    await again('redo');
    expect(await list()).toEqual(['Tam Ossel', 'Bryn Calloway', 'Past']);
    expect((await again('redo')).body.notes).toEqual(['There is nothing to redo.']);
    await again('undo');
    const corrected = await post(house, `/registers/${house.pilots.id}/acts`, {
      acts: [
        {
          act: 'write',
          cells: [{ entry: (await entriesOf(house.administrator, house.pilots))[0]!.id, field: 'value', text: 'Tamsin Ossel' }],
        },
      ],
    });
    await answer(house, corrected.body.slip!, 'corrected');
    await until(
      async () => (await house.administrator.get<{ carries: unknown[] }>(`/catalogs/${house.catalog.id}/lineage`)).carries.length === 0,
    );
    const back = await again('undo');
    expect(back.body.slip!.questions[0]).toMatchObject({ value: 'Tamsin Ossel', becomes: 'Tam Ossel', proposed: 'corrected' });
  });
});

describe('a block that is sent in parts', () => {
  it('is one act: taken back as one, and joined by nobody else', async () => {
    const house = await openHouse(running, []);
    const send = (texts: readonly string[], joins?: number) =>
      post(house, `/registers/${house.pilots.id}/acts`, { acts: [insertingAll(texts)], ...(joins && { joins }) });
    const first = await send(['Nell', 'Ada']);
    expect((await send(['Odo'], first.body.act)).body.act).toBe(first.body.act);
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell', 'Ada', 'Odo']);
    await post(house, `/sheets/${house.pilots.sheetId}/undo`, {});
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    // What is taken back cannot be gone on with; nothing of the part is stored.
    expect((await send(['Pim'], first.body.act)).status).toBe(404);
    const other = await openHouse(running, []);
    expect(
      (await post(other, `/registers/${other.pilots.id}/acts`, { acts: [insertingAll(['Pim'])], joins: (await send(['Rue'])).body.act }))
        .status,
    ).toBe(404);
    await post(house, `/sheets/${house.pilots.sheetId}/undo`, {});
    await post(house, `/sheets/${house.pilots.sheetId}/redo`, {});
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Rue']);
  });
  it('names a field for each of its texts', async () => {
    const house = await openHouse(running, []);
    const refused = await post(house, `/registers/${house.pilots.id}/acts`, {
      acts: [{ act: 'insert', fields: ['value'], rows: [['a', 'b']] }],
    });
    expect([refused.status, refused.body.code]).toEqual([422, 'not-valid']);
    expect(
      (await post(house, `/registers/${house.pilots.id}/acts`, { acts: [{ act: 'insert', fields: ['value'], rows: [[1]] }] })).status,
    ).toBe(422);
  });
});

describe('a catalog ordered by use', () => {
  it('has the most used first, as counted when it was defined and from time to time', async () => {
    const house = await openHouse(running, [{ pilot: 'Rook Tansy' }, { pilot: 'Rook Tansy' }, { pilot: 'Bryn Calloway' }]);
    const definition = {
      parts: [{ kind: 'range', join: 'or', rangeId: house.rangeId }],
      filter: null,
      distinct: 'value',
      order: { by: 'used' },
    };
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/definition`, definition);
    expect(await values(house)).toEqual(['Rook Tansy', 'Bryn Calloway', 'Tam Ossel']);
    const { body } = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${house.visits.id}/entries`, { count: 3 });
    for (const entry of body.entries)
      await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry}`, { field: 'pilot', text: 'Tam Ossel', version: 1 });
    expect(await values(house)).toEqual(['Rook Tansy', 'Bryn Calloway', 'Tam Ossel']);
    await running.recount(house.id);
    expect(await values(house)).toEqual(['Tam Ossel', 'Rook Tansy', 'Bryn Calloway']);
  });
});

describe('a look at a change of a range', () => {
  it('says what comes in, goes out, is spelled otherwise and is held, and changes nothing', async () => {
    const house = await openHouse(running, visits);
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [insertingAll(['Nell', 'tam  OSSEL'])] });
    const entries = await entriesOf(house.administrator, house.pilots);
    const place = { registerIds: [house.pilots.id], fields: ['value'], entries: entries.slice(1).map(({ id }) => id) };
    const look = await house.administrator.call<RangeLook>('POST', `/ranges/${house.rangeId}/look`, { place });
    expect(look.body).toMatchObject({
      takes: 4,
      comesIn: [],
      goesOut: ['Tam Ossel'],
      respelled: [],
      counts: { comesIn: 0, goesOut: 1, respelled: 0 },
      entries: 2,
    });
    const short = await house.administrator.call<RangeLook>('POST', `/ranges/${house.rangeId}/look`, {
      ends: 'fixed',
      place: { ...place, entries: [entries[4]!.id] },
    });
    expect(short.body).toMatchObject({ takes: 1, goesOut: ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell'] });
    expect(await values(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell', 'tam OSSEL']);
    expect((await house.administrator.call('POST', `/ranges/${house.rangeId}/look`, { endEntry: house.pilotField.id })).body.code).toBe(
      'no-cells',
    );
  });
});

describe('tables, headings and the doctor', () => {
  it('make a catalog with levels from a table; a group stands once, companions come along', async () => {
    const house = await openHouse(running, []);
    const fields = [
      { heading: 'Group', kind: 'text' },
      { heading: 'Item', kind: 'text' },
      { heading: 'Length', kind: 'number' },
    ];
    const table = await house.administrator.call<{ id: string }>('POST', '/tables', {
      sheetId: house.pilots.sheetId,
      heading: 'Cargo',
      fields,
    });
    await post(house, `/registers/${table.body.id}/acts`, {
      acts: [
        {
          act: 'insert',
          fields: ['group', 'item', 'length'],
          rows: [
            ['Grain', 'Wheat', '1.50'],
            ['', 'Oats', 'long'],
            ['Fish', 'Cod', '2'],
          ],
        },
      ],
    });
    const entries = await entriesOf(house.administrator, { id: table.body.id } as never);
    expect(entries.map(({ cells }) => cells['length'])).toEqual(['1.5', 'long', '2']);
    const made = await post(house, '/ranges', {
      name: 'Cargo',
      shape: 'levels',
      inherits: true,
      ends: 'last',
      place: { registerIds: [table.body.id], fields: ['group', 'item'], entries: entries.map(({ id }) => id) },
    });
    expect(made.status).toBe(200);
    const { ranges } = await house.administrator.get<BuildView>('/build');
    const { id } = await make(house, 'Cargo', [
      { kind: 'range', join: 'or', rangeId: ranges.find(({ name }) => name === 'Cargo')!.id, companions: ['length'] },
    ]);
    expect((await items(house, id)).map(({ path, value, companions }) => [...path, value, companions?.['length']])).toEqual([
      ['Grain', undefined],
      ['Grain', 'Wheat', '1.5'],
      ['Grain', 'Oats', 'long'],
      ['Fish', undefined],
      ['Fish', 'Cod', '2'],
    ]);
    await post(house, `/catalogs/${id}/items`, { path: ['Grain'], value: 'Rye' });
    expect((await items(house, id)).map(({ value }) => value)).toEqual(['Grain', 'Wheat', 'Oats', 'Rye', 'Fish', 'Cod']);
    const refused = await house.administrator.call(
      'DELETE',
      `/fields/${(await house.administrator.get<BuildView>('/build')).sheets.flatMap((sheet) => sheet.registers).find((known) => known.id === table.body.id)!.fields[2]!.id}`,
    );
    expect(refused.body).toMatchObject({ code: 'in-use', users: ['catalog Cargo'] });
  });
  it('read headings as parents; retitling a list that is a value is a change like any other', async () => {
    const house = await openHouse(running, []);
    const build = await house.administrator.get<BuildView>('/build');
    const lists = build.sheets.find(({ kind }) => kind === 'source')!.registers;
    await post(house, '/ranges', {
      name: 'By heading',
      shape: 'headings',
      inherits: false,
      ends: 'gap',
      place: { registerIds: lists.map(({ id }) => id), fields: [], entries: [] },
    });
    const { ranges } = await house.administrator.get<BuildView>('/build');
    const { id } = await make(house, 'Tree', [
      { kind: 'range', join: 'or', rangeId: ranges.find(({ name }) => name === 'By heading')!.id, companions: [] },
    ]);
    expect((await items(house, id)).filter(({ path }) => path.length === 0).map(({ value }) => value)).toEqual(['Pilots', 'Quays']);
    await house.administrator.call('PATCH', `/registers/${lists[1]!.id}`, { title: 'Wharves' });
    expect((await items(house, id)).filter(({ path }) => path[0] === 'Wharves').map(({ value }) => value)).toEqual(['North', 'South']);
  });
  it('put entries under a catalog by a key, and ranges under the values that name them; a wrong name is found and mended', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const quays = await make(house, 'Quays', [{ kind: 'typed', join: 'or', values: ['North', 'Pilots'] }]);
    const table = await house.administrator.call<{ id: string }>('POST', '/tables', {
      sheetId: house.pilots.sheetId,
      heading: 'Cranes',
      fields: [
        { heading: 'Crane', kind: 'text' },
        { heading: 'Quay', kind: 'text' },
      ],
    });
    await post(house, `/registers/${table.body.id}/acts`, {
      acts: [
        {
          act: 'insert',
          fields: ['crane', 'quay'],
          rows: [
            ['Big Tam', 'North'],
            ['Old Mary', 'Nrth'],
            ['Little Jo', 'North'],
          ],
        },
      ],
    });
    const keyed = {
      kind: 'keyed',
      join: 'or',
      catalogId: quays.id,
      registerId: table.body.id,
      key: 'quay',
      value: 'crane',
      companions: [],
    };
    const { id } = await make(house, 'Cranes and pilots', [keyed, { kind: 'named', join: 'or', catalogId: quays.id }]);
    const tuples = async () => (await items(house, id)).map(({ path, value }) => [...path, value].join(' › '));
    expect(await tuples()).toEqual([
      'North',
      'North › Big Tam',
      'North › Little Jo',
      'Pilots',
      'Pilots › Tam Ossel',
      'Pilots › Bryn Calloway',
      'Pilots › Rook Tansy',
    ]);
    const [finding] = (await house.administrator.get<Upkeep>('/upkeep')).parents;
    expect(finding).toMatchObject({ catalogId: id, words: 'An entry of Cranes names the parent “Nrth”, which almost matches “North”.' });
    expect((await post(house, `/catalogs/${id}/parents/cures`, { words: finding!.words })).status).toBe(200);
    expect((await post(house, `/catalogs/${id}/parents/cures`, { words: finding!.words })).body.code).toBe('not-found');
    expect(await tuples()).toContain('North › Old Mary');
    await post(house, `/catalogs/${id}/items`, { path: ['North'], value: 'Grey Ann' });
    expect(await tuples()).toContain('North › Grey Ann');
    const byName = await make(house, 'Named', [{ kind: 'named', join: 'or', catalogId: quays.id }]);
    await post(house, `/catalogs/${byName.id}/items`, { path: ['Pilots'], value: 'Wenna Hallet' });
    expect(await values(house)).toContain('Wenna Hallet');
    expect(await tuples()).toContain('Pilots › Wenna Hallet');
    const renamed = await post(house, `/catalogs/${id}/items/acts`, {
      path: ['North'],
      value: 'Grey Ann',
      act: 'correct',
      to: 'Grey Anne',
    });
    expect(renamed.status).toBe(200);
    expect(await tuples()).toContain('North › Grey Anne');
    expect((await post(house, `/catalogs/${id}/items/acts`, { path: [], value: 'North', act: 'correct', to: 'Northern' })).body.code).toBe(
      'in-use',
    );
    const quayField = (await house.administrator.get<BuildView>('/build')).sheets
      .flatMap((sheet) => sheet.registers)
      .find((known) => known.id === table.body.id)!.fields[1]!;
    expect((await house.administrator.call('DELETE', `/fields/${quayField.id}`)).body).toMatchObject({
      code: 'in-use',
      users: ['catalog Cranes and pilots'],
    });
    expect((await house.administrator.call('DELETE', `/catalogs/${quays.id}`)).body.code).toBe('in-use');
  });
  it('refuse an entry that would name itself, a catalog under itself, and what is not there', async () => {
    const house = await openHouse(running, []);
    const keyed = {
      kind: 'keyed',
      join: 'or',
      catalogId: house.catalog.id,
      registerId: house.visits.id,
      key: 'visit',
      value: 'visit',
      companions: [],
    };
    expect((await make(house, 'Itself', [keyed])).body).toMatchObject({
      code: 'not-valid',
      detail: 'A value cannot name its own parent. Choose another field.',
    });
    expect((await make(house, 'Nothing', [{ ...keyed, key: 'nowhere' }])).body.code).toBe('not-found');
    expect((await make(house, 'Nobody', [{ kind: 'named', join: 'or' }])).body).toMatchObject({
      code: 'not-valid',
      detail: 'Choose the catalog that gives the parents.',
    });
    const { id } = await make(house, 'Outer', [{ kind: 'named', join: 'or', catalogId: house.catalog.id }]);
    expect(
      (
        await house.administrator.call(
          'PUT',
          `/catalogs/${house.catalog.id}/definition`,
          definition([{ kind: 'named', join: 'or', catalogId: id }]),
        )
      ).body.code,
    ).toBe('cycle');
  });
  it('is cured in one step, and a range that somebody else changed is not changed blindly', async () => {
    const house = await openHouse(running, []);
    await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { ends: 'fixed' });
    await post(house, `/registers/${house.pilots.id}/acts`, { acts: [inserting('Wenna Hallet')] });
    const [line] = await house.administrator.get<RangeLine[]>('/ranges');
    expect(line).toMatchObject({
      taken: 3,
      leftOut: [{ why: 'past the end', count: 1 }],
      findings: [{ kind: 'past the end', cure: { words: 'Take it in', effect: '“Wenna Hallet” comes in.' } }],
    });
    const { kind, words, rangeId } = line!.findings[0]!;
    expect((await post(house, '/ranges/cures', { rangeId, kind, words })).status).toBe(200);
    expect(await values(house)).toContain('Wenna Hallet');
    expect((await post(house, '/ranges/cures', { rangeId, kind, words })).body.code).toBe('not-found');
    expect((await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { name: 'Other', seen: 'as it was' })).body.code).toBe(
      'range-changed',
    );
  });
});

describe('what two administrators change at once', () => {
  it('is changed by one of them: a catalog, a rule; the other is told, and goes on from what is there', async () => {
    const house = await openHouse(running, []);
    const { administrator } = house;
    const catalog = async () => (await administrator.get<BuildView>('/build')).catalogs.find(({ id }) => id === house.catalog.id)!;
    const { definition } = await catalog();
    const composed = (order: string, seen: string) =>
      administrator.call<Problem>('PUT', `/catalogs/${house.catalog.id}/definition`, { ...definition, order: { by: order }, seen });
    const mark = definitionMark(definition);
    const both = await Promise.all([composed('alphabetical', mark), composed('reversed', mark)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(both.find(({ status }) => status === 409)!.body).toMatchObject({
      code: 'catalog-changed',
      detail: 'Somebody else has composed Pilots anew since you began. Look at how it is composed now, then change it.',
    });
    const now = (await catalog()).definition;
    expect(now.order.by).toBe(both[0]!.status === 200 ? 'alphabetical' : 'reversed');
    expect((await composed('kept', definitionMark(now))).status).toBe(200);

    const field = house.visits.fields.find(({ key }) => key === 'pilot')!;
    const set = (hint: string, seen: string) =>
      administrator.call<Problem>('PUT', `/fields/${field.id}/rule`, { ...ruleOfPilot, catalogId: house.catalog.id, hint, seen });
    const rules = await Promise.all([set('One', ruleMark(field.rule)), set('Other', ruleMark(field.rule))]);
    expect(rules.map(({ status }) => status).sort()).toEqual([204, 409]);
    expect(rules.find(({ status }) => status === 409)!.body.code).toBe('rule-changed');
  });
});

const ruleOfPilot = { kind: 'catalog', mayBeBlank: true, others: 'refuse', refusalText: '', noRepeats: false };

describe('sheets', () => {
  it('are duplicated with their entries and counts, put in another order, and shown to clerks only when they are to be', async () => {
    const house = await openHouse(running, []);
    const copy = await house.administrator.call<{ id: string }>('POST', `/sheets/${house.pilots.sheetId}/copies`, {});
    const build = await house.administrator.get<BuildView>('/build');
    const copied = build.sheets.find(({ id }) => id === copy.body.id)!;
    expect([copied.title, (await entriesOf(house.administrator, copied.registers[0]!)).map(({ cells }) => cells['value'])]).toEqual([
      'Lists 2',
      ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'],
    ]);
    await post(house, `/sheets/${copy.body.id}/place`, { before: house.pilots.sheetId });
    expect(
      (await house.administrator.get<BuildView>('/build')).sheets.filter(({ kind }) => kind === 'source').map(({ title }) => title),
    ).toEqual(['Lists 2', 'Lists']);
    expect((await house.clerk.call('GET', `/registers/${house.pilots.id}/entries`)).status).toBe(404);
    await house.administrator.call('PATCH', `/sheets/${house.pilots.sheetId}`, { shown: true });
    expect((await entriesOf(house.clerk, house.pilots)).length).toBe(3);
    expect((await house.clerk.call('POST', `/registers/${house.pilots.id}/acts`, { acts: [inserting('X')] })).status).toBe(403);
  });
});
