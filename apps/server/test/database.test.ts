// The database under the server: a connection that breaks ends its transaction, and nothing else.
import { Database } from '@dellum/server';
import { sql } from 'kysely';
import { expect, inject, it, onTestFinished } from 'vitest';
import { until } from './house.js';

it('a connection that breaks between two queries of a transaction fails that transaction alone', async () => {
  const database = new Database(inject('databaseUrl'), 1);
  const other = new Database(inject('databaseUrl'), 1);
  onTestFinished(async () => void (await Promise.all([database.kysely.destroy(), other.kysely.destroy()])));
  const broken = database.transaction(async (trx) => {
    const { rows } = await sql<{ pid: number }>`select pg_backend_pid() as pid`.execute(trx);
    const pid = rows[0]!.pid;
    await sql`select pg_terminate_backend(${pid}::int)`.execute(other.kysely);
    await until(async () => (await sql`select 1 from pg_stat_activity where pid = ${pid}::int`.execute(other.kysely)).rows.length === 0);
    // The word of its end has come by then: it is heard before the next query is sent.
    await sql`select 1`.execute(trx);
  });
  await expect(broken).rejects.toThrow();
  expect((await sql`select 1`.execute(database.kysely)).rows).toHaveLength(1);
});
