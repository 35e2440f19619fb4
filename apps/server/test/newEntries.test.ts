// New entries, made under ids that whoever types them has given: with their first cell, or blank in between others.
import { randomUUID } from 'node:crypto';
import type { Rule } from '@dellum/core';
import type { EditOutcome, FieldCount, Outcome, Problem } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const codes = { kind: 'typed', values: ['a', 'b', 'c'] } as Partial<Rule> & { kind: 'typed' };

async function coded(rule: Partial<Rule> = {}) {
  const made = await makeEntrySheet(running, [
    ['Code', 'text'],
    ['Note', 'text'],
  ]);
  await made.rule('code', { ...codes, ...rule } as typeof codes);
  const begin = (id: string, field: string, text: string, visitor = made.house.clerk) =>
    visitor.call<EditOutcome & Problem>('PUT', `/registers/${made.register.id}/entries/${id}`, { field, text });
  const all = async () => (await entriesOf(made.house.clerk, made.register)).map(({ cells }) => cells);
  return { ...made, begin, all };
}

describe('an entry begun with its first cell', () => {
  it('is there with what it begins with; what is typed next belongs to it', async () => {
    const { begin, all, edit, rule } = await coded();
    await rule('note', { kind: 'plain', begins: { with: 'value', value: 'new' } });
    const id = randomUUID();
    const { body } = await begin(id, 'code', 'A');
    expect([body.entry, body.verdict]).toMatchObject([{ id, version: 1, cells: { code: 'a', note: 'new' } }, { verdict: 'taken' }]);
    expect((await edit(id, 'note', 'seen')).status).toBe(200);
    expect(await all()).toEqual([{ code: 'a', note: 'seen' }]);
  });
  it('is not there when its first cell is refused', async () => {
    const { begin, all } = await coded();
    const id = randomUUID();
    expect(await begin(id, 'code', 'nothing like it')).toMatchObject({ status: 422, body: { code: 'value-refused', verdict: 'outside' } });
    expect(await all()).toEqual([]);
    await begin(id, 'note', 'goes on');
    expect(await all()).toEqual([{ note: 'goes on' }]);
  });
  it('is made once, however often it is sent, and at once', async () => {
    const { begin, all, made } = { ...(await coded()), made: randomUUID() };
    const answers = await Promise.all(Array.from({ length: 6 }, () => begin(made, 'code', 'a')));
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200, 200]);
    expect(await all()).toEqual([{ code: 'a' }]);
  });
  it('repeats no value that may stand once, also when two begin at the same time', async () => {
    const { begin, all } = await coded({ noRepeats: true });
    const answers = await Promise.all(['a', 'a', 'a', 'b'].map((text) => begin(randomUUID(), 'code', text)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 200, 422, 422]);
    expect((await all()).map(({ code }) => code).sort()).toEqual(['a', 'b']);
  });
  it('is refused to readers, in fields that are not there, and under ids that are none', async () => {
    const { begin, house, all } = await coded();
    expect((await begin(randomUUID(), 'code', 'a', house.reader)).status).toBe(403);
    expect((await begin(randomUUID(), 'nothing', 'a')).status).toBe(404);
    expect((await begin('1', 'code', 'a')).status).toBe(404);
    expect((await begin(randomUUID(), 'code', 'a\u0000')).body).toMatchObject({ verdict: 'forbidden character' });
    expect(await all()).toEqual([]);
  });
});

describe('blank entries under given ids', () => {
  it('stand where they were put, once, and under no id that is taken', async () => {
    const { house, register, entry, all } = await coded();
    const last = await entry({ code: 'c' });
    const ids = [randomUUID(), randomUUID()];
    const insert = (body: object) => house.clerk.call<Problem>('POST', `/registers/${register.id}/entries`, body);
    expect((await insert({ count: 2, before: last, ids })).status).toBe(201);
    expect((await insert({ count: 2, before: last, ids })).status).toBe(201);
    expect((await entriesOf(house.clerk, register)).map(({ id }) => id)).toEqual([...ids, last]);
    expect((await insert({ count: 2, before: last, ids: [ids[0], randomUUID()] })).status).toBe(422);
    expect((await insert({ count: 3, ids })).status).toBe(422);
    expect((await insert({ count: 2, ids: [ids[0], ids[0]] })).status).toBe(422);
    expect(await all()).toHaveLength(3);
  });
  it('also in a list, where what is typed into them is part of one act', async () => {
    const house = await openHouse(running, []);
    const id = randomUUID();
    const act = (body: object) => house.administrator.call<Outcome & Problem>('POST', `/registers/${house.pilots.id}/acts`, body);
    const made = await act({ acts: [{ act: 'insert', entries: [id], fields: ['value'], rows: [['Nell Farrow']] }] });
    await act({ acts: [{ act: 'write', cells: [{ entry: id, field: 'value', text: 'Nell Farow' }] }], joins: made.body.act });
    expect((await entriesOf(house.administrator, house.pilots)).at(-1)).toMatchObject({ id, cells: { value: 'Nell Farow' } });
    expect((await act({ acts: [{ act: 'insert', entries: [id], rows: [[]] }] })).status).toBe(422);
    expect((await act({ acts: [{ act: 'insert', entries: [id], rows: [[], []] }] })).status).toBe(422);
    expect((await house.administrator.call('POST', `/sheets/${house.pilots.sheetId}/undo`, {})).body).toMatchObject({ slip: null });
    expect((await entriesOf(house.administrator, house.pilots)).map(({ cells }) => cells['value'])).toEqual([
      'Tam Ossel',
      'Bryn Calloway',
      'Rook Tansy',
    ]);
  });
});

describe('blank cells where something must stand', () => {
  it('are counted, said before the rule is set, and listed', async () => {
    const { house, register, entry, rule } = await coded();
    await entry({ code: 'a', note: 'x' });
    await entry({ code: 'b' });
    await entry({ note: 'y' });
    await rule('code', { ...codes, mayBeBlank: false } as typeof codes);
    const [code] = await house.clerk.get<FieldCount[]>(`/registers/${register.id}/counts`);
    expect(code).toMatchObject({ held: 2, outside: 1, blank: 1 });
    expect((await entriesOf(house.clerk, register, '&outside=code')).map(({ cells }) => cells)).toEqual([{ note: 'y' }]);
    // Also where the rule holds for some entries only.
    await rule('note', {
      kind: 'plain',
      mayBeBlank: false,
      where: { all: true, conditions: [{ field: 'code', is: 'is', value: 'b' }] },
    } as Partial<Rule> & { kind: 'plain' });
    expect((await entriesOf(house.clerk, register, '&outside=note')).map(({ cells }) => cells)).toEqual([{ code: 'b' }]);
  });
});
