// All measurements, in one run over one database.
import { impactOf } from '@dellum/core';
import type { Me, Outcome } from '@dellum/contract';
import {
  CountsStore,
  createServer,
  Database,
  EntriesService,
  EntriesStore,
  migrate,
  PlacesStore,
  posGap,
  type Caller as Person,
} from '@dellum/server';
import { sql } from 'kysely';
import { adopt1m, adoptApply100k } from './adopting.js';
import { keyToPaint, sheetScroll } from './browser.js';
import { clusterWrite } from './cluster.js';
import { catalogCompile, doctor, lookAlike } from './catalogs.js';
import { back100k, check10k, csvOut1m, valuesEtag, workbookOut100k } from './exchange.js';
import { figureKept1m, figures1m } from './figures.js';
import { firstVisit } from './firstVisit.js';
import { formOpen } from './forms.js';
import { listOpen, upkeepCold } from './lists.js';
import { judgeBlock, judgeCascade } from './judge.js';
import { median, percentile, print, printFailed, times } from './measure.js';
import { entries, million, values, type Million } from './million.js';
import { outsideCascade1m } from './outside.js';
import { picker100k, picker1m, picker5k } from './picker.js';
import { caller, serve } from './server.js';
import { arrange1m, paste100k } from './sheet.js';

const databaseUrl = process.env['DATABASE_URL']!;

async function sheetPage(database: Database, { houseId, register }: Million): Promise<void> {
  const db = database.kysely;
  const store = new EntriesStore(new PlacesStore());
  const place = { houseId, registerId: register.id };
  const from = 700_000;
  const ours = median(await times(40, () => store.page(db, place, from, 200)));
  const offset = median(
    await times(8, () =>
      sql`select id, version, cells from entries where house_id = ${houseId} and register_id = ${register.id} and pos in (
        select pos from entries where house_id = ${houseId} and register_id = ${register.id} order by pos offset ${from} limit 200) order by pos`.execute(
        db,
      ),
    ),
  );
  print({ name: 'sheet.page.1m', value: ours, unit: 'ms', against: '200 entries by OFFSET over an index-only scan', ratio: offset / ours });
}

async function impact(database: Database, { houseId, register, pilot }: Million): Promise<void> {
  const db = database.kysely;
  const counts = new CountsStore(database);
  const gone = values.slice(0, 3);
  const diff = { added: [], removed: gone, edited: [], restored: [], moved: false };
  const ours = median(await times(60, async () => impactOf(diff, await counts.ofValues(db, houseId, [pilot.id], gone))));
  const scan = median(
    await times(5, () =>
      sql`select count(*) from entries where house_id = ${houseId} and register_id = ${register.id} and cells ->> 'pilot' = any(${gone}::text[])`.execute(
        db,
      ),
    ),
  );
  print({ name: 'impact.1m', value: ours, unit: 'ms', against: 'one scan of the field', ratio: scan / ours });
}

const clients = 8;
const seconds = 5;

/** Calls a second that `clients` can make one after the other, each on entries of its own. */
async function perSecond(work: (client: number, turn: number) => Promise<unknown>): Promise<number> {
  let done = 0;
  const until = performance.now() + seconds * 1000;
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      for (let turn = 0; performance.now() < until; turn++) {
        await work(client, turn);
        done++;
      }
    }),
  );
  return done / seconds;
}

