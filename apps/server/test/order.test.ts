// Jobs that wait for one another: what was taken on first is done first, and what is locked for a moment is done all the same.
import type { EntryActView, Outcome } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet } from './entrySheet.js';
import { entriesOf, freshDatabase, openHouse, startServer, until, type Running } from './house.js';

let running: Running;
let other: Running;
beforeAll(async () => {
  // No other test's server takes these jobs; two of our own do.
  const url = await freshDatabase();
  running = await startServer(url);
  other = await startServer(url);
});
afterAll(() => Promise.all([running.close(), other.close()]));

/** Holds some rows locked until what is returned is called. */
async function locked(
  lock: (trx: Parameters<Parameters<Running['database']['transaction']>[0]>[0]) => Promise<unknown>,
): Promise<() => Promise<void>> {
  let release!: () => void;
  const held = new Promise<void>((done) => (release = done));
  let has!: () => void;
  const hasIt = new Promise<void>((done) => (has = done));
  const whole = running.database.transaction(async (trx) => {
    await lock(trx);
    has();
    await held;
  });
  await hasIt;
  return async () => {
    release();
    await whole;
  };
}
const jobsTaken = async (name: string) =>
  (
    await sql<{ taken: number }>`select count(*)::int as taken from jobs.job where name = ${name} and state <> 'created'`.execute(
      running.database.kysely,
    )
  ).rows[0]!.taken;

describe('a correction', () => {
  it('that is locked when its job comes is carried to its end, also when the value is corrected again meanwhile', async () => {
    const house = await openHouse(
      running,
      Array.from({ length: 3000 }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' })),
    );
    const correct = async (from: string, to: string) => {
      const { body } = await house.administrator.call<Outcome>('POST', `/catalogs/${house.catalog.id}/items/acts`, {
        path: [],
        value: from,
        act: 'correct',
        to,
      });
      const answers = body.slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' }));
      expect((await house.administrator.call('POST', `/slips/${body.slip!.id}/answers`, { answers })).status).toBe(200);
    };
    await correct('Tam Ossel', 'Tamsin Ossel');
    // Whoever renames a value again locks what is under way: here for as long as the job needs to find it locked.
    const release = await locked((trx) => sql`select id from carries where house_id = ${house.id} for update`.execute(trx));
    await until(async () => (await jobsTaken('carry')) > 0);
    await release();
    await correct('Tamsin Ossel', 'Tam O. Ossel');
    await until(async () => {
      const { rows } = await sql<{
        open: number;
      }>`select count(*)::int as open from carries where house_id = ${house.id} and finished_at is null`.execute(running.database.kysely);
      return rows[0]!.open === 0;
    });
    const held = await sql<{ pilot: string; entries: number }>`select cells ->> 'pilot' as pilot, count(*)::int as entries from entries
      where house_id = ${house.id} and register_id = ${house.visits.id} group by 1`.execute(running.database.kysely);
    expect(held.rows).toEqual([{ pilot: 'Tam O. Ossel', entries: 3000 }]);
  });
});

describe('acts on one sheet', () => {
  it('are done in the order in which they were taken on, whichever job comes first', async () => {
    const made = await makeEntrySheet(running, [['Note', 'text']]);
    const { clerk } = made.house;
    await clerk.call('POST', `/registers/${made.register.id}/entries`, { count: 600 });
    const ids = (await entriesOf(clerk, made.register)).map(({ id }) => id);
    const paste = (text: string) =>
      clerk.call<EntryActView>('POST', `/registers/${made.register.id}/entry-acts`, {
        does: 'paste',
        texts: ids.map(() => [text]),
        block: { fields: ['note'], arranged: false },
      });
    const first = await paste('first');
    // The first is locked, as by a server that was stopped in the middle of it; the second one's job comes.
    const release = await locked((trx) =>
      sql`select id from entry_acts where house_id = ${made.house.id} and state = 'under way' for update`.execute(trx),
    );
    const second = await paste('second');
    await until(async () => (await jobsTaken('entryAct')) > 1);
    await release();
    const isDone = async (act: EntryActView) =>
      (await clerk.get<EntryActView>(`/registers/${made.register.id}/entry-acts/${act.id}`)).state === 'done';
    await until(async () => (await isDone(first.body)) && (await isDone(second.body)));
    const notes = new Set((await entriesOf(clerk, made.register)).map(({ cells }) => cells['note']));
    expect(notes).toEqual(new Set(['second']));
  });
});
