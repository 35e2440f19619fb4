// Entries: the judge on the server, two people in one entry, blocks, places, counts.
import { randomUUID } from 'node:crypto';
import { compileCatalog, houseLocale, judge, type Item } from '@dellum/core';
import type { BlockOutcome, BuildView, EditOutcome, EntryActView, EntryPage, EntryView, FieldCount, Problem } from '@dellum/contract';
import { CountsStore } from '@dellum/server';
import { chance } from '@dellum/demo';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running, type Visitor } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const edit = (visitor: Visitor, house: House, entry: EntryView, field: string, text: string, version = entry.version) =>
  visitor.call<EditOutcome & { code?: string; detail?: string }>('PATCH', `/registers/${house.visits.id}/entries/${entry.id}`, {
    field,
    text,
    version,
  });

describe('a field', () => {
  it.each(['Constructor', '__proto__', 'toString', 'Has own property', 'valueOf', 'Prototype'])(
    'headed %s is one like all others',
    async (heading) => {
      const house = await openHouse(running, [{ visit: 'V1' }]);
      const { administrator, clerk, visits } = house;
      expect((await administrator.call('POST', `/registers/${visits.id}/fields`, { heading, kind: 'text' })).status).toBe(201);
      const register = (await administrator.get<BuildView>('/build')).sheets
        .flatMap(({ registers }) => registers)
        .find(({ id }) => id === visits.id)!;
      const field = register.fields.find((one) => one.heading === heading)!;
      const [entry] = await entriesOf(clerk, visits);
      const write = (key: string, text: string, version: number) =>
        clerk.call<EditOutcome>('PATCH', `/registers/${visits.id}/entries/${entry!.id}`, { field: key, text, version });
      expect((await write(field.key, 'something', 1)).status).toBe(200);
      expect((await write('pilot', 'Rook Tansy', 2)).status).toBe(200);
      const [now] = await entriesOf(clerk, visits);
      expect(Object.entries(now!.cells).sort()).toEqual(
        Object.entries({ visit: 'V1', pilot: 'Rook Tansy', [field.key]: 'something' }).sort(),
      );
      expect(
        (await administrator.call('PUT', `/fields/${field.id}/rule`, ruleDto({ kind: 'typed', values: ['constructor', 'something'] })))
          .status,
      ).toBe(204);
      expect((await write(field.key, 'constructor', 3)).status).toBe(200);
      expect((await write(field.key, '__proto__', 4)).status).toBe(422);
      const counts = await clerk.get<{ outside: number }[]>(`/registers/${visits.id}/counts`);
      expect(counts.map(({ outside }) => outside)).toEqual([0, 0, 0, 0]);
      const found = await clerk.call<EntryPage>('POST', `/registers/${visits.id}/records`, {
        search: 'constructor',
        sort: [{ field: field.key, direction: 'up' }],
        only: [],
        from: 0,
        count: 10,
      });
      expect(found.body.total).toBe(1);
    },
  );
});

