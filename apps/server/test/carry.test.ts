// A server killed in the middle of a carry: readers never see the old spelling, and the rows follow after a restart.
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import type { EntryPage, Lineage, Outcome } from '@dellum/contract';
import { Database } from '@dellum/server';
import { sql } from 'kysely';
import { expect, it } from 'vitest';
import { freePort } from '../../../scripts/lib/postgres.mjs';
import { entriesOf, freshDatabase, openHouse, until } from './house.js';

// Four in five hold the spelling that is corrected: many batches, so that the kill comes between two of them.
const entries = 60_000;

/** A server as a process of its own, so that it can be killed. */
async function serve(databaseUrl: string, port: number): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['apps/server/dist/main.js'], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const line of createInterface({ input: child.stdout! })) if (line.startsWith('listening')) break;
  return child;
}

async function end(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  child.kill(signal);
  if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
}

it('loses nothing when its server is killed', async () => {
  const databaseUrl = await freshDatabase();
  const database = new Database(databaseUrl, 4);
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  let server = await serve(databaseUrl, port);
  try {
    const house = await openHouse(
      { base, database },
      Array.from({ length: entries }, (_, at) => ({ visit: `V${at}`, pilot: at % 5 === 0 ? 'Bryn Calloway' : 'Tam Ossel' })),
    );
    const { administrator } = house;
    const left = async () => {
      const found = await sql<{
        rows: number;
      }>`select count(*) as rows from entries where house_id = ${house.id} and cells ->> 'pilot' = 'Tam Ossel'`.execute(database.kysely);
      return found.rows[0]!.rows;
    };
    const lineage = () => administrator.get<Lineage>(`/catalogs/${house.catalog.id}/lineage`);
    const seen = async () => {
      const page = await administrator.get<EntryPage>(`/registers/${house.visits.id}/entries?from=${entries - 1000}&count=1000`);
      return new Set(page.entries.map(({ cells }) => cells['pilot']));
    };
    const [tam] = await entriesOf(administrator, house.pilots);
    const { body } = await administrator.call<Outcome>('POST', `/registers/${house.pilots.id}/acts`, {
      acts: [{ act: 'write', cells: [{ entry: tam!.id, field: 'value', text: 'Tamsin Ossel' }] }],
    });
    const answered = await administrator.call('POST', `/slips/${body.slip!.id}/answers`, {
      answers: body.slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' })),
    });
    expect(answered.status).toBe(200);
    expect(await seen()).toEqual(new Set(['Tamsin Ossel', 'Bryn Calloway']));
    await until(async () => (await left()) < entries * 0.8);
    await end(server, 'SIGKILL');
    expect(await left()).toBeGreaterThan(0);

    server = await serve(databaseUrl, port);
    expect(await seen()).toEqual(new Set(['Tamsin Ossel', 'Bryn Calloway']));
    expect((await lineage()).fields[0]).toMatchObject({ held: entries, outside: 0 });
    await until(async () => (await lineage()).carries.length === 0, 120);
    expect(await left()).toBe(0);
    const { entries: use } = await administrator.get<{ entries: Record<string, number> }>(`/catalogs/${house.catalog.id}/use`);
    expect(use).toEqual({ 'Tamsin Ossel': entries * 0.8, 'Bryn Calloway': entries * 0.2 });
  } finally {
    await end(server, 'SIGTERM');
    await database.kysely.destroy();
  }
}, 240_000);
