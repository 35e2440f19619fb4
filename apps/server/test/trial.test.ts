// The trial: people write while servers, the database and connections are killed at random. Afterwards every acknowledged write is there
// exactly once, blocks are whole, ledger, counts and numbers are true, and what was under way was carried to its end.
// DELLUM_TRIAL says how many seconds it goes on (`npm run trial`).
import { Socket } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { newLayout } from '@dellum/core';
import type { FormView, Outcome } from '@dellum/contract';
import { CountsStore, SealsStore, type Database } from '@dellum/server';
import { sql } from 'kysely';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openHouse, type Visitor, type House } from './house.js';
import { startTrial, type Trial } from './trial/cluster.js';
import { nothingWritten, Speaker, write, type Written } from './trial/writers.js';

const seconds = Number(process.env['DELLUM_TRIAL'] ?? 15);
const followers = 4000;
const writers = 4;

let trial: Trial;
let house: House;
let registerId: string;
let formId: string;
beforeAll(async () => {
  trial = await startTrial();
  const base = trial.bases[0]!;
  house = await openHouse(
    { base, database: trial.database },
    Array.from({ length: followers }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' })),
  );
  const { administrator } = house;
  registerId = house.visits.id;
  for (const heading of ['Note', 'Group']) await administrator.call('POST', `/registers/${registerId}/fields`, { heading, kind: 'text' });
  const { body } = await administrator.call<{ id: string }>('POST', '/forms', { registerId, title: 'Notes' });
  formId = body.id;
  const { title, edition, layout } = await administrator.get<FormView>(`/forms/${formId}`);
  const asked = layout.sections.map((section) => ({ ...section, fields: section.fields.filter(({ field }) => field === 'note') }));
  await administrator.call('PUT', `/forms/${formId}`, { title, edition, layout: { ...newLayout([]), sections: asked } });
  expect((await administrator.call('POST', `/forms/${formId}/versions`, {})).status).toBe(201);
}, 120_000);
afterAll(() => trial.stop(), 60_000);

const speakerOf = async (visitor: Visitor) => new Speaker(trial.bases, await visitor.signedIn());

/** Kills somebody every second or so until it is over; returns how often whom. */
async function killing(isOver: () => boolean): Promise<Record<string, number>> {
  const killed: Record<string, number> = { servers: 0, databases: 0, listeners: 0, connections: 0 };
  for (let turn = 0; !isOver(); turn++) {
    await wait(300 + Math.random() * 700);
    // Whatever chance says, a short trial has each of them.
    const what = turn < 4 ? turn : Math.floor(Math.random() * 4);
    if (what === 1) await trial.killDatabase();
    else if (what === 0) await trial.killServer(turn % 2);
    else await trial.breakConnections(what === 2);
    killed[['servers', 'databases', 'listeners', 'connections'][what]!]!++;
  }
  return killed;
}

/** A reader who opens the live stream and reads nothing of it. */
async function stalledReader(cookie: string): Promise<Socket> {
  const { port, host } = new URL(trial.bases[0]!);
  const socket = new Socket();
  socket.on('error', () => undefined);
  socket.connect(Number(port), '127.0.0.1', () => socket.write(`GET /api/v1/live HTTP/1.1\r\nHost: ${host}\r\nCookie: ${cookie}\r\n\r\n`));
  socket.pause();
  return socket;
}

/** Corrects a value that all followers hold, and empties a field of all entries by one act: both go on by themselves. */
async function longWork(speaker: Speaker, clerk: Speaker): Promise<void> {
  const acts = { path: [], value: 'Tam Ossel', act: 'correct', to: 'Tamsin Ossel' };
  const proposed = (await speaker.untilAnswered('POST', `/catalogs/${house.catalog.id}/items/acts`, acts)).body as Outcome;
  if (proposed.slip) {
    const answers = proposed.slip.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' }));
    await speaker.untilAnswered('POST', `/slips/${proposed.slip.id}/answers`, { answers });
  }
  await clerk.untilAnswered('POST', `/registers/${registerId}/entry-acts`, {
    does: 'clear',
    block: { fields: ['visit'], arranged: false },
  });
}

async function settled(database: Database, speaker: Speaker): Promise<void> {
  const end = Date.now() + 90_000;
  for (;;) {
    await speaker.untilAnswered('GET', '/session');
    const { rows } = await sql<{ open: number }>`select (select count(*) from carries where finished_at is null)::int
      + (select count(*) from entry_acts where state <> 'done')::int as open`.execute(database.kysely);
    if (rows[0]!.open === 0) return;
    if (Date.now() > end) throw new Error(`${rows[0]!.open} works are not at their end`);
    await wait(200);
  }
}

interface Stored {
  readonly id: string;
  readonly cells: Readonly<Record<string, string>>;
}

/** What is not as it should be, in words; nothing where all is. */
async function broken(database: Database, written: readonly Written[]): Promise<string[]> {
  const db = database.kysely;
  const found: string[] = [];
  const { rows: entries } = await sql<Stored>`select id, cells from entries where register_id = ${registerId}`.execute(db);
  const stored = new Map(entries.map(({ id, cells }) => [id, cells]));
  for (const one of written) {
    for (const [entry, fields] of one.cells)
      for (const [field, texts] of fields)
        if (!texts.has(stored.get(entry)?.[field] ?? ''))
          found.push(`lost: ${[...texts].join(' or ')}; there is ${stored.get(entry)?.[field]}`);
    for (const group of one.groups)
      if (new Set(group.map((entry) => stored.get(entry)?.['group'])).size > 1) found.push(`a block in parts: ${group.join()}`);
    for (const text of one.filled) {
      const times = entries.filter(({ cells }) => cells['note'] === text).length;
      if (times !== 1) found.push(`a form is there ${times} times: ${text}`);
    }
  }
  const { rows: values } = await sql<{ value: string; times: number }>`
    select cells ->> 'value' as value, count(*)::int as times from entries where register_id = ${house.pilots.id} group by 1`.execute(db);
  const listed = new Map(values.map(({ value, times }) => [value, times]));
  for (const one of written)
    for (const value of one.listed) if (listed.get(value) !== 1) found.push(`a value is there ${listed.get(value)} times: ${value}`);
  const followers = entries.filter(({ cells }) => cells['pilot'] === 'Tam Ossel' || cells['visit'] !== undefined).length;
  if (followers > 0) found.push(`${followers} entries do not follow`);

  // The ledger, told from the beginning, is what entries hold.
  const { rows: told } = await sql<{
    id: string;
    act: string;
    field: string | null;
    to: string | null;
    detail: Record<string, string> | null;
  }>`
    select entry_id as id, act, field_key as field, to_value as "to", detail from ledger_lines
    where register_id = ${registerId} and entry_id is not null order by ledger_lines.id`.execute(db);
  const retold = new Map<string, Record<string, string>>();
  for (const { id, act, field, to, detail } of told) {
    if (act === 'entry.inserted' || act === 'entry.restored') retold.set(id, { ...detail });
    else if (act === 'entry.deleted') retold.delete(id);
    else if (field !== null && retold.has(id)) {
      if (to === null || to === '') delete retold.get(id)![field];
      else retold.get(id)![field] = to;
    }
  }
  for (const [id, cells] of retold) {
    const sorted = (held: object) => JSON.stringify(Object.entries(held).sort());
    if (sorted(stored.get(id) ?? {}) !== sorted(cells))
      found.push(`the ledger tells ${sorted(cells)}, there is ${sorted(stored.get(id) ?? {})}`);
  }

  const counts = new CountsStore(database);
  const { rows: fields } = await sql<{ id: string; key: string }>`select id, key from fields where register_id = ${registerId}`.execute(db);
  for (const { id, key } of fields) {
    const kept = (await counts.ofFields(db, house.id, [id])).get(id) ?? new Map<string, number>();
    const recount = await counts.recount(db, house.id, registerId, key);
    if (JSON.stringify([...kept].sort()) !== JSON.stringify([...recount].sort()))
      found.push(`the counts of ${key} are not those of a recount`);
  }
  const { rows: numbers } = await sql<{ whole: boolean }>`
    select count(*) = max(seq) - min(seq) + 1 and max(seq) = (select seq from house_counters where house_id = ${house.id}) as whole
    from changes where house_id = ${house.id}`.execute(db);
  if (!numbers[0]!.whole) found.push('the numbers of the changes have gaps');
  const seals = new SealsStore(database);
  if (!(await seals.seal())) found.push('the ledger cannot be sealed');
  for (const { broken: seal } of await seals.check(db)) if (seal) found.push(`seal ${seal.ord} does not fit its rows`);
  return found;
}

it(
  'loses no acknowledged write, doubles none, and carries on what was under way, whoever is killed',
  async () => {
    const end = Date.now() + seconds * 1000;
    const isOver = () => Date.now() > end;
    const [administrator, clerk] = [await speakerOf(house.administrator), await speakerOf(house.clerk)];
    const readers = await Promise.all(Array.from({ length: 3 }, async () => stalledReader(await house.reader.signedIn())));
    const written = Array.from({ length: writers }, nothingWritten);
    const place = { registerId, formId, listId: house.pilots.id };
    // Lists are the administrator's; clerks' writes on them are refused, which is an answer, too.
    const [killed] = await Promise.all([
      killing(isOver),
      longWork(administrator, clerk),
      ...written.map((own, at) => write(at === 0 ? administrator : clerk, place, own, isOver)),
    ]);
    for (const reader of readers) reader.destroy();
    await settled(trial.database, administrator);
    const found = await broken(trial.database, written);
    const sum = (of: (one: Written) => number) => written.reduce((total, one) => total + of(one), 0);
    process.stdout.write(
      `${JSON.stringify({ seconds, ...killed, acknowledged: sum((one) => one.acknowledged), unknown: sum((one) => one.unknown), wrong: found.length })}\n`,
    );
    expect(found).toEqual([]);
  },
  seconds * 1000 + 300_000,
);
