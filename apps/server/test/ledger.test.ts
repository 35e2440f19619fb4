// The ledger: looked at, taken along as a file, and sealed, so that whoever changes a row of it is found out.
import { setTimeout as wait } from 'node:timers/promises';
import type { LedgerLine, LedgerPage, Problem } from '@dellum/contract';
import { SealsStore } from '@dellum/server';
import { sql } from 'kysely';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { entriesOf, freshDatabase, inserting, openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer(await freshDatabase());
  house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
});
afterAll(() => running.close());

const look = async (query: Record<string, string>, visitor = house.administrator) =>
  (await visitor.call<LedgerPage & Problem>('GET', `/ledger?${new URLSearchParams(query).toString()}`)).body;
const acts = (lines: readonly LedgerLine[]) => lines.map(({ act }) => act);

describe('the ledger', () => {
  it('tells who changed what when, from what to what, narrowed in each way', async () => {
    const { clerk, administrator, visits, pilots } = house;
    const at = `/registers/${visits.id}/entries`;
    const [entry] = await entriesOf(clerk, visits);
    await clerk.call('PATCH', `${at}/${entry!.id}`, { field: 'pilot', text: 'Rook Tansy', version: entry!.version });
    await administrator.call('POST', `/registers/${pilots.id}/acts`, { acts: [inserting('Nell Farrow')] });
    await clerk.call('POST', `${at}/delete`, { entries: [entry!.id] });
    const { lines, more } = await look({});
    expect(more).toBe(false);
    expect(lines.map(({ id }) => id)).toEqual(lines.map(({ id }) => id).sort((one, other) => other - one));
    const written = lines.find(({ act }) => act === 'cell.written')!;
    expect(written).toMatchObject({
      by: 'The clerk',
      registerId: visits.id,
      entryId: entry!.id,
      field: 'pilot',
      from: 'Tam Ossel',
      to: 'Rook Tansy',
    });
    expect(lines.find(({ act }) => act === 'entry.deleted')).toMatchObject({ about: 'V1 · Rook Tansy', by: 'The clerk' });
    expect(lines.find(({ act }) => act === 'item.added')).toMatchObject({ about: 'Pilots', to: 'Nell Farrow' });
    const clerkId = (await clerk.get<{ id: string }>('/session')).id;
    expect(acts((await look({ person: clerkId, kind: 'entries' })).lines)).toEqual(['entry.deleted', 'cell.written']);
    expect(acts((await look({ kind: 'sign-ins', person: clerkId })).lines)).toEqual(['session.begun']);
    expect(acts((await look({ register: visits.id, field: 'pilot' })).lines)).toEqual(['cell.written']);
    expect(acts((await look({ value: 'Rook Tansy' })).lines)).toEqual(['entry.deleted', 'cell.written']);
    expect((await look({ value: 'Nobody' })).lines).toEqual([]);
    expect((await look({ until: '2020-01-01' })).lines).toEqual([]);
    expect((await look({ from: '2020-01-01', until: '2120-01-01' })).lines).toEqual(lines);
    expect((await look({ before: String(lines[1]!.id) })).lines).toEqual(lines.slice(2));
    expect((await look({ from: '2026-02-31' })).code).toBe('not-valid');
    expect((await look({ kind: 'everything' })).code).toBe('not-valid');
    for (const other of [house.clerk, house.steward, house.reader]) expect((await look({}, other)).code).toBe('not-allowed');
  });

  it('is shown part by part, and taken along whole as a file in which no text is a formula', async () => {
    const { clerk, visits } = house;
    await clerk.call('POST', `/registers/${visits.id}/entries`, { count: 120 });
    const [entry] = await entriesOf(clerk, visits);
    await clerk.call('PATCH', `/registers/${visits.id}/entries/${entry!.id}`, {
      field: 'visit',
      text: '=1+1, "x"',
      version: entry!.version,
    });
    const first = await look({ kind: 'entries' });
    const second = await look({ kind: 'entries', before: String(first.lines.at(-1)!.id) });
    expect([first.lines.length, first.more, second.more]).toEqual([100, true, false]);
    const file = await fetch(`${running.base}/api/v1/ledger/file?kind=entries`, {
      headers: { cookie: await house.administrator.signedIn() },
    });
    expect(file.headers.get('content-disposition')).toContain('ledger.csv');
    const { data } = Papa.parse<Record<string, string>>(await file.text(), { header: true, skipEmptyLines: true });
    expect(data.map(({ id }) => Number(id))).toEqual([...first.lines, ...second.lines].map(({ id }) => id));
    expect(data[0]).toMatchObject({ act: 'cell.written', by: 'The clerk', to: `'=1+1, "x"` });
  });
});

