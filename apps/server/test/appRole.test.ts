// The role under which the server works: all that people do is done under it, and nothing else can be.
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { Outcome } from '@dellum/contract';
import { createServer, Database, migrate, prepareAppRole, type AppRole } from '@dellum/server';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyDatabase, entriesOf, openHouse, startServer, until, type House } from './house.js';

const role: AppRole = { name: `server_${randomUUID().slice(0, 8)}`, password: 'it’s a "secret" \\ one' };
let owner: Database;
let database: Database;
let app: Awaited<ReturnType<typeof createServer>>;
let house: House;

beforeAll(async () => {
  const url = await emptyDatabase();
  owner = new Database(url, 2);
  // A database as servers under the owner's role have left it, queue and all.
  await (await startServer(url)).close();
  await migrate(owner.kysely);
  await prepareAppRole(owner.kysely, role);
  await prepareAppRole(owner.kysely, role);
  const own = new URL(url);
  own.username = role.name;
  own.password = encodeURIComponent(role.password);
  database = new Database(own.href, 2);
  app = await createServer({ databaseUrl: own.href, migrated: true });
  await app.listen(0, '127.0.0.1');
  const base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  house = await openHouse({ base, database: owner }, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
});
afterAll(async () => {
  await app.close();
  await database.kysely.destroy();
  await sql`drop owned by ${sql.id(role.name)} cascade`.execute(owner.kysely);
  await sql`drop role ${sql.id(role.name)}`.execute(owner.kysely);
  await owner.kysely.destroy();
});

describe('the role of the server', () => {
  it('does what people do, and the work that goes on by itself', async () => {
    const [entry] = await entriesOf(house.clerk, house.visits);
    const edit = { field: 'pilot', text: 'Rook Tansy', version: entry!.version };
    expect((await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, edit)).status).toBe(200);
    const acts = { path: [], value: 'Rook Tansy', act: 'correct', to: 'Rooke Tansy' };
    const { body } = await house.administrator.call<Outcome>('POST', `/catalogs/${house.catalog.id}/items/acts`, acts);
    const answers = body.slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' }));
    expect((await house.administrator.call('POST', `/slips/${body.slip!.id}/answers`, { answers })).status).toBe(200);
    const stored = () =>
      sql<{ pilot: string }>`select cells ->> 'pilot' as pilot from entries where id = ${entry!.id}`.execute(owner.kysely);
    await until(async () => (await stored()).rows[0]!.pilot === 'Rooke Tansy');
  });
  it.each([
    ['change the ledger', sql`update ledger set act = 'nothing'`],
    ['delete from the ledger', sql`delete from ledger`],
    ['empty the ledger', sql`truncate ledger`],
    ['say which form the database has', sql`delete from kysely_migration`],
    ['lay out tables', sql`create table public.mine (id int)`],
    ['change tables', sql`alter table entries add column mine int`],
    ['drop tables', sql`drop table ledger`],
    ['make roles', sql`create role another`],
    ['read files of the machine', sql`select pg_read_file('/etc/passwd')`],
  ])('cannot %s', async (_what, statement) => {
    await expect(statement.execute(database.kysely)).rejects.toMatchObject({ code: '42501' });
  });
});
