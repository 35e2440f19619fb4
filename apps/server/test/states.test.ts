// Databases as older versions have left them, each dumped by `pg_dump --inserts` from a small house that was worked in by that
// version: all are brought to today's form, lose nothing, and are worked in on.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BuildView, CatalogItems, EditOutcome, EntryChange, FieldCount, Me } from '@dellum/contract';
import { createServer, Database, expectedSchema, migrate, missingIn, schemaOf } from '@dellum/server';
import { sql } from 'kysely';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyDatabase, entriesOf, freshDatabase, inserting, startServer, until, Visitor, type Running } from './house.js';

const folder = join(import.meta.dirname, 'states');

describe.each(readdirSync(folder))('%s', (name) => {
  let running: Running;
  beforeAll(async () => {
    const url = await emptyDatabase();
    const client = new pg.Client(url);
    await client.connect();
    await client.query(readFileSync(join(folder, name), 'utf8'));
    await client.end();
    running = await startServer(url);
  });
  afterAll(() => running.close());

  it('is laid out as a new one is', async () => {
    expect(await schemaOf(running.database.kysely)).toEqual(expectedSchema);
  });
  it('has all that was in it, and goes on', async () => {
    const visitor = new Visitor(running.base, { house: 'old', role: 'administrator' });
    expect((await visitor.get<Me>('/session')).house.locale).toMatchObject({ currency: 'EUR' });
    const build = await visitor.get<BuildView>('/build');
    const [visits, pilots] = ['Visits', 'Lists'].map((title) => build.sheets.find((sheet) => sheet.title === title)!.registers[0]!) as [
      BuildView['sheets'][number]['registers'][number],
      BuildView['sheets'][number]['registers'][number],
    ];
    expect(visits.fields.find(({ key }) => key === 'pilot')).toMatchObject({
      group: '',
      rule: { kind: 'catalog', hint: 'Who?', picking: { most: null } },
    });
    const entries = await entriesOf(visitor, visits);
    expect(entries.map(({ cells }) => [cells['visit'], cells['pilot']])).toEqual([
      ['V1', 'Rook Tansy'],
      ['V2', 'Tam'],
    ]);
    const history = await visitor.get<EntryChange[]>(`/registers/${visits.id}/records/${entries[0]!.id}/history`);
    expect(history.map(({ field, from, to }) => [field, from, to])).toContainEqual(['pilot', 'Tam Ossel', 'Rook Tansy']);
    const counts = await visitor.get<FieldCount[]>(`/registers/${visits.id}/counts`);
    expect(counts.find(({ fieldId }) => fieldId === visits.fields[1]!.id)).toMatchObject({ held: 2, outside: 1 });

    expect((await visitor.call('POST', `/registers/${pilots.id}/acts`, { acts: [inserting('Dara Finch')] })).status).toBe(200);
    const { items } = await visitor.get<CatalogItems>(`/catalogs/${build.catalogs[0]!.id}/items`);
    expect(items.map(({ value }) => value)).toEqual(expect.arrayContaining(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Dara Finch']));
    const { id, version } = entries[1]!;
    const edited = await visitor.call<EditOutcome>('PATCH', `/registers/${visits.id}/entries/${id}`, {
      field: 'pilot',
      text: 'dara finch',
      version,
    });
    expect([edited.status, edited.body.entry.cells['pilot']]).toEqual([200, 'Dara Finch']);
    // What came later works in it, too.
    const field = await visitor.call('POST', `/registers/${visits.id}/fields`, { heading: 'Toll', kind: 'amount' });
    expect(field.status).toBe(201);
    expect(
      (await visitor.call('PUT', `/registers/${visits.id}/closing`, { where: null, after: { field: 'arrival', days: 3 } })).status,
    ).toBe(204);
    expect((await visitor.call('GET', '/linked')).status).toBe(200);
    expect((await visitor.call('GET', '/ledger')).status).toBe(200);
  });
});

it('finishes what an older version had begun when it stopped', async () => {
  const url = await emptyDatabase();
  const client = new pg.Client(url);
  await client.connect();
  await client.query(readFileSync(join(folder, '8-before-sheets-for-some.sql'), 'utf8'));
  await client.query(`
    insert into public.entry_acts (house_id, person_id, register_id, deed, fields, entries, outcome)
    select registers.house_id, (select id from public.people where role = 'administrator' and house_id = registers.house_id limit 1), registers.id,
      '{"deed": "carry", "how": "same", "given": {"pilot": ["Rook Tansy"]}}', '["pilot"]', array_agg(entries.id order by pos),
      '{"taken": 0, "corrected": 0, "refused": 0, "passedOver": 0, "refusals": []}'
    from public.registers join public.entries on entries.register_id = registers.id
    where entries.cells ? 'visit' group by registers.house_id, registers.id`);
  await client.end();
  const running = await startServer(url);
  const visitor = new Visitor(running.base, { house: 'old', role: 'administrator' });
  const visits = (await visitor.get<BuildView>('/build')).sheets.find(({ title }) => title === 'Visits')!.registers[0]!;
  await until(async () => (await entriesOf(visitor, visits)).every(({ cells }) => cells['pilot'] === 'Rook Tansy'));
  await running.close();
});

describe('a database that is not as this version lays it out', () => {
  it('is told at the start: what is missing, and what to do', async () => {
    const url = await freshDatabase();
    const database = new Database(url, 1);
    const db = database.kysely;
    expect(await missingIn(db)).toEqual([]);
    // What somebody has added for themselves is no harm.
    await sql`create table of_their_own (x int)`.execute(db);
    await sql`alter table sheets drop column limited`.execute(db);
    await sql`drop table told_apart`.execute(db);
    await sql`drop index ledger_seldom`.execute(db);
    expect(await missingIn(db)).toEqual(['index ledger_seldom', 'index told_apart_pkey', 'sheets.limited', 'table told_apart']);
    await db.destroy();
    await expect(createServer({ databaseUrl: url })).rejects.toThrow(
      'It lacks sheets.limited, table told_apart, which this version of Dellum needs. Somebody has changed how it is laid out; restore the last backup.',
    );
  });
  it('is kept in mind as it is after all migrations', async () => {
    const database = new Database(await emptyDatabase(), 1);
    await migrate(database.kysely);
    expect(await schemaOf(database.kysely)).toEqual(expectedSchema);
    await database.kysely.destroy();
  });
});
