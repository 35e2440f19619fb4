// What takes long is read from a database that follows, and only where it knows all that was stored. Here the one that follows is a database
// of its own, so that it is told from which of both something came, and how far it is.
import { randomUUID } from 'node:crypto';
import { Database } from '@dellum/server';
import { sql } from 'kysely';
import { beforeEach, expect, it, onTestFinished } from 'vitest';
import { Standby } from '../src/database/standby.js';
import { freshDatabase } from './house.js';

const houseId = randomUUID();
let primary: Database;
let follows: Database;
let standby: Standby;

async function knows({ kysely }: Database, seq: number): Promise<void> {
  await sql`insert into houses (id, key, name, locale) values (${houseId}, ${houseId}, 'House', '{}') on conflict do nothing`.execute(
    kysely,
  );
  await kysely
    .insertInto('house_counters')
    .values({ house_id: houseId, seq })
    .onConflict((conflict) => conflict.column('house_id').doUpdateSet({ seq }))
    .execute();
}

beforeEach(async () => {
  [primary, follows] = [new Database(await freshDatabase(), 2), new Database(await freshDatabase(), 2)];
  standby = new Standby(primary, follows.url);
  onTestFinished(async () => {
    await standby.onApplicationShutdown();
    await Promise.all([primary.kysely.destroy(), follows.kysely.destroy()]);
  });
  await knows(primary, 7);
});

/** From which of both something is read now. */
const source = () =>
  standby.read(houseId, async (db) => {
    const { rows } = await sql<{ name: string }>`select current_database() as name`.execute(db);
    return rows[0]!.name === new URL(follows.url).pathname.slice(1) ? 'standby' : 'primary';
  });

it('reads from the standby what it knows, and from the first database what it does not know', async () => {
  expect(await source()).toBe('primary');
  await knows(follows, 6);
  expect(await source()).toBe('primary');
  await knows(follows, 7);
  expect(await source()).toBe('standby');
  await knows(primary, 8);
  expect(await source()).toBe('primary');
});

it('waits a moment for a standby that is nearly there', async () => {
  await knows(follows, 6);
  const asked = source();
  await knows(follows, 7);
  expect(await asked).toBe('standby');
});

it('asks the first database once more what fails on the standby, but for what takes too long', async () => {
  await knows(follows, 7);
  await sql`drop table ledger cascade`.execute(follows.kysely);
  const read = () => standby.read(houseId, (db) => db.selectFrom('ledger').select('id').execute());
  expect(await read()).toEqual([]);
  // It is left alone for a while.
  expect(await source()).toBe('primary');

  const patient = new Standby(primary, follows.url);
  onTestFinished(() => patient.onApplicationShutdown());
  let asked = 0;
  const slow = patient.read(houseId, (db) =>
    db.transaction().execute(async (trx) => {
      asked++;
      await sql`select set_config('statement_timeout', '50', true)`.execute(trx);
      return sql`select pg_sleep(5)`.execute(trx);
    }),
  );
  await expect(slow).rejects.toThrow('statement timeout');
  expect(asked).toBe(1);
});

it('does without a standby that is not there', async () => {
  const gone = new Standby(primary, 'postgres://nobody@127.0.0.1:1/none');
  onTestFinished(() => gone.onApplicationShutdown());
  expect(await gone.read(houseId, () => Promise.resolve('read'))).toBe('read');
  expect(await new Standby(primary, undefined).read(houseId, () => Promise.resolve('read'))).toBe('read');
});
