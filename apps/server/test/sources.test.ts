// Changing a list: live at once where no entry is touched, asked about where one is.
import type { BuildView, CatalogItems, EntryPage, EntryView, Lineage, Outcome, PackedEntries, Slip } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entriesOf, insertingAll, openHouse, startServer, until, type House, type Running } from './house.js';

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
const act = (house: House, body: unknown) =>
  house.administrator.call<Outcome & { code?: string; detail?: string }>('POST', `/registers/${house.pilots.id}/acts`, { acts: [body] });
const write = (house: House, entry: EntryView, text: string) =>
  act(house, { act: 'write', cells: [{ entry: entry.id, field: 'value', text }] });
const answer = (house: House, slip: Slip, given: string) =>
  house.administrator.call<Outcome & { code?: string }>('POST', `/slips/${slip.id}/answers`, {
    answers: slip.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: given })),
  });
const offered = async (house: House) => {
  const { items } = await house.clerk.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`);
  return items.map(({ value, state, otherNames }) =>
    [value, state === 'retired' ? 'retired' : '', ...otherNames].filter(Boolean).join(' | '),
  );
};
const held = async (house: House) => (await entriesOf(house.clerk, house.visits)).map(({ cells }) => cells['pilot']);
const lineage = (house: House) => house.administrator.get<Lineage>(`/catalogs/${house.catalog.id}/lineage`);
const outside = async (house: House) => (await lineage(house)).fields[0]!.outside;
const list = (house: House) => entriesOf(house.administrator, house.pilots);

describe('what touches no entry', () => {
  it('is live at once: a value typed under the range, a sort, a move, an insert', async () => {
    const house = await openHouse(running, visits);
    const { body } = await act(house, insertingAll(['Wenna Hallet', '']));
    expect(body).toMatchObject({ slip: null, notes: ['“Wenna Hallet” is offered now in 1 field.'] });
    await act(house, { act: 'sort', field: 'value', direction: 'up' });
    expect(await offered(house)).toEqual(['Bryn Calloway', 'Rook Tansy', 'Tam Ossel', 'Wenna Hallet']);
    const [bryn, rook] = await list(house);
    await act(house, { act: 'move', entries: [bryn!.id], before: (await list(house))[3]!.id });
    await act(house, { act: 'delete', entries: [rook!.id] });
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Wenna Hallet']);
  });
  it('disturbs no neighbouring list', async () => {
    const house = await openHouse(running, visits);
    const build = await house.administrator.get<BuildView>('/build');
    const quays = build.sheets.find(({ kind }) => kind === 'source')!.registers.find(({ title }) => title === 'Quays')!;
    const before = await entriesOf(house.administrator, quays);
    await act(house, insertingAll(['A', 'B'], (await list(house))[0]!.id));
    await act(house, { act: 'sort', field: 'value', direction: 'down' });
    expect(await entriesOf(house.administrator, quays)).toEqual(before);
  });
});

describe('a removed value that entries hold', () => {
  it('is asked about once, with numbers; nothing is live until then', async () => {
    const house = await openHouse(running, visits);
    const [tam] = await list(house);
    const { body } = await write(house, tam!, '');
    expect(body.slip!.questions).toEqual([
      { catalogId: house.catalog.id, value: 'Tam Ossel', holds: { [house.pilotField.id]: 2 }, choices: ['retired', 'gone'] },
    ]);
    expect(await offered(house)).toContain('Tam Ossel');
    const again = await write(house, tam!, 'x');
    expect([again.status, again.body.code]).toEqual([409, 'slip-open']);
    expect((await house.clerk.call('GET', '/slips')).status).toBe(403);
  });
  it('retired: entries stay right and nobody can choose it', async () => {
    const house = await openHouse(running, visits);
    const { body } = await act(house, { act: 'delete', entries: [(await list(house))[0]!.id] });
    expect((await answer(house, body.slip!, 'retired')).status).toBe(200);
    expect(await offered(house)).toEqual(['Bryn Calloway', 'Rook Tansy', 'Tam Ossel | retired']);
    expect(await outside(house)).toBe(0);
    expect(await house.administrator.get('/slips')).toEqual([]);
  });
  it('gone: entries are outside; typed again it is offered and they come inside', async () => {
    const house = await openHouse(running, visits);
    const { body } = await act(house, { act: 'delete', entries: [(await list(house))[0]!.id] });
    await answer(house, body.slip!, 'gone');
    expect(await outside(house)).toBe(2);
    await act(house, insertingAll(['Tam Ossel']));
    expect(await outside(house)).toBe(0);
  });
  it('can be left as it was', async () => {
    const house = await openHouse(running, visits);
    const { body } = await act(house, { act: 'delete', entries: [(await list(house))[0]!.id] });
    expect((await house.administrator.call('DELETE', `/slips/${body.slip!.id}`)).status).toBe(204);
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    expect((await answer(house, body.slip!, 'gone')).status).toBe(404);
  });
});

describe('an edited value that entries hold', () => {
  it('corrected: entries follow, readers see it at once, the old spelling is understood', async () => {
    const house = await openHouse(running, visits);
    const { body } = await write(house, (await list(house))[0]!, 'Tamsin Ossel');
    expect(body.slip!.questions[0]).toMatchObject({ becomes: 'Tamsin Ossel', choices: ['corrected', 'replaced', 'gone'] });
    await answer(house, body.slip!, 'corrected');
    expect(await held(house)).toEqual(['Tamsin Ossel', 'Tamsin Ossel', 'Bryn Calloway']);
    expect(await offered(house)).toEqual(['Tamsin Ossel | Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    const [entry] = await entriesOf(house.clerk, house.visits);
    await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'pilot',
      text: 'Rook Tansy',
      version: entry!.version,
    });
    const old = await house.clerk.call<{ verdict: unknown }>('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'pilot',
      text: 'Tam Ossel',
      version: entry!.version + 1,
    });
    expect(old.body.verdict).toMatchObject({ value: 'Tamsin Ossel' });
    await until(async () => (await lineage(house)).carries.length === 0);
    const stored = await running.database.kysely
      .selectFrom('entries')
      .select('cells')
      .where('house_id', '=', house.id)
      .where('register_id', '=', house.visits.id)
      .orderBy('pos')
      .execute();
    expect(stored.map(({ cells }) => cells['pilot'])).toEqual(['Tamsin Ossel', 'Tamsin Ossel', 'Bryn Calloway']);
  });
  it('corrected into a value that is there: the two become one', async () => {
    const house = await openHouse(running, visits);
    const { body } = await write(house, (await list(house))[0]!, 'Bryn Calloway');
    expect(body.slip!.questions[0]).toMatchObject({ merges: true, becomes: 'Bryn Calloway' });
    await answer(house, body.slip!, 'corrected');
    expect(await held(house)).toEqual(['Bryn Calloway', 'Bryn Calloway', 'Bryn Calloway']);
    expect((await lineage(house)).catalogs[0]!.offered).toBe(2);
  });
  it('replaced: the old one is retired and entries stay', async () => {
    const house = await openHouse(running, visits);
    const { body } = await write(house, (await list(house))[0]!, 'Nell Farrow');
    await answer(house, body.slip!, 'replaced');
    expect(await held(house)).toEqual(['Tam Ossel', 'Tam Ossel', 'Bryn Calloway']);
    expect(await offered(house)).toEqual(['Nell Farrow', 'Bryn Calloway', 'Rook Tansy', 'Tam Ossel | retired']);
    expect(await outside(house)).toBe(0);
  });
  it('is asked about anew when what it touches has changed meanwhile', async () => {
    const house = await openHouse(running, visits);
    const [, , rook] = await list(house);
    const { body } = await act(house, { act: 'delete', entries: [rook!.id, (await list(house))[0]!.id] });
    expect(body.slip!.questions).toHaveLength(1);
    const [entry] = await entriesOf(house.clerk, house.visits);
    await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'pilot',
      text: 'Rook Tansy',
      version: 1,
    });
    const late = await answer(house, body.slip!, 'gone');
    expect([late.status, late.body.code]).toEqual([409, 'slip-changed']);
    expect(await offered(house)).toHaveLength(3);
    const [slip] = await house.administrator.get<Slip[]>('/slips');
    expect(slip!.questions).toHaveLength(2);
    expect((await answer(house, slip!, 'gone')).status).toBe(200);
  });
  it('cannot come back as a value while entries still follow its correction', async () => {
    const house = await openHouse(running, visits);
    const { body } = await write(house, (await list(house))[0]!, 'Tamsin Ossel');
    // The rows are held by somebody else, so that the carry cannot finish.
    await running.database.transaction(async (trx) => {
      await trx
        .selectFrom('entries')
        .select('id')
        .where('house_id', '=', house.id)
        .where('register_id', '=', house.visits.id)
        .forUpdate()
        .execute();
      await answer(house, body.slip!, 'corrected');
      const back = await act(house, insertingAll(['Tam Ossel']));
      expect([back.status, back.body.code]).toEqual([409, 'carry-under-way']);
      expect(await held(house)).toEqual(['Tamsin Ossel', 'Tamsin Ossel', 'Bryn Calloway']);
    });
    await until(async () => (await lineage(house)).carries.length === 0);
    expect((await act(house, insertingAll(['Tam Ossel']))).status).toBe(200);
  });
});

describe('ranges', () => {
  const make = (house: House, name: string, over: readonly string[] = []) =>
    house.administrator.call<Outcome & { code?: string }>('POST', '/ranges', {
      name,
      shape: 'list',
      inherits: false,
      ends: 'last',
      place: { registerIds: [house.pilots.id], fields: ['value'], entries: over },
    });
  it.each([
    ['Pilots', 'name-taken'],
    [' pilots\u00A0', 'name-taken'],
    [' ', 'name-unfit'],
    ['a\u0000', 'name-unfit'],
    ['Good name', 'no-cells'],
  ])('are refused the name %j over no cells: %s', async (name, code) => {
    const house = await openHouse(running, visits);
    expect((await make(house, name)).body.code).toBe(code);
  });
  it('that would take values away from another are asked about', async () => {
    const house = await openHouse(running, visits);
    const entries = await list(house);
    const { body } = await make(house, 'Seniors', [entries[1]!.id]);
    expect(body.slip!.questions.map(({ value }) => value)).toEqual(['Bryn Calloway']);
  });
  it('change their end, with what it touches asked first, and are not deleted while they feed a catalog', async () => {
    const house = await openHouse(running, visits);
    const [, bryn] = await list(house);
    await act(house, insertingAll([''], bryn!.id));
    const { body } = await house.administrator.call<Outcome>('PATCH', `/ranges/${house.rangeId}`, { ends: 'gap' });
    expect(body.slip!.questions.map(({ value }) => value)).toEqual(['Bryn Calloway']);
    await answer(house, body.slip!, 'retired');
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway | retired']);
    const refused = await house.administrator.call('DELETE', `/ranges/${house.rangeId}`);
    expect([refused.body.code, refused.body.users]).toEqual(['in-use', ['catalog Pilots']]);
  });
  it('of a fixed end say what a sort brought in and took out, and take in what stands past them', async () => {
    const house = await openHouse(running, []);
    const entries = await list(house);
    await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { endEntry: entries[1]!.id });
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway']);
    const { body } = await act(house, { act: 'sort', field: 'value', direction: 'up' });
    expect(body.notes[0]).toBe('“Pilots” kept its rows: Rook Tansy came in; Tam Ossel went out.');
    await house.administrator.call('PATCH', `/ranges/${house.rangeId}`, { endEntry: (await list(house))[2]!.id });
    expect(await offered(house)).toHaveLength(3);
  });
});

describe('what is used', () => {
  it('cannot be deleted: list, field, catalog, sheet; it says by whom', async () => {
    const house = await openHouse(running, visits);
    const tries = await Promise.all([
      house.administrator.call('DELETE', `/registers/${house.pilots.id}`),
      house.administrator.call('DELETE', `/fields/${house.pilotField.id}`),
      house.administrator.call('DELETE', `/catalogs/${house.catalog.id}`),
      house.administrator.call('DELETE', `/sheets/${house.pilots.sheetId}`),
    ]);
    expect(tries.map(({ status, body }) => [status, body.code])).toEqual(tries.map(() => [409, 'in-use']));
    expect(tries.map(({ body }) => body.users![0])).toEqual([
      'range Pilots',
      'the rule of Pilot, which takes values from Pilots',
      'field Pilot of Visits',
      'range Pilots',
    ]);
    // An entry sheet goes with the rules of its own fields; then nothing uses the catalog.
    expect((await house.administrator.call('DELETE', `/sheets/${house.visits.sheetId}`)).status).toBe(200);
    expect((await house.administrator.call('DELETE', `/catalogs/${house.catalog.id}`)).status).toBe(204);
  });
  it('can be deleted when it is not: the field goes from every entry', async () => {
    const house = await openHouse(running, visits);
    expect((await house.administrator.call('DELETE', `/fields/${house.pilotField.id}/rule`)).status).toBe(204);
    expect((await house.administrator.call('DELETE', `/fields/${house.pilotField.id}`)).status).toBe(200);
    expect(await held(house)).toEqual([undefined, undefined, undefined]);
    expect((await house.administrator.call('DELETE', `/catalogs/${house.catalog.id}`)).status).toBe(204);
    expect((await house.administrator.call('DELETE', `/ranges/${house.rangeId}`)).status).toBe(200);
    expect((await house.administrator.call('DELETE', `/registers/${house.pilots.id}`)).status).toBe(200);
  });
});

describe('bad texts in a list', () => {
  it.each([
    ['a\u0000', 'forbidden character'],
    ['a\u001Fb', 'forbidden character'],
    ['x'.repeat(100_000), 'length'],
  ])('%# are refused and nothing is changed', async (text, code) => {
    const house = await openHouse(running, visits);
    const { status, body } = await act(house, insertingAll(['Good', text]));
    expect([status, body.code, (body as { verdict?: string }).verdict]).toEqual([422, 'value-refused', code]);
    expect(await list(house)).toHaveLength(3);
  });
  it('right-to-left and combining characters are kept', async () => {
    const house = await openHouse(running, visits);
    await act(house, insertingAll(['שלום', 'Zo\u0308e']));
    expect((await offered(house)).slice(3)).toEqual(['שלום', 'Zöe']);
  });
});

describe('the ledger', () => {
  it('has a row for every change, written with it', async () => {
    const house = await openHouse(running, visits);
    const { body } = await write(house, (await list(house))[0]!, 'Tamsin Ossel');
    await answer(house, body.slip!, 'corrected');
    await until(async () => (await lineage(house)).carries.length === 0);
    const rows = await running.database.kysely
      .selectFrom('ledger')
      .select(['act', 'from_value', 'to_value'])
      .where('house_id', '=', house.id)
      .where('act', 'not like', 'session.%')
      .orderBy('id')
      .execute();
    expect(rows.map(({ act: done, from_value, to_value }) => [done, from_value, to_value])).toEqual([
      ['cell.written', 'Tam Ossel', 'Tamsin Ossel'],
      ['item.corrected', 'Tam Ossel', 'Tamsin Ossel'],
      ['cell.followed', 'Tam Ossel', 'Tamsin Ossel'],
      ['cell.followed', 'Tam Ossel', 'Tamsin Ossel'],
      ['carry.finished', 'Tam Ossel', 'Tamsin Ossel'],
    ]);
  });
});

describe('A list in few bytes', () => {
  it('holds what its pages hold, whatever is written in it, and is for lists alone', async () => {
    const house = await openHouse(running, []);
    const texts = ['He said "no"', 'back\\slash', 'æøå 𝕏 ﬁ', '5', 'null', '[1,2]'];
    await act(house, { act: 'insert', fields: ['value'], rows: texts.map((text) => [text]) });
    await act(house, { act: 'insert', fields: ['value'], rows: [['']] });
    const inPages = await house.administrator.get<EntryPage>(`/registers/${house.pilots.id}/entries`);
    const packed = await house.administrator.get<PackedEntries>(`/registers/${house.pilots.id}/entries/packed`);
    expect(packed).toEqual({
      total: inPages.total,
      fields: ['value'],
      entries: inPages.entries.map(({ id, version, cells }) => [id, version, cells['value'] ?? null]),
    });
    expect(packed.entries.map(([, , text]) => text)).toEqual(expect.arrayContaining([...texts, null]));
    const rest = await house.administrator.get<PackedEntries>(`/registers/${house.pilots.id}/entries/packed?from=4`);
    expect(rest).toEqual({ ...packed, entries: packed.entries.slice(4) });
    const beyond = await house.administrator.get<PackedEntries>(`/registers/${house.pilots.id}/entries/packed?from=400`);
    expect(beyond.entries).toEqual([]);
    for (const from of ['-1', 'x', '1.5', '1e10'])
      expect((await house.administrator.call('GET', `/registers/${house.pilots.id}/entries/packed?from=${from}`)).status).toBe(422);
    expect((await house.administrator.call('GET', `/registers/${house.visits.id}/entries/packed`)).status).toBe(422);
    expect((await house.clerk.call('GET', `/registers/${house.pilots.id}/entries/packed`)).status).toBe(404);
  });
});