async function entryWrite(houseId: string, { register, administrator }: Million): Promise<void> {
  const app = await createServer({ databaseUrl });
  const service = app.get(EntriesService);
  const database = app.get(Database);
  const me = await administrator.call<Me>('GET', '/session');
  const person: Person = { id: me.id, houseId, name: me.name, role: me.role };
  const ids = (
    await sql<{
      id: string;
    }>`select id from entries where house_id = ${houseId} and register_id = ${register.id} order by id limit 4000`.execute(database.kysely)
  ).rows.map(({ id }) => id);
  const entryOf = (client: number, turn: number) => ids[(client * 500 + (turn % 500)) % ids.length]!;
  const plain = (client: number, turn: number) =>
    database.transaction(async (trx) => {
      const id = entryOf(client, turn);
      const found = await sql<{
        cells: Record<string, string>;
      }>`select cells, version from entries where house_id = ${houseId} and register_id = ${register.id} and id = ${id} for update`.execute(
        trx,
      );
      const { cells } = found.rows[0]!;
      const next = { ...cells, pilot: values[turn % values.length]! };
      await sql`update entries set cells = ${JSON.stringify(next)}::jsonb, version = version + 1 where house_id = ${houseId} and register_id = ${register.id} and id = ${id}`.execute(
        trx,
      );
      await sql`insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, from_value, to_value) values (${houseId}, ${me.id}, 'bench', ${register.id}, ${id}, 'pilot', ${cells['pilot']}, ${next.pilot})`.execute(
        trx,
      );
    });
  const edit = (client: number, turn: number) =>
    service.editCell(person, register.id, entryOf(client, turn), {
      field: 'pilot',
      text: values[(turn * 7 + client) % values.length]!,
      version: 1_000_000,
    });
  const rounds: { ours: number; bare: number }[] = [];
  for (let round = 0; round < 3; round++) rounds.push({ bare: await perSecond(plain), ours: await perSecond(edit) });
  const ours = median(rounds.map((round) => round.ours));
  print({
    name: 'entry.write',
    value: ours,
    unit: 'edits/s',
    against: 'lock, update and ledger row through the same pool',
    ratio: ours / median(rounds.map(({ bare }) => bare)),
  });
  await app.close();
}

const listeners = 200;
const offers = 100;

/** Calls `heard` for every event of a stream; resolves when it is open. */
async function hear(base: string, cookie: string, heard: (text: string) => void): Promise<AbortController> {
  const stopping = new AbortController();
  const response = await fetch(`${base}/api/v1/live`, { headers: { cookie }, signal: stopping.signal });
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  await reader.read();
  const read = async () => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      heard(value);
    }
  };
  void read().catch(() => undefined);
  return stopping;
}

async function liveOffer({ administrator, list, catalogId }: Million): Promise<void> {
  const other = await serve(databaseUrl);
  let arrived: (() => void) | undefined;
  const first = await hear(other.base, administrator.cookie, (text) => text.includes(`"catalogId":"${catalogId}"`) && arrived?.());
  const rest = await Promise.all(Array.from({ length: listeners - 1 }, () => hear(other.base, administrator.cookie, () => undefined)));
  const spent: number[] = [];
  for (let turn = 0; turn < offers; turn++) {
    const heard = new Promise<void>((resolve) => (arrived = resolve));
    const started = performance.now();
    const stored = administrator.call<Outcome>('POST', `/registers/${list.id}/acts`, {
      acts: [{ act: 'insert', fields: ['value'], rows: [[`Offer ${turn}`]] }],
    });
    await heard;
    spent.push(performance.now() - started);
    await stored;
  }
  [first, ...rest].forEach((stopping) => stopping.abort());
  await other.stop();
  print({
    name: 'live.offer',
    value: percentile(spent, 0.95),
    unit: 'ms',
    against: `limit 150 ms, ${listeners} listeners, 95th percentile of ${offers}`,
    ratio: null,
  });
}

async function memory({ server, administrator, register }: Million): Promise<void> {
  for (let at = 0; at < 40; at++)
    await administrator.call('GET', `/registers/${register.id}/entries?from=${Math.floor((at / 40) * entries)}&count=1000`);
  await administrator.call('GET', `/registers/${register.id}/counts`);
  print({ name: 'server.memory.1m', value: server.memory(), unit: 'MB', against: 'limit 300 MB', ratio: null });
}