describe('what one act wrote into several fields', () => {
  it('is one row, told as a line for each field, narrowed by each of them, and shown and taken along whole', async () => {
    const other = await openHouse(
      running,
      Array.from({ length: 80 }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' })),
    );
    const { visits, clerk } = other;
    const entries = await entriesOf(clerk, visits);
    const cells = entries.flatMap(({ id: entry }, at) => [
      { entry, field: 'visit', text: at === 5 ? '' : `W${at}` },
      { entry, field: 'pilot', text: at === 7 ? 'Bryn Calloway' : 'Rook Tansy' },
    ]);
    expect((await clerk.call('POST', `/registers/${visits.id}/entries/block`, { cells })).status).toBe(200);
    const ask = (query: Record<string, string>) => look({ kind: 'entries', ...query }, other.administrator);
    const rows = await running.database.kysely
      .selectFrom('ledger')
      .select('id')
      .where('house_id', '=', other.id)
      .where('act', '=', 'cell.written')
      .execute();
    expect(rows.length).toBe(80);
    const told = ({ entryId, field, from, to }: LedgerLine) => JSON.stringify([entryId, field, from, to]);
    const wanted = cells.map(({ entry, field, text }, at) =>
      JSON.stringify([entry, field, field === 'visit' ? `V${Math.floor(at / 2)}` : 'Tam Ossel', text === '' ? null : text]),
    );
    const parts: LedgerPage[] = [await ask({})];
    while (parts.at(-1)!.more) parts.push(await ask({ before: String(parts.at(-1)!.lines.at(-1)!.id) }));
    const lines = parts.flatMap((part) => part.lines);
    expect(
      lines
        .filter(({ act }) => act === 'cell.written')
        .map(told)
        .sort(),
    ).toEqual([...wanted].sort());
    // A part ends with a whole act.
    expect(parts.map((part) => part.lines.length % 2)).toEqual(parts.map(() => 0));
    expect((await ask({ field: 'visit' })).lines.map(({ field }) => field)).toEqual(Array.from({ length: 80 }, () => 'visit'));
    expect((await ask({ value: 'Bryn Calloway' })).lines.map(told)).toEqual([
      JSON.stringify([entries[7]!.id, 'pilot', 'Tam Ossel', 'Bryn Calloway']),
    ]);
    expect((await ask({ value: 'V5' })).lines.map(told)).toEqual([JSON.stringify([entries[5]!.id, 'visit', 'V5', null])]);
    const file = await fetch(`${running.base}/api/v1/ledger/file?kind=entries`, {
      headers: { cookie: await other.administrator.signedIn() },
    });
    const { data } = Papa.parse<Record<string, string>>(await file.text(), { header: true, skipEmptyLines: true });
    expect(data.map(({ id, field, to }) => [id, field, to])).toEqual(lines.map(({ id, field, to }) => [String(id), field ?? '', to ?? '']));
  });
});

const undone = new Error('undone');

describe('the seals', () => {
  const checked = async () =>
    (await new SealsStore(running.database).check(running.database.kysely)).find(({ house: key }) => key === house.key)!;

  it('cover every row once, whoever writes meanwhile, and find each row that is changed, taken out or put in', async () => {
    const store = new SealsStore(running.database);
    const { clerk, visits } = house;
    const writing = Array.from({ length: 20 }, () => clerk.call('POST', `/registers/${visits.id}/entries`, { count: 3 }));
    await store.seal();
    await Promise.all(writing);
    while (!(await store.seal())) await wait(20);
    const whole = await checked();
    expect(whole).toMatchObject({ unsealed: 0, broken: null });
    const { rows } = await sql<{ count: number }>`select count(*) as count from ledger where house_id = ${house.id}`.execute(
      running.database.kysely,
    );
    expect(whole.rows).toBe(rows[0]!.count);
    expect(await store.knows(running.database.kysely, whole.digest!)).toBe(true);

    // As whoever owns the database could do it.
    const row = sql`(select id from ledger where house_id = ${house.id} and act = 'cell.written' order by id limit 1)`;
    const attacks = [
      sql`update ledger set to_value = 'Somebody else' where id = ${row}`,
      sql`update ledger set person_id = null where id = ${row}`,
      sql`update ledger set at = at + interval '1 microsecond' where id = ${row}`,
      sql`update ledger set detail = '{}' where act = 'entry.deleted'`,
      sql`update ledger set fields = '{"visit": ["V1", "V2"]}' where id = ${row}`,
      sql`delete from ledger where id = ${row}`,
      sql`with gone as (delete from ledger where id = ${row} returning *) insert into ledger (house_id, id, at, act) overriding system value select house_id, id, at, act from gone`,
      sql`delete from ledger_seals where house_id = ${house.id} and ord = 1`,
      sql`update ledger_seals set digest = repeat('0', 64) where house_id = ${house.id} and ord = 1`,
    ];
    for (const attack of attacks)
      await running.database
        .transaction(async (trx) => {
          await attack.execute(trx);
          const found = (await store.check(trx)).find(({ house: key }) => key === house.key)!;
          expect(found.broken, attack.compile(trx).sql).not.toBeNull();
          throw undone;
        })
        .catch((error: unknown) => expect(error).toBe(undone));
    // Whoever cuts off the newest rows with their seals is found out by a seal that was noted elsewhere.
    await running.database
      .transaction(async (trx) => {
        const last = sql`(select max(ord) from ledger_seals where house_id = ${house.id})`;
        await sql`delete from ledger_seals where house_id = ${house.id} and ord = ${last}`.execute(trx);
        expect(await store.knows(trx, whole.digest!)).toBe(false);
        throw undone;
      })
      .catch((error: unknown) => expect(error).toBe(undone));
    expect(await checked()).toEqual(whole);
  });
});