describe('one judge', () => {
  it('gives by HTTP the verdict, code and message that the core gives', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const { items } = await house.clerk.get<{ items: Item[] }>(`/catalogs/${house.catalog.id}/items`);
    const catalogs = new Map([[house.catalog.id, compileCatalog(house.catalog.id, 'Pilots', items)]]);
    for (const text of [
      'Tam Ossel',
      ' tam  OSSEL ',
      'Tam Osel',
      'Bryn',
      'nobody at all',
      'a\u0000b',
      'a\u001Fb',
      'שלום',
      'x'.repeat(100_000),
      '',
    ]) {
      const [entry] = await entriesOf(house.clerk, house.visits);
      const here = judge(
        house.pilotField,
        { typed: text },
        { locale: houseLocale, catalogs, held: entry!.cells['pilot'] ?? '', suggest: true },
      );
      const { status, body } = await edit(house.clerk, house, entry!, 'pilot', text);
      if (here.verdict !== 'refused') expect([status, body.verdict]).toEqual([200, here]);
      else
        expect([status, body]).toEqual([
          422,
          expect.objectContaining({ code: 'value-refused', verdict: here.code, detail: here.message, suggestions: here.suggestions }),
        ]);
    }
  });
  it('takes a text that was typed or a value that was chosen, in a cell, a new entry and a block, and never both or neither', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const [entry] = await entriesOf(house.clerk, house.visits);
    const at = `/registers/${house.visits.id}/entries`;
    const send = (given: object, version: number) =>
      house.clerk.call<EditOutcome & Problem>('PATCH', `${at}/${entry!.id}`, { field: 'pilot', version, ...given });
    expect((await send({ chosen: 'Tam Ossel' }, 1)).body).toMatchObject({ verdict: { verdict: 'taken', value: 'Tam Ossel' } });
    expect((await send({ chosen: 'tam ossel' }, 2)).body).toMatchObject({ code: 'value-refused', verdict: 'outside' });
    expect((await send({ chosen: 'a\u0000b' }, 2)).body).toMatchObject({ code: 'value-refused', verdict: 'forbidden character' });
    for (const given of [{}, { text: 'x', chosen: 'x' }, { chosen: 7 }, { chosen: null }, { text: null }, { chosen: ['x'] }])
      expect((await send(given, 2)).body.code).toBe('not-valid');
    const begun = await house.clerk.call<EditOutcome>('PUT', `${at}/${randomUUID()}`, { field: 'pilot', chosen: 'Rook Tansy' });
    expect(begun.body.entry.cells).toMatchObject({ pilot: 'Rook Tansy' });
    const block = await house.clerk.call<BlockOutcome>('POST', `${at}/block`, {
      cells: [
        { entry: entry!.id, field: 'pilot', chosen: 'Rook Tansy' },
        { entry: begun.body.entry.id, field: 'pilot', text: 'tam ossel' },
      ],
    });
    expect(block.body.entries.map(({ cells }) => cells['pilot'])).toEqual(['Rook Tansy', 'Tam Ossel']);
  });
  it('keeps right-to-left and combining characters of free text as typed', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const [entry] = await entriesOf(house.clerk, house.visits);
    await edit(house.clerk, house, entry!, 'visit', 'שלום e\u0301 ');
    expect((await entriesOf(house.clerk, house.visits))[0]!.cells['visit']).toBe('שלום e\u0301 ');
  });
  it('knows no field that does not exist, and no entry', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const [entry] = await entriesOf(house.clerk, house.visits);
    expect((await edit(house.clerk, house, entry!, 'captain', 'x')).body.code).toBe('not-found');
    expect((await edit(house.clerk, house, { ...entry!, id: house.id }, 'visit', 'x')).body.code).toBe('not-found');
  });
});

describe('two clerks in one entry', () => {
  it('both win in different cells; in the same cell the second is told by whom', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const [seen] = await entriesOf(house.clerk, house.visits);
    expect((await edit(house.clerk, house, seen!, 'visit', 'V2')).status).toBe(200);
    expect((await edit(house.administrator, house, seen!, 'pilot', 'Rook Tansy')).status).toBe(200);
    const late = await edit(house.clerk, house, seen!, 'pilot', 'Bryn Calloway');
    expect(late.status).toBe(409);
    expect(late.body).toMatchObject({ code: 'cell-changed', current: { value: 'Rook Tansy', version: 3, by: 'The administrator' } });
    expect((await edit(house.clerk, house, seen!, 'pilot', 'Bryn Calloway', 3)).status).toBe(200);
    expect((await entriesOf(house.reader, house.visits))[0]!.cells).toEqual({ visit: 'V2', pilot: 'Bryn Calloway' });
  });
});

describe('a block', () => {
  it('is judged as a whole; nothing refused is stored and nothing pasted is lost', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }, { visit: 'V2' }, { visit: 'V3' }]);
    const [one, two, three] = await entriesOf(house.clerk, house.visits);
    const cells = [
      { entry: one!.id, field: 'pilot', text: 'ROOK TANSY' },
      { entry: two!.id, field: 'pilot', text: 'Nobody' },
      { entry: three!.id, field: 'arrival', text: '1.2.2026' },
      { entry: three!.id, field: 'visit', text: '' },
    ];
    const { body } = await house.clerk.call<BlockOutcome>('POST', `/registers/${house.visits.id}/entries/block`, { cells });
    expect(body.outcomes.map(({ verdict }) => ('code' in verdict ? verdict.code : verdict.value))).toEqual([
      'Rook Tansy',
      'outside',
      '2026-02-01',
      '',
    ]);
    expect((await entriesOf(house.clerk, house.visits)).map(({ cells: held, version }) => [held, version])).toEqual([
      [{ visit: 'V1', pilot: 'Rook Tansy' }, 2],
      [{ visit: 'V2' }, 1],
      [{ arrival: '2026-02-01' }, 2],
    ]);
  });
  it('of another shape is refused whole', async () => {
    const house = await openHouse(running, [{ visit: 'V1' }]);
    const { status, body } = await house.clerk.call('POST', `/registers/${house.visits.id}/entries/block`, {
      cells: [{ entry: 'x', field: 'visit', text: 5 }],
    });
    expect([status, body.code]).toEqual([422, 'not-valid']);
  });
});