/** Milliseconds from the answer of a slip until a reader on another server sees nothing but the new spelling in 200,000 entries. */
async function rename({ administrator, list, register, pilot, houseId }: Million, database: Database): Promise<void> {
  const [from, to] = [values[7]!, 'Value seven, written right'];
  await sql`update entries set cells = jsonb_set(cells, '{pilot}', to_jsonb(${from}::text)) where house_id = ${houseId} and register_id = ${register.id} and pos <= ${(200_000n * posGap).toString()}`.execute(
    database.kysely,
  );
  await sql`delete from value_counts where field_id = ${pilot.id}`.execute(database.kysely);
  await sql`delete from value_deltas where field_id = ${pilot.id}`.execute(database.kysely);
  await sql`delete from value_blocks where field_id = ${pilot.id}`.execute(database.kysely);
  await sql`insert into value_counts (house_id, field_id, value, entries) select ${houseId}, ${pilot.id}, cells ->> 'pilot', count(*) from entries where house_id = ${houseId} and register_id = ${register.id} group by 3`.execute(
    database.kysely,
  );
  const other = await serve(databaseUrl);
  const reader = caller(other.base, administrator.cookie);
  const entries = (
    await administrator.call<{ entries: { id: string; cells: Record<string, string> }[] }>(
      'GET',
      `/registers/${list.id}/entries?from=0&count=1000`,
    )
  ).entries;
  const row = entries.find(({ cells }) => cells['value'] === from)!;
  const { slip } = await administrator.call<Outcome>('POST', `/registers/${list.id}/acts`, {
    acts: [{ act: 'write', cells: [{ entry: row.id, field: 'value', text: to }] }],
  });
  const started = performance.now();
  await administrator.call('POST', `/slips/${slip!.id}/answers`, {
    answers: slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' })),
  });
  for (;;) {
    const page = await reader.call<{ entries: { cells: Record<string, string> }[] }>(
      'GET',
      `/registers/${register.id}/entries?from=199000&count=1000`,
    );
    if (page.entries.every(({ cells }) => cells['pilot'] === to)) break;
  }
  const seen = performance.now() - started;
  await other.stop();
  print({ name: 'rename.200k', value: seen, unit: 'ms', against: 'limit 200 ms until every reader sees the new spelling', ratio: null });
}

/** All measurements, or those whose names were given: `npm run bench -- entry.write`. */
const measurements: Readonly<Record<string, (database: Database, bench: Million) => Promise<void>>> = {
  'sheet.page.1m': sheetPage,
  'impact.1m': impact,
  'server.memory.1m': (_database, bench) => memory(bench),
  'outside.cascade.1m': outsideCascade1m,
  'live.offer': (_database, bench) => liveOffer(bench),
  'rename.200k': (database, bench) => rename(bench, database),
  'entry.write': (_database, bench) => entryWrite(bench.houseId, bench),
  'sheet.arrange.1m': arrange1m,
  'paste.100k': paste100k,
  'figures.1m': figures1m,
  'figure.kept.1m': figureKept1m,
  'csv.out.1m': csvOut1m,
  'workbook.out.100k': workbookOut100k,
  'back.100k': back100k,
  'adopt.1m': adopt1m,
  'adopt.apply.100k': adoptApply100k,
  'check.10k': check10k,
  'values.etag': valuesEtag,
  'first.visit': firstVisit,
  'form.open': formOpen,
  'list.open.100k': listOpen,
  'upkeep.cold.100k': upkeepCold,
  'key.to.paint': keyToPaint,
  'sheet.scroll.1m': sheetScroll,
};

/** What needs no database. */
const computed: Readonly<Record<string, () => Promise<void>>> = {
  'catalog.compile.100k': catalogCompile,
  'doctor.100k': doctor,
  'lookalikes.100k': lookAlike,
  'picker.search.5k': picker5k,
  'picker.search.100k': picker100k,
  'picker.search.1m': picker1m,
  'judge.block': judgeBlock,
  'judge.cascade': judgeCascade,
  'cluster.write': clusterWrite,
};

const asked = process.argv.slice(2);
const wanted = (name: string) => asked.length === 0 || asked.includes(name);
/** A line that cannot be measured says why, and the rest goes on; the run as a whole has failed then. */
async function tried(name: string, measure: () => Promise<void>): Promise<void> {
  if (!wanted(name)) return;
  try {
    await measure();
  } catch (error) {
    printFailed(name, error);
    process.exitCode = 1;
  }
}

for (const [name, measure] of Object.entries(computed)) await tried(name, measure);
if (asked.length > 0 && !asked.some((name) => name in measurements)) process.exit();

const database = new Database(databaseUrl, 4);
await migrate(database.kysely);
const bench = await million(database, databaseUrl);
try {
  for (const [name, measure] of Object.entries(measurements)) await tried(name, () => measure(database, bench));
} finally {
  await bench.server.stop();
  await database.kysely.destroy();
}
