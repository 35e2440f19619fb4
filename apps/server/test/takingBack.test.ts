// Taking back on entry sheets: one's own cells and entries, and what that means where entries are values elsewhere.
import type { BlockOutcome, CatalogItems, EditOutcome, EntryChange, FieldCount, Problem, TakenBack } from '@dellum/contract';
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
    const back = (cells: unknown, visitor = made.house.clerk) =>
      visitor.call<TakenBack & Problem>('POST', `/registers/${made.register.id}/entries/taken-back`, { cells });
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
    expect(counts.map(({ held, outside }) => [held, outside])).toEqual([
      [1, 0],
      [1, 0],
      [0, 0],
      [0, 0],
    ]);
  });
  it('takes a block back as one act, also a value that is no longer offered', async () => {
    const made = await makeEntrySheet(running, [
      ['Code', 'text'],
      ['Note', 'text'],
    ]);
    await made.rule('code', { kind: 'typed', values: ['a', 'b'] });
    const entries = [await made.entry({ code: 'a' }), await made.entry({ code: 'b' })];
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `/registers/${made.register.id}/entries/block`, {
      cells: entries.flatMap((entry) => [
        { entry, field: 'code', text: '' },
        { entry, field: 'note', text: 'x' },
      ]),
    });
    await made.rule('code', { kind: 'typed', values: ['c'] });
    await made.house.clerk.call('POST', `/registers/${made.register.id}/entries/taken-back`, { cells: body.written });
    expect([await made.cells(entries[0]!), await made.cells(entries[1]!)]).toEqual([{ code: 'a' }, { code: 'b' }]);
  });
  it('stores nothing twice that may stand once: a cell keeps what it holds, a deleted entry waits', async () => {
    const made = await makeEntrySheet(running, [
      ['Code', 'text'],
      ['Note', 'text'],
    ]);
    await made.rule('code', { kind: 'plain', noRepeats: true });
    const at = `/registers/${made.register.id}/entries`;
    const one = await made.entry({ code: 'A1', note: 'first' });
    const { body } = await made.house.clerk.call<BlockOutcome>('POST', `${at}/block`, {
      cells: [
        { entry: one, field: 'code', text: 'B1' },
        { entry: one, field: 'note', text: 'second' },
      ],
    });
    await made.entry({ code: 'a1' });
    expect((await made.house.clerk.call<TakenBack>('POST', `${at}/taken-back`, { cells: body.written })).body.changed).toBe(1);
    expect(await made.cells(one)).toEqual({ code: 'B1', note: 'first' });
    const record = `/registers/${made.register.id}/records/${one}/history`;
    const change = (await made.house.clerk.get<EntryChange[]>(record)).find(({ field }) => field === 'code')!;
    expect((await made.house.clerk.call<Problem>('POST', `${record}/${change.id}/back`, { field: change.field })).body).toMatchObject({
      code: 'value-refused',
      verdict: 'repeat',
    });
    // An entry that holds it is deleted, its value is taken by another one, and it comes back once that is free.
    await made.house.clerk.call('POST', `${at}/delete`, { entries: [one] });
    const other = await made.entry({ code: 'b1' });
    const restore = () => made.house.clerk.call<Problem>('POST', `${at}/restored`, { entries: [one] });
    expect((await restore()).body).toMatchObject({ code: 'value-refused', verdict: 'repeat' });
    await made.edit(other, 'code', 'C1');
    expect((await restore()).status).toBe(200);
    expect(await made.cells(one)).toEqual({ code: 'B1', note: 'first' });
  });
  it('lets no new entry begin with what may stand once', async () => {
    const made = await makeEntrySheet(running, [
      ['Code', 'text'],
      ['Note', 'text'],
    ]);
    await made.rule('code', { kind: 'plain', noRepeats: true, begins: { with: 'value', value: 'A1' } });
    const { body } = await made.house.clerk.call<{ entries: string[] }>('POST', `/registers/${made.register.id}/entries`, { count: 2 });
    expect(await Promise.all(body.entries.map((entry) => made.cells(entry)))).toEqual([{}, {}]);
    const first = await made.entry();
    expect(await made.cells(first)).toEqual({ code: 'A1' });
    expect(await made.cells(await made.entry())).toEqual({});
  });
  it('goes on with the versions of an entry that was deleted and is brought back: no old change looks like a new one', async () => {
    const made = await makeEntrySheet(running, [['Note', 'text']]);
    const at = `/registers/${made.register.id}/entries`;
    const one = await made.entry({ note: 'first' });
    for (const text of ['second', 'third', 'fourth']) expect((await made.edit(one, 'note', text)).status).toBe(200);
    const { clerk } = made.house;
    const before = (await entriesOf(clerk, made.register)).find(({ id }) => id === one)!;
    await clerk.call('POST', `${at}/delete`, { entries: [one] });
    await clerk.call('POST', `${at}/restored`, { entries: [one] });
    const back = (await entriesOf(clerk, made.register)).find(({ id }) => id === one)!;
    expect(back.version).toBeGreaterThan(before.version);
    // Seen as it is now, it is edited without a question; seen before somebody else's newest change, with one.
    const edit = (text: string, version: number) => clerk.call<Problem>('PATCH', `${at}/${one}`, { field: 'note', text, version });
    expect((await edit('fifth', back.version)).status).toBe(200);
    expect((await edit('sixth', back.version)).body.code).toBe('cell-changed');
  });
  it('brings deleted entries back to their place with all they held', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }, { visit: 'V2', pilot: 'Rook Tansy' }, { visit: 'V3' }]);
    const [first, second, third] = await entriesOf(house.clerk, house.visits);
    await house.clerk.call('POST', `/registers/${house.visits.id}/entries/delete`, { entries: [first!.id, second!.id] });
    const restore = (visitor: House['clerk']) =>
      visitor.call('POST', `/registers/${house.visits.id}/entries/restored`, { entries: [first!.id, second!.id], before: third!.id });
    expect((await restore(house.administrator)).status).toBe(404);
    expect((await restore(house.clerk)).status).toBe(200);
    expect((await restore(house.clerk)).status).toBe(404);
    expect((await entriesOf(house.clerk, house.visits)).map(({ cells }) => cells)).toEqual([
      { visit: 'V1', pilot: 'Tam Ossel' },
      { visit: 'V2', pilot: 'Rook Tansy' },
      { visit: 'V3' },
    ]);
    const counts = await house.clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`);
    expect(counts.map(({ held }) => held)).toEqual([3, 2, 0]);
  });
  it('brings values elsewhere back with the entries, and lets no cell of them go unasked', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }, { visit: 'V2' }, { visit: 'V3' }]);
    const { administrator, clerk, visits } = house;
    const [first, second] = await entriesOf(clerk, visits);
    const definition = {
      parts: [{ kind: 'query', join: 'or', registerId: visits.id, value: 'visit', companions: [] }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    };
    const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', { title: 'Visits', note: '', definition });
    const offered = async () =>
      (await administrator.get<CatalogItems>(`/catalogs/${catalog.body.id}/items`)).items.flatMap(({ value, state }) =>
        state === 'offered' ? value : [],
      );
    expect(await offered()).toEqual(['V1', 'V2', 'V3']);
    await clerk.call('POST', `/registers/${visits.id}/entries/delete`, { entries: [second!.id] });
    expect(await offered()).toEqual(['V1', 'V3']);
    expect((await clerk.call('POST', `/registers/${visits.id}/entries/restored`, { entries: [second!.id] })).status).toBe(200);
    expect(await offered()).toEqual(['V1', 'V3', 'V2']);
    // A new entry that begins with a value is a value elsewhere at once.
    await administrator.call(
      'PUT',
      `/fields/${visits.fields.find(({ key }) => key === 'visit')!.id}/rule`,
      ruleDto({ kind: 'plain', begins: { with: 'value', value: 'V0' } }),
    );
    expect((await clerk.call('POST', `/registers/${visits.id}/entries`, { count: 1 })).status).toBe(201);
    expect(await offered()).toEqual(['V1', 'V3', 'V2', 'V0']);
    // What was written is taken back as a value elsewhere, too.
    const edited = await clerk.call<EditOutcome>('PATCH', `/registers/${visits.id}/entries/${first!.id}`, {
      field: 'visit',
      text: 'V9',
      version: 1,
    });
    expect(await offered()).toEqual(['V9', 'V3', 'V2', 'V0']);
    expect(
      (await clerk.call<TakenBack>('POST', `/registers/${visits.id}/entries/taken-back`, { cells: edited.body.written })).body.changed,
    ).toBe(0);
    expect(await offered()).toEqual(['V1', 'V3', 'V2', 'V0']);
  });
});

describe('entries that are values elsewhere', () => {
  /** A sheet whose codes feed a catalog; its notes ask for what the berths do not have. */
  async function feeding() {
    const made = await makeEntrySheet(running, [
      ['Code', 'text'],
      ['Note', 'text'],
      ['Berth', 'text'],
    ]);
    const definition = {
      parts: [{ kind: 'query', join: 'or', registerId: made.register.id, value: 'code', companions: [] }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    };
    await made.house.administrator.call('POST', '/catalogs', { title: 'Codes', note: '', definition });
    return made;
  }
  it('lose no edit and repeat nothing when several people write at once', async () => {
    const made = await feeding();
    await made.rule('code', { kind: 'plain', noRepeats: true });
    const entries = [await made.entry({ code: 'A' }), await made.entry({ code: 'B' }), await made.entry({ code: 'C' })];
    const at = `/registers/${made.register.id}/entries`;
    const version = (await entriesOf(made.house.clerk, made.register))[0]!.version;
    const edits = await Promise.all(
      ['code', 'note'].map((field) => made.house.clerk.call('PATCH', `${at}/${entries[0]!}`, { field, text: `own ${field}`, version })),
    );
    expect(edits.map(({ status }) => status)).toEqual([200, 200]);
    expect(await made.cells(entries[0]!)).toEqual({ code: 'own code', note: 'own note' });
    const tries = await Promise.all(
      entries.map((entry) => made.house.clerk.call<Problem>('PATCH', `${at}/${entry}`, { field: 'code', text: 'same', version: 9 })),
    );
    expect(tries.map(({ status }) => status).sort()).toEqual([200, 422, 422]);
    const block = await made.house.clerk.call<BlockOutcome>('POST', `${at}/block`, {
      cells: entries.map((entry) => ({ entry, field: 'code', text: 'pasted' })),
    });
    expect(block.body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['taken', 'refused', 'refused']);
  });
  it('keep what a paste asks for', async () => {
    const made = await feeding();
    await made.rule('berth', { kind: 'catalog', catalogId: made.berths, level: 0, others: 'request' });
    const entry = await made.entry({ code: 'A' });
    await made.house.clerk.call('POST', `/registers/${made.register.id}/entries/block`, {
      cells: [
        { entry, field: 'berth', text: 'Far away' },
        { entry, field: 'note', text: 'x' },
      ],
    });
    expect(await made.cells(entry)).toEqual({ code: 'A', berth: 'Far away', note: 'x' });
    expect(JSON.stringify((await made.house.clerk.call('GET', '/requests/own')).body)).toContain('Far away');
  });
});