describe('places', () => {
  it('keep the order a plain array keeps, over random inserting and deleting', async () => {
    const house = await openHouse(running, []);
    const random = chance(7);
    const path = `/registers/${house.visits.id}/entries`;
    let model: string[] = [];
    for (let step = 0; step < 60; step++) {
      const at = Math.floor(random() * (model.length + 1));
      if (random() < 0.75 || model.length < 5) {
        // The same place again and again, so that gaps run out and room has to be made.
        const before = step % 3 === 0 ? model[at] : model[1];
        const { body } = await house.clerk.call<{ entries: string[] }>('POST', path, {
          count: 1 + Math.floor(random() * 40),
          ...(before && { before }),
        });
        const place = before ? model.indexOf(before) : model.length;
        model = [...model.slice(0, place), ...body.entries, ...model.slice(place)];
      } else {
        const gone = model.slice(at, at + 7);
        if (gone.length > 0) await house.clerk.call('POST', `${path}/delete`, { entries: gone });
        model = model.filter((id) => !gone.includes(id));
      }
    }
    const found = (await entriesOf(house.clerk, house.visits)).map(({ id }) => id);
    expect(found).toEqual(model.slice(0, 1000));
    const middle = await house.clerk.get<EntryPage>(`${path}?from=${Math.floor(model.length / 2)}&count=20`);
    expect([middle.total, middle.entries.map(({ id }) => id)]).toEqual([
      model.length,
      model.slice(Math.floor(model.length / 2), Math.floor(model.length / 2) + 20),
    ]);
  });
  it('find any ordinal through chunk counts after chunks were split', async () => {
    const house = await openHouse(
      running,
      Array.from({ length: 7000 }, (_, at) => ({ visit: `V${at}` })),
    );
    const chunks = await running.database.kysely
      .selectFrom('chunks')
      .select('entries')
      .where('house_id', '=', house.id)
      .where('register_id', '=', house.visits.id)
      .execute();
    expect(Math.max(...chunks.map(({ entries }) => entries))).toBeLessThanOrEqual(2000);
    for (const from of [0, 999, 1000, 1999, 5555, 6999]) {
      const page = await house.reader.get<EntryPage>(`/registers/${house.visits.id}/entries?from=${from}&count=1`);
      expect([page.total, page.entries[0]?.cells['visit']]).toEqual([7000, `V${from}`]);
    }
    expect((await house.reader.get<EntryPage>(`/registers/${house.visits.id}/entries?from=7000`)).entries).toEqual([]);
  });
});

