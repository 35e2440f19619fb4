// Taking back on entry sheets: one's own cells and entries, and what that means where entries are values elsewhere.
import type { BlockOutcome, CatalogItems, FieldCount, Problem, TakenBack } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, quayAndBerth, ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

describe('taking back on an entry sheet', () => {
  it('gives each cell of an act what it held before, clears and fills included, and can be turned round again', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths);
    await made.rule('quay', quay);
    await made.rule('berth', berth);
    const entry = await made.entry({ quay: 'North', berth: 'N1' });
    const back = (cells: unknown, visitor = made.house.clerk) => visitor.call<TakenBack & Problem>('POST', `/registers/${made.register.id}/entries/taken-back`, { cells });
    const moved = await made.edit(entry, 'quay', 'South');
    expect(moved.body.written!.map(({ field }) => field).sort()).toEqual(['berth', 'quay']);
    // Nobody takes back what somebody else has done.
    expect((await back(moved.body.written, made.house.administrator)).body).toMatchObject({ changed: 2, written: [] });
    const undone = await back(moved.body.written);
    expect([undone.body.changed, await made.cells(entry)]).toEqual([0, { quay: 'North', berth: 'N1' }]);
    await back(undone.body.written);
    expect(await made.cells(entry)).toEqual({ quay: 'South' });
    // What was changed since stays; what was not comes back.
    await made.edit(entry, 'quay', 'North');
    expect((await back(moved.body.written)).body.changed).toBe(1);
    expect(await made.cells(entry)).toEqual({ quay: 'North', berth: 'N1' });
    const counts = await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`);
    expect(counts.map(({ held, outside }) => [held, outside])).toEqual([[1, 0], [1, 0], [0, 0], [0, 0]]);
  });
  it('takes a block back as one act, also a value that is no longer offered', async () => {
    const made = await makeEntrySheet(running, [['Code', 'text'], ['Note', 'text']]);
    await made.rule('code', { kind: 'typed', values: ['a', 'b'] });
    const entries = [await made.entry({ code: 'a' }), await made.entry({ code: 'b' })];
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, { cells: entries.flatMap((entry) => [{ entry, field: 'code', text: '' }, { entry, field: 'note', text: 'x' }]) });
    await made.rule('code', { kind: 'typed', values: ['c'] });
    await made.house.clerk.call('POST', `/registers/${made.register.id}/entries/taken-back`, { cells: body.written });
    expect([await made.cells(entries[0]!), await made.cells(entries[1]!)]).toEqual([{ code: 'a' }, { code: 'b' }]);
  });
  it('brings deleted entries back to their place with all they held', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }, { visit: 'V2', pilot: 'Rook Tansy' }, { visit: 'V3' }]);
    const [first, second, third] = await entriesOf(house.clerk, house.visits);
    await house.clerk.call('POST', `/registers/${house.visits.id}/entries/delete`, { entries: [first!.id, second!.id] });
    const restore = (visitor: House['clerk']) => visitor.call('POST', `/registers/${house.visits.id}/entries/restored`, { entries: [first!.id, second!.id], before: third!.id });
    expect((await restore(house.administrator)).status).toBe(404);
    expect((await restore(house.clerk)).status).toBe(200);
    expect((await restore(house.clerk)).status).toBe(404);
    expect((await entriesOf(house.clerk, house.visits)).map(({ cells }) => cells)).toEqual([{ visit: 'V1', pilot: 'Tam Ossel' }, { visit: 'V2', pilot: 'Rook Tansy' }, { visit: 'V3' }]);
    const counts = await house.clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`);
    expect(counts.map(({ held }) => held)).toEqual([3, 2, 0]);
  });
  it('brings values elsewhere back with the entries, and lets no cell of them go unasked', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }, { visit: 'V2' }, { visit: 'V3' }]);
    const { administrator, clerk, visits } = house;
    const [first, second] = await entriesOf(clerk, visits);
    const definition = { parts: [{ kind: 'query', join: 'or', registerId: visits.id, value: 'visit', companions: [] }], filter: null, distinct: 'value', order: { by: 'kept' } };
    const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', { title: 'Visits', note: '', definition });
    const offered = async () => (await administrator.get<CatalogItems>(`/catalogs/${catalog.body.id}/items`)).items.flatMap(({ value, state }) => (state === 'offered' ? value : []));
    expect(await offered()).toEqual(['V1', 'V2', 'V3']);
    await clerk.call('POST', `/registers/${visits.id}/entries/delete`, { entries: [second!.id] });
    expect(await offered()).toEqual(['V1', 'V3']);
    expect((await clerk.call('POST', `/registers/${visits.id}/entries/restored`, { entries: [second!.id], before: null })).status).toBe(200);
    expect(await offered()).toEqual(['V1', 'V3', 'V2']);
    // A new entry that begins with a value is a value elsewhere at once.
    await administrator.call('PUT', `/fields/${visits.fields.find(({ key }) => key === 'visit')!.id}/rule`, ruleDto({ kind: 'plain', begins: { with: 'value', value: 'V0' } }));
    expect((await clerk.call('POST', `/registers/${visits.id}/entries`, { count: 1 })).status).toBe(201);
    expect(await offered()).toEqual(['V1', 'V3', 'V2', 'V0']);
    expect((await clerk.call<Problem>('POST', `/registers/${visits.id}/entries/taken-back`, { cells: [{ entry: first!.id, field: 'visit', version: 1 }] })).body.code).toBe('in-use');
  });
});
