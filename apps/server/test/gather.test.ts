// A column is made a list, over a new catalog or one that is there, and is what it was when that is taken back.
import type { BuildView, ColumnView, EditOutcome, FieldCount, Gathered, GatherTakenBack, Problem, Upkeep } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entriesOf, openHouse, startServer, until, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

describe('a column that wants to be a list', () => {
  it('is gathered, cleaned and bound in one act; yesterday’s spellings are understood', async () => {
    const cargo = ['Gravel', 'gravel', 'Gravel ', 'Gravle', 'Grain', 'Road salt'];
    const house = await openHouse(
      running,
      Array.from({ length: 60 }, (_, at) => ({ visit: cargo[at % 12 < 6 ? 0 : at % 6]! })),
    );
    const field = house.visits.fields.find(({ key }) => key === 'visit')!.id;
    const { administrator, clerk } = house;
    const profile = await administrator.get<ColumnView>(`/fields/${field}/profile`);
    expect(profile).toMatchObject({ entries: 60, distinct: 6, wantsToBeList: true });
    expect(profile.values.map(({ value, entries, spellings }) => [value, entries, spellings.length])).toEqual([
      ['Gravel', 50, 3],
      ['Grain', 5, 0],
      ['Road salt', 5, 0],
    ]);
    expect((await administrator.get<Upkeep>('/upkeep')).columns.map(({ fieldId }) => fieldId)).toContain(field);
    const values = profile.values.map(({ value, spellings }) => ({ value, spellings: spellings.map((one) => one.value) }));
    const twoWays = [...values, { value: 'Stone', spellings: ['gravel'] }];
    expect((await administrator.call<Problem>('POST', `/fields/${field}/list`, { title: 'Cargo', values: twoWays })).body.detail).toBe(
      '“gravel” is a spelling of two values. Decide for one of them.',
    );
    const { body } = await administrator.call<{ catalogId: string }>('POST', `/fields/${field}/list`, { title: 'Cargo', values });
    const [count] = (await clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`)).filter(({ fieldId }) => fieldId === field);
    expect(count).toMatchObject({ held: 60, outside: 0 });
    const held = async () => (await entriesOf(clerk, house.visits)).map(({ cells }) => cells['visit']);
    expect(new Set(await held())).toEqual(new Set(['Gravel', 'Grain', 'Road salt']));
    const [first] = await entriesOf(clerk, house.visits);
    expect(
      (
        await clerk.call<EditOutcome>('PATCH', `/registers/${house.visits.id}/entries/${first!.id}`, {
          field: 'visit',
          text: 'Gravle',
          version: first!.version,
        })
      ).body.verdict,
    ).toMatchObject({ verdict: 'taken', value: 'Gravel' });
    const build = await administrator.get<BuildView>('/build');
    expect(build.sheets.find(({ title }) => title === 'Gathered lists')!.registers.map(({ title }) => title)).toEqual(['Cargo']);
    expect(build.catalogs.find(({ id }) => id === body.catalogId)).toMatchObject({ title: 'Cargo' });
    // Bound already, it is not gathered again.
    expect((await administrator.call<Problem>('POST', `/fields/${field}/list`, { title: 'Again', values })).body.code).toBe('in-use');
  });
  it('is what it was when the list is taken back: its rule, every spelling but what was written since, and no list', async () => {
    const cargo = ['Gravel', 'gravel', 'Gravel ', 'Grain', 'grain'];
    const house = await openHouse(
      running,
      Array.from({ length: 40 }, (_, at) => ({ visit: cargo[at % 5]! })),
    );
    const field = house.visits.fields.find(({ key }) => key === 'visit')!.id;
    const { administrator, clerk } = house;
    const held = async () => (await entriesOf(clerk, house.visits)).map(({ cells }) => cells['visit']);
    const before = await held();
    expect((await administrator.call<Problem>('DELETE', `/fields/${field}/list`)).body.code).toBe('not-found');
    const { values: proposed } = await administrator.get<ColumnView>(`/fields/${field}/profile`);
    await administrator.call('POST', `/fields/${field}/list`, {
      title: 'Cargo',
      values: proposed.map(({ value, spellings }) => ({ value, spellings: spellings.map((one) => one.value) })),
    });
    const list = () => administrator.get<Gathered | null>(`/fields/${field}/list`);
    expect(await list()).toMatchObject({ by: 'The administrator', spellings: 3 });
    await until(async () => (await list())?.following === false);
    const [first] = await entriesOf(clerk, house.visits);
    await clerk.call('PATCH', `/registers/${house.visits.id}/entries/${first!.id}`, {
      field: 'visit',
      text: 'Grain',
      version: first!.version,
    });
    expect((await administrator.call<GatherTakenBack>('DELETE', `/fields/${field}/list`)).body).toEqual({ kept: [] });
    const after = ['Grain', ...before.slice(1)];
    await until(async () => JSON.stringify(await held()) === JSON.stringify(after));
    const build = await administrator.get<BuildView>('/build');
    expect(build.catalogs.map(({ title }) => title)).toEqual(['Pilots']);
    expect(build.sheets.find(({ title }) => title === 'Gathered lists')!.registers).toEqual([]);
    expect(
      build.sheets.flatMap((sheet) => sheet.registers.flatMap(({ fields }) => fields)).find(({ id }) => id === field)!.rule,
    ).toBeNull();
    expect(await list()).toBeNull();
    const counts = await administrator.get<ColumnView>(`/fields/${field}/profile`);
    expect(counts).toMatchObject({ entries: 40, distinct: 5 });
  });
  it('is proposed a catalog that is there and has most of its values; what it does not have is said', async () => {
    const house = await openHouse(
      running,
      ['Tam Ossel', 'tam  ossel', 'Bryn Calloway', 'Somebody'].flatMap((visit) => Array.from({ length: 8 }, () => ({ visit }))),
    );
    const field = house.visits.fields.find(({ key }) => key === 'visit')!.id;
    const { standing } = await house.administrator.get<ColumnView>(`/fields/${field}/profile`);
    expect(standing).toEqual([
      {
        catalogId: house.catalog.id,
        values: [
          { value: 'Tam Ossel', spellings: [{ value: 'tam  ossel', entries: 8 }] },
          { value: 'Bryn Calloway', spellings: [] },
        ],
        missing: [{ value: 'Somebody', entries: 8 }],
      },
    ]);
    const bind = (values: readonly { value: string; spellings: readonly string[] }[]) =>
      house.administrator.call<Problem>('POST', `/fields/${field}/list`, { title: 'Pilots', catalogId: house.catalog.id, values });
    expect((await bind([{ value: 'Somebody', spellings: [] }])).body).toMatchObject({
      code: 'not-valid',
      detail: '“Somebody” is not offered by Pilots. Look at the proposal again.',
    });
    expect((await bind([{ value: 'Tam Ossel', spellings: ['tam  ossel'] }])).status).toBe(201);
    const [count] = (await house.clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`)).filter(
      ({ fieldId }) => fieldId === field,
    );
    expect(count).toMatchObject({ held: 32, outside: 8 });
    await until(async () => (await house.administrator.get<Gathered>(`/fields/${field}/list`)).following === false);
    await house.administrator.call('DELETE', `/fields/${field}/list`);
    await until(
      async () => (await entriesOf(house.clerk, house.visits)).filter(({ cells }) => cells['visit'] === 'tam  ossel').length === 8,
    );
    expect((await house.administrator.get<BuildView>('/build')).catalogs.map(({ id }) => id)).toEqual([house.catalog.id]);
  });
});