describe('value counts', () => {
  it('equal a full recount after concurrent writers, folding and deletes', async () => {
    const values = ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', ''];
    const house = await openHouse(
      running,
      Array.from({ length: 60 }, (_, at) => ({ visit: `V${at}`, pilot: values[at % 3]! })),
    );
    const counts = new CountsStore(running.database);
    const entries = await entriesOf(house.clerk, house.visits);
    const writer = async (visitor: Visitor, seed: number) => {
      const random = chance(seed);
      for (let turn = 0; turn < 40; turn++) {
        const entry = entries[Math.floor(random() * 40)]!;
        await edit(visitor, house, entry, 'pilot', values[Math.floor(random() * 4)]!, 1e6);
      }
    };
    const deleter = async () => {
      for (const { id } of entries.slice(40))
        await house.administrator.call('POST', `/registers/${house.visits.id}/entries/delete`, { entries: [id] });
    };
    const folder = async () => {
      for (let turn = 0; turn < 10; turn++) await counts.fold();
    };
    await Promise.all([writer(house.clerk, 1), writer(house.administrator, 2), writer(house.clerk, 3), deleter(), folder()]);
    const db = running.database.kysely;
    const check = async () => {
      const counted = (await counts.ofFields(db, house.id, [house.pilotField.id])).get(house.pilotField.id);
      expect(counted).toEqual(await counts.recount(db, house.id, house.visits.id, 'pilot'));
    };
    await check();
    await counts.fold();
    await check();
  });

  it('of many values at once are those of the entries, while others enter and they are folded', async () => {
    const house = await openHouse(
      running,
      Array.from({ length: 250 }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' })),
    );
    const [db, counts, store] = [running.database.kysely, new CountsStore(running.database), house.visits.id];
    const entries = await entriesOf(house.clerk, house.visits);
    const fieldId = house.visits.fields.find(({ key }) => key === 'visit')!.id;
    const act = async (what: Record<string, unknown>) => {
      const { body } = await house.clerk.call<EntryActView>('POST', `/registers/${store}/entry-acts`, what);
      await expect.poll(async () => (await house.clerk.get<EntryActView>(`/registers/${store}/entry-acts/${body.id}`)).state).toBe('done');
      return body.id;
    };
    // Some values are new, some stand already in other rows, and some go; the same block twice, and back.
    const texts = entries.map((_, at) => [at % 3 === 0 ? `V${at + 1}` : `W${at}`, at % 2 === 0 ? 'Rook Tansy' : 'Bryn Calloway']);
    const block = { fields: ['visit', 'pilot'], first: entries[0]!.id, arranged: false };
    const pasting = async () => {
      const first = await act({ does: 'paste', texts, block });
      await act({ does: 'clear', block: { ...block, fields: ['visit'], last: entries[199]!.id } });
      await act({ does: 'paste', texts: texts.map(([visit]) => [`${visit} again`, '']), block });
      return first;
    };
    const editing = async () => {
      for (let turn = 0; turn < 30; turn++) await edit(house.administrator, house, entries[turn * 7]!, 'visit', `V${turn}`, 1e6);
    };
    const folding = async () => {
      for (let turn = 0; turn < 10; turn++) await counts.fold();
    };
    const check = async () => {
      const told = await counts.recount(db, house.id, store, 'visit');
      expect((await counts.ofFields(db, house.id, [fieldId])).get(fieldId) ?? new Map()).toEqual(told);
      const some = [...told.keys()].slice(0, 20);
      expect((await counts.ofValues(db, house.id, [fieldId], some)).get(fieldId) ?? new Map()).toEqual(
        new Map(some.map((value) => [value, told.get(value)])),
      );
      const filled = await counts.filled(db, house.id, store, 'visit');
      expect((await counts.held(db, house.id, [fieldId])).get(fieldId)).toBe(filled);
      expect((await counts.spread(db, house.id, [fieldId]))[0]).toMatchObject({ distinct: told.size, entries: filled });
    };
    const [first] = await Promise.all([pasting(), editing(), folding()]);
    await check();
    await counts.fold();
    await check();
    const held = await db.selectFrom('value_counts').select('value').where('field_id', '=', fieldId).execute();
    expect(new Set(held.map(({ value }) => value))).toEqual(new Set((await counts.recount(db, house.id, store, 'visit')).keys()));
    await act({ does: 'back', of: first });
    await check();
  });
});

describe('entries outside', () => {
  it('are counted and listed, by field and in all', async () => {
    const house = await openHouse(running, [
      { visit: 'V1', pilot: 'Nobody' },
      { visit: 'V2', pilot: 'Tam Ossel' },
      { visit: 'V3', pilot: 'tam ossel', arrival: 'soon' },
    ]);
    const counts = await house.clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`);
    expect(counts.map(({ held, outside }) => [held, outside])).toEqual([
      [3, 0],
      [3, 2],
      [1, 1],
    ]);
    const listed = async (outside: string) =>
      (await entriesOf(house.reader, house.visits, `&outside=${outside}`)).map(({ cells }) => cells['visit']);
    expect([await listed('pilot'), await listed('arrival'), await listed('*')]).toEqual([['V1', 'V3'], ['V3'], ['V1', 'V3']]);
  });
});
