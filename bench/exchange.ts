// What goes out and comes in: a million entries as CSV in flat memory, rows of a program judged, values that have not changed.
import { randomUUID } from 'node:crypto';
import type { DownloadView, JudgedRows, MadeToken, ProgramCatalog } from '@dellum/contract';
import { compileCatalog, houseLocale, newRule, settle, type CatalogRule, type Item } from '@dellum/core';
import type { Database } from '@dellum/server';
import { sql } from 'kysely';
import { median, print, times } from './measure.js';
import { entries, values, type Million } from './million.js';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Seconds to read all entries in their order by pages of 2,000, and do nothing with them. */
async function bareRead(database: Database, { houseId, register }: Million): Promise<number> {
  const started = performance.now();
  let last = '0';
  for (;;) {
    const { rows } = await sql<{
      pos: string;
    }>`select pos::text, cells from entries where house_id = ${houseId} and register_id = ${register.id} and pos > ${last}::bigint order by pos limit 2000`.execute(
      database.kysely,
    );
    if (rows.length === 0) return (performance.now() - started) / 1000;
    last = rows.at(-1)!.pos;
  }
}

export async function csvOut1m(database: Database, bench: Million): Promise<void> {
  const { administrator, register, server } = bench;
  const bare = await bareRead(database, bench);
  await administrator.call('GET', `/registers/${register.id}/counts`);
  const idle = server.memory();
  let most = idle;
  const watching = setInterval(() => {
    most = Math.max(most, server.memory());
  }, 50);
  const started = performance.now();
  const wanted = { format: 'csv', arranged: false, labels: false, guarded: false };
  const { id } = await administrator.call<DownloadView>('POST', `/registers/${register.id}/downloads`, wanted);
  while ((await administrator.call<DownloadView>('GET', `/downloads/${id}`)).state !== 'done') await pause(100);
  const spent = (performance.now() - started) / 1000;
  const response = await fetch(`${server.base}/api/v1/downloads/${id}/file`, { headers: { cookie: administrator.cookie } });
  let lines = 0;
  for await (const chunk of response.body!) for (const byte of chunk as Uint8Array) if (byte === 10) lines++;
  clearInterval(watching);
  if (lines !== entries + 1) throw new Error(`the file has ${lines} lines`);
  print({ name: 'csv.out.1m', value: spent, unit: 's', against: 'reading the same entries by pages', ratio: bare / spent });
  print({ name: 'csv.memory.1m', value: most - idle, unit: 'MB', against: 'limit 200 MB above idle, written and fetched', ratio: null });
}

const rowsChecked = 10_000;

async function tokenFor({ administrator, register, catalogId }: Million): Promise<string> {
  const { token } = await administrator.call<MadeToken>('POST', '/access-tokens', {
    name: `Bench ${randomUUID()}`,
    writes: false,
    catalogs: [catalogId],
    registers: [register.id],
    until: '2099-12-31',
  });
  return token;
}

export async function check10k(_database: Database, bench: Million): Promise<void> {
  const { server, register } = bench;
  const headers = { authorization: `Bearer ${await tokenFor(bench)}`, 'content-type': 'application/json' };
  const rows = Array.from({ length: rowsChecked }, (_, at) =>
    Object.fromEntries(
      register.fields.map(({ key, kind }) => [
        key,
        key === 'pilot' ? (values[(at * 7) % 450] ?? 'Nobody') : kind === 'date' ? '2026-11-05' : `text ${at}`,
      ]),
    ),
  );
  const body = JSON.stringify({ rows });
  const ours = median(
    await times(5, async () => {
      const answer = await fetch(`${server.base}/api/v1/programs/registers/${register.id}/check`, { method: 'POST', headers, body });
      const { taken, refused } = (await answer.json()) as JudgedRows;
      if (taken + refused !== rowsChecked || refused === 0) throw new Error(`${taken} taken, ${refused} refused`);
    }),
  );
  const items = values.map((value): Item => ({ value, path: [], label: value, otherNames: [], state: 'offered', from: [] }));
  const rule = { ...(newRule('catalog') as CatalogRule), catalogId: 'c' };
  const fields = register.fields.map((field) => ({ ...field, rule: field.key === 'pilot' ? rule : null }));
  const context = { locale: houseLocale, today: '2026-11-29', fields, catalogs: new Map([['c', compileCatalog('c', 'Pilots', items)]]) };
  const edits = rows.flatMap((row, at) => Object.entries(row).map(([field, text]) => ({ entry: String(at), field, text })));
  const bare = median(
    await times(5, () => {
      settle(fields, new Map(rows.map((_, at) => [String(at), {}])), edits, context);
      return Promise.resolve();
    }),
  );
  print({ name: 'check.10k', value: ours, unit: 'ms', against: 'settling the same rows in the core alone', ratio: bare / ours });
}

export async function valuesEtag(_database: Database, bench: Million): Promise<void> {
  const authorization = `Bearer ${await tokenFor(bench)}`;
  const base = `${bench.server.base}/api/v1/programs/catalogs`;
  const [catalog] = (await (await fetch(base, { headers: { authorization } })).json()) as [ProgramCatalog];
  const ask = (headers: Record<string, string>) => fetch(`${base}/${catalog.key}/values`, { headers: { authorization, ...headers } });
  const etag = (await ask({})).headers.get('etag')!;
  const whole = median(await times(60, async () => (await ask({})).arrayBuffer()));
  const ours = median(await times(60, async () => (await ask({ 'if-none-match': etag })).arrayBuffer()));
  print({ name: 'values.etag', value: ours, unit: 'ms', against: 'the same 400 values sent whole', ratio: whole / ours });
}
