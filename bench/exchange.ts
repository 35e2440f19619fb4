// What goes out and comes in: a million entries as CSV in flat memory, a workbook of 100,000 out and back, rows of a program judged, values
// that have not changed.
import { randomUUID } from 'node:crypto';
import type { BuildView, DownloadView, JudgedRows, MadeToken, ProgramCatalog, ReturnedFileView } from '@dellum/contract';
import { compileCatalog, houseLocale, newRule, settle, type Item } from '@dellum/core';
import { bytesOf, openFile, type Database } from '@dellum/server';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
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
  const wanted = { format: 'csv', arranged: false, labels: false, guarded: false, comesBack: false };
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
  const rule = { ...newRule('catalog'), catalogId: 'c' };
  const fields = register.fields.map((field) => ({ ...field, rule: field.key === 'pilot' ? rule : null }));
  const context = { locale: houseLocale, today: '2026-11-29', fields, catalogs: new Map([['c', compileCatalog('c', 'Pilots', items)]]) };
  const edits = rows.flatMap((row, at) => Object.entries(row).map(([field, typed]) => ({ entry: String(at), field, typed })));
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
  const registers = `${bench.server.base}/api/v1/programs/registers`;
  const empty = median(await times(60, async () => (await fetch(registers, { headers: { authorization } })).arrayBuffer()));
  const ours = median(await times(60, async () => (await ask({ 'if-none-match': etag })).arrayBuffer()));
  print({
    name: 'values.etag',
    value: ours,
    unit: 'ms',
    against: 'a list of one register, asked with the same token',
    ratio: empty / ours,
  });
}

const sheetPart = 'xl/worksheets/sheet1.xml';
const sentEntries = 100_000;

/** A sheet of its own with 100,000 of the same entries, downloaded as a workbook that comes back. Seconds it took, and the file. */
async function sentBook(database: Database, bench: Million): Promise<{ spent: number; bytes: Uint8Array; registerId: string }> {
  const { administrator, houseId, register, server } = bench;
  const { id: sheetId } = await administrator.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: `Sent ${randomUUID()}` });
  const sheets = async () => (await administrator.call<BuildView>('GET', '/build')).sheets;
  const { id: registerId } = (await sheets()).find(({ id }) => id === sheetId)!.registers[0]!;
  for (const { heading, kind } of register.fields) await administrator.call('POST', `/registers/${registerId}/fields`, { heading, kind });
  await sql`
    insert into entries (house_id, register_id, id, pos, cells)
    select house_id, ${registerId}, gen_random_uuid(), pos, cells from entries
    where house_id = ${houseId} and register_id = ${register.id} order by pos limit ${sentEntries}`.execute(database.kysely);
  const started = performance.now();
  const wanted = { format: 'workbook', arranged: false, labels: false, guarded: false, comesBack: true };
  const { id } = await administrator.call<DownloadView>('POST', `/registers/${registerId}/downloads`, wanted);
  while ((await administrator.call<DownloadView>('GET', `/downloads/${id}`)).state !== 'done') await pause(20);
  const spent = (performance.now() - started) / 1000;
  const response = await fetch(`${server.base}/api/v1/downloads/${id}/file`, { headers: { cookie: administrator.cookie } });
  return { spent, bytes: new Uint8Array(await response.arrayBuffer()), registerId };
}

export async function workbookOut100k(database: Database, bench: Million): Promise<void> {
  const { spent, bytes } = await sentBook(database, bench);
  const parts = unzipSync(bytes);
  const bare = median(await times(3, () => Promise.resolve(zipSync(parts)))) / 1000;
  print({ name: 'workbook.out.100k', value: spent, unit: 's', against: 'zipping the same XML, ready', ratio: bare / spent });
}

const changedRows = 1000;

export async function back100k(database: Database, bench: Million): Promise<void> {
  const { administrator, server } = bench;
  const { bytes, registerId } = await sentBook(database, bench);
  const parts = unzipSync(bytes);
  let row = 0;
  const changed = strFromU8(parts[sheetPart]!).replaceAll(/>Quay (\d+)</gu, (text) =>
    row++ % (sentEntries / changedRows) === 0 ? '>Elsewhere<' : text,
  );
  const file = Buffer.from(zipSync({ ...parts, [sheetPart]: strToU8(changed) }));
  const bare = median(
    await times(3, async () => {
      let rows = 0;
      for await (const piece of (await openFile(bytesOf(file), 'back.xlsx')).pieces())
        rows += piece.piece === 'rows' ? piece.rows.length : 0;
      if (rows < sentEntries) throw new Error(`${rows} rows were read`);
    }),
  );
  const idle = server.memory();
  let most = idle;
  const watching = setInterval(() => {
    most = Math.max(most, server.memory());
  }, 50);
  const started = performance.now();
  const response = await fetch(`${server.base}/api/v1/returned-files?name=back.xlsx&registerId=${registerId}`, {
    method: 'POST',
    headers: { cookie: administrator.cookie, 'content-type': 'application/octet-stream' },
    body: file,
  });
  const { id } = (await response.json()) as ReturnedFileView;
  const look = () => administrator.call<ReturnedFileView>('GET', `/returned-files/${id}`);
  while ((await look()).state === 'reading') await pause(20);
  const spent = performance.now() - started;
  clearInterval(watching);
  const { state, counts } = await look();
  if (state !== 'ready' || counts.cells !== changedRows) throw new Error(`${state}: ${JSON.stringify(counts)}`);
  print({ name: 'back.100k', value: spent, unit: 'ms', against: 'reading the file with the same ZIP and XML parts', ratio: bare / spent });
  print({ name: 'back.memory.100k', value: most - idle, unit: 'MB', against: 'limit 200 MB above idle', ratio: null });
}
