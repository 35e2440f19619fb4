// The database under the server: a connection that breaks ends its transaction, and nothing else.
import { randomUUID } from 'node:crypto';
import { matchKey } from '@dellum/core';
import { Database } from '@dellum/server';
import fc from 'fast-check';
import { sql } from 'kysely';
import { expect, inject, it, onTestFinished } from 'vitest';
import { Questions } from '../src/database/questions.js';
import { Standby } from '../src/database/standby.js';
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

it('texts of one match key have one alike key, plain ones, others, and one written as the other', async () => {
  const database = new Database(inject('databaseUrl'), 1);
  onTestFinished(() => database.kysely.destroy());
  const letters = fc.constantFrom(...'aAzZiI09 -_.~!', 'ä', 'Ä', 'ß', 'ｉ', 'ı', 'é', '\u00a0', '\u200b', '\u0301', 'Ω', 'ﬁ');
  const texts = fc.array(
    fc.oneof(fc.string({ unit: letters, maxLength: 8 }), fc.string({ unit: fc.constantFrom(...'aAbB -'), maxLength: 6 })),
    { minLength: 200, maxLength: 300 },
  );
  await fc.assert(
    fc.asyncProperty(texts, async (some) => {
      const { rows } = await sql<{
        text: string;
        key: string;
      }>`select text, alike_key(text) as key from unnest(${some}::text[]) as text`.execute(database.kysely);
      const keys = new Map<string, Set<string>>();
      for (const { text, key } of rows) keys.set(matchKey(text), (keys.get(matchKey(text)) ?? new Set()).add(key));
      expect([...keys].filter(([, own]) => own.size > 1)).toEqual([]);
    }),
    { numRuns: 10 },
  );
  // Nor are texts of one key that differ in more than how they are written.
  const { rows } = await sql<{
    keys: number;
  }>`select count(distinct alike_key(text)) as keys from unnest(array['ab', 'a b', 'AB ', 'a-b', 'ba', '\n']) as text`.execute(
    database.kysely,
  );
  expect(Number(rows[0]!.keys)).toBe(4);
});

it('questions are asked two at once a person, change nothing, and are given up after a while', async () => {
  const database = new Database(inject('databaseUrl'), 8);
  onTestFinished(() => database.kysely.destroy());
  const houseId = randomUUID();
  const questions = new Questions(new Standby(database, undefined));
  const now = new Map<string, number>();
  const most = new Map<string, number>();
  const ask = (person: string) =>
    questions.ask({ id: person, houseId }, async (db) => {
      now.set(person, (now.get(person) ?? 0) + 1);
      most.set(person, Math.max(most.get(person) ?? 0, now.get(person)!));
      const { rows } = await sql<{ limit: string }>`select current_setting('statement_timeout') as limit, pg_sleep(0.05)`.execute(db);
      now.set(person, now.get(person)! - 1);
      return rows[0]!.limit;
    });
  const answers = await Promise.all([...Array.from({ length: 9 }, () => ask('greedy')), ask('other')]);
  expect(new Set(answers)).toEqual(new Set(['20s']));
  expect(most.get('greedy')).toBeLessThanOrEqual(2);
  expect(most.get('other')).toBe(1);
  await expect(questions.ask({ id: 'greedy', houseId }, (db) => db.deleteFrom('changes').execute())).rejects.toThrow('read-only');
  // One that fails gives its turn back.
  expect(await ask('greedy')).toBe('20s');
});
