// Webhooks: who is told what, when it is sent again, and when no more. The receiver is the stand-in, which checks how messages are signed.
import { createHmac } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { CatalogView, LedgerPage, MadeWebhook, Problem, Upkeep, WebhookDto, WebhookMessageView, Webhooks } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { startReceiver, type Receiver } from '../../../stand-ins/receiver.mjs';
import { reachableFrom } from '../src/linked/reachable.js';
import { entriesOf, freshDatabase, openHouse, startServer, until, type House, type Running } from './house.js';

let running: Running;
let house: House;
let receiver: Receiver;
/** What the server is given by name for each house; tests change it. */
let given: string;
beforeAll(async () => {
  receiver = await startReceiver();
  running = await startServer(await freshDatabase(), (key) => reachableFrom({ DELLUM_WEBHOOKS: given.replaceAll('HOUSE', key) })(key));
});
afterAll(async () => {
  await running.close();
  receiver.stop();
});
beforeEach(async () => {
  given = `HOUSE: Board=${receiver.base}/messages\nHOUSE: Elsewhere=${receiver.base}/nowhere\nHOUSE: Nobody=http://127.0.0.1:1/`;
  house = await openHouse(running, [{ pilot: 'Tam Ossel' }]);
  receiver.answer = (response) => response.writeHead(204).end();
  receiver.secret = undefined;
  (receiver.messages as unknown[]).length = 0;
});

const make = (over: Partial<WebhookDto> = {}, who = house) =>
  who.administrator.call<MadeWebhook & Problem>('POST', '/webhooks', {
    name: 'Harbour board',
    receiver: 'Board',
    catalogs: [who.catalog.id],
    registers: [who.visits.id],
    ...over,
  });
const list = (who = house) => who.administrator.get<Webhooks>('/webhooks');
const messages = (id: string) => house.administrator.get<WebhookMessageView[]>(`/webhooks/${id}/messages`);
const newest = async (id: string) => (await messages(id))[0];
/** A new value in the list of pilots: its catalog changes. */
const addPilot = (name: string, who = house) =>
  who.administrator.call('POST', `/registers/${who.pilots.id}/acts`, { acts: [{ act: 'insert', fields: ['value'], rows: [[name]] }] });
/** Lets time pass for what waits. */
const later = (change: 'webhooks' | 'webhook_messages', column: string, by: string) =>
  sql`update ${sql.table(change)} set ${sql.ref(column)} = ${sql.ref(column)} - ${by}::interval where house_id = ${house.id}`.execute(
    running.database.kysely,
  );
/** What is read, once it is as it is wished for. */
async function awaited<T>(read: () => T | Promise<T>, holds: (it: T) => boolean): Promise<T> {
  let last!: T;
  await until(async () => holds((last = await read())));
  return last;
}
const changed = () => receiver.messages.filter(({ type }) => type === 'house.changed');

describe('a webhook', () => {
  it('is made for an address that was given to the house, and for what is there', async () => {
    expect((await list()).receivers).toEqual(['Board', 'Elsewhere', 'Nobody']);
    const bad: readonly (readonly [Partial<WebhookDto>, number, string])[] = [
      [{ receiver: 'Somewhere' }, 422, 'not-valid'],
      [{ receiver: `${receiver.base}/messages` }, 422, 'not-valid'],
      [{ receiver: '' }, 422, 'not-valid'],
      [{ name: ' ' }, 422, 'name-unfit'],
      [{ catalogs: [], registers: [] }, 422, 'not-valid'],
      [{ catalogs: [house.visits.id] }, 404, 'not-found'],
      [{ registers: [house.pilots.id] }, 404, 'not-found'],
    ];
    for (const [over, status, code] of bad) {
      const answer = await make(over);
      expect([over, answer.status, answer.body.code]).toEqual([over, status, code]);
    }
    const { status, body } = await make();
    expect(status).toBe(201);
    expect(body.secret).toMatch(/^whsec_[A-Za-z0-9+/]{43}=$/u);
    expect((await make({ name: 'harbour  BOARD' })).body.code).toBe('name-taken');
    // What messages are signed with is told once.
    const shown = [await list(), await messages(body.id), (await house.administrator.get<LedgerPage>('/ledger')).lines];
    expect(JSON.stringify(shown)).not.toContain(body.secret.slice(6));
    // Another house has neither its addresses nor the webhook.
    const other = await openHouse(running, []);
    expect((await list(other)).webhooks).toEqual([]);
    for (const [method, path] of [
      ['GET', 'messages'],
      ['POST', 'tests'],
      ['POST', 'on'],
    ] as const)
      expect((await other.administrator.call(method, `/webhooks/${body.id}/${path}`, method === 'POST' ? {} : undefined)).status).toBe(404);
    expect((await other.administrator.call('DELETE', `/webhooks/${body.id}`)).status).toBe(404);
    expect((await house.administrator.call('DELETE', `/webhooks/${body.id}`)).status).toBe(204);
    expect((await list()).webhooks).toEqual([]);
  });

  it('tells what has changed of what was chosen, signed, and nothing else', async () => {
    const { id, secret } = (await make()).body;
    receiver.secret = secret;
    const { key } = (await house.administrator.get<{ catalogs: CatalogView[] }>('/build')).catalogs.find(
      (known) => known.id === house.catalog.id,
    )!;
    await addPilot('Wenna Hallet');
    const [told] = await awaited(changed, (all) => all.length > 0);
    expect(told).toMatchObject({ signature: 'good', data: { anew: false, catalogs: [{ key }], registers: [] } });
    expect(
      await awaited(
        () => newest(id),
        (message) => message?.state === 'taken',
      ),
    ).toMatchObject({ kind: 'changes', tries: 1, said: '204', next: null });
    expect((await list()).webhooks[0]).toMatchObject({
      failing: null,
      off: null,
      by: 'The administrator',
      lastTold: expect.any(String) as string,
    });
    const [entry] = await entriesOf(house.administrator, house.visits);
    await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${entry!.id}`, {
      field: 'pilot',
      text: 'Wenna Hallet',
      version: entry!.version,
    });
    const [next] = await awaited(changed, (all) => all.length > 1);
    expect(next!.data).toMatchObject({ catalogs: [], registers: [house.visits.id] });
    expect(next!.data['now']).toBeGreaterThan(told!.data['now'] as number);
    // A change that concerns nothing of it is not told; the next one is.
    await house.administrator.call('POST', '/sheets', { kind: 'entry', title: 'Beside it' });
    await addPilot('Corin Vale');
    await awaited(changed, (all) => all.length > 2);
    expect(changed()[0]!.data).toMatchObject({ catalogs: [{ key }], registers: [] });
    // No message holds anything of what was entered.
    expect(JSON.stringify(receiver.messages)).not.toMatch(/Wenna|Corin|pilot\b.*Ossel/u);
  });

  it('signs as the specification says, also for one who computes it by other means', async () => {
    const { id, secret } = (await make()).body;
    let seen: { headers: Record<string, string>; body: string } | undefined;
    const server = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        seen = { headers: request.headers as Record<string, string>, body: Buffer.concat(parts).toString() };
        response.end('thank you');
      });
    }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    given = `HOUSE: Board=http://127.0.0.1:${(server.address() as { port: number }).port}/`;
    const { body } = await house.administrator.call<WebhookMessageView>('POST', `/webhooks/${id}/tests`, {});
    expect(body).toMatchObject({ kind: 'test', state: 'taken', said: '200 thank you' });
    const { 'webhook-id': message, 'webhook-timestamp': at, 'webhook-signature': signature } = seen!.headers;
    const own = createHmac('sha256', Buffer.from(secret.slice('whsec_'.length), 'base64'))
      .update(`${message}.${at}.${seen!.body}`)
      .digest('base64');
    expect(signature).toBe(`v1,${own}`);
    expect(Math.abs(Number(at) - Date.now() / 1000)).toBeLessThan(60);
    expect(JSON.parse(seen!.body)).toMatchObject({ type: 'webhook.test', data: {} });
    server.close();
  });
});

describe('what is not taken', () => {
  it('is sent again, the same message each time, and what changes meanwhile comes with the next one', async () => {
    const { id } = (await make()).body;
    receiver.answer = (response) => response.writeHead(500).end('not\u0000 now \u{1F4A5}');
    await addPilot('Wenna Hallet');
    const waits = await awaited(
      () => newest(id),
      (message) => message?.said !== null && message !== undefined,
    );
    expect(waits).toMatchObject({ state: 'waits', tries: 1, said: '500 not now \u{1F4A5}' });
    expect(Date.parse(waits!.next!) - Date.now()).toBeGreaterThan(30_000);
    expect((await list()).webhooks[0]!.failing).toMatchObject({ said: waits!.said });
    expect((await house.administrator.get<Upkeep>('/upkeep')).untold).toEqual([
      { webhookId: id, name: 'Harbour board', said: waits!.said, off: false },
    ]);
    await addPilot('Corin Vale');
    receiver.answer = (response) => response.writeHead(200).end();
    await later('webhook_messages', 'next_at', '1 hour');
    await running.tick();
    await awaited(changed, (all) => all.length === 3);
    const [last, again, first] = changed();
    expect(again!.id).toBe(first!.id);
    expect(last!.id).not.toBe(first!.id);
    expect(
      (
        await awaited(
          () => messages(id),
          (all) => all.every(({ state }) => state === 'taken'),
        )
      ).map(({ tries }) => tries),
    ).toEqual([1, 2]);
    expect((await house.administrator.get<Upkeep>('/upkeep')).untold).toEqual([]);
  });

  it.each([
    [
      'an address that sends on',
      (response: Parameters<Receiver['answer']>[0]) => response.writeHead(302, { location: '/messages' }).end(),
      /^302 .*not followed/u,
    ],
    [
      'an answer without end',
      (response: Parameters<Receiver['answer']>[0]) => {
        response.writeHead(400);
        const more = () => {
          if (!response.destroyed) response.write('x'.repeat(60_000), () => setImmediate(more));
        };
        response.on('error', () => undefined);
        more();
      },
      /^400 x{300}$/u,
    ],
    ['a connection that breaks', (response: Parameters<Receiver['answer']>[0]) => void response.destroy(), /cannot be reached/u],
  ])('says why: %s', async (_what, answer, said) => {
    const { id } = (await make()).body;
    receiver.answer = answer;
    const { body } = await house.administrator.call<WebhookMessageView>('POST', `/webhooks/${id}/tests`, {});
    expect(body).toMatchObject({ state: 'not taken', tries: 1, said: expect.stringMatching(said) as string });
    expect(receiver.messages).toHaveLength(1);
    // A test that fails is no failing webhook.
    expect((await list()).webhooks[0]).toMatchObject({ failing: null, off: null });
  });

  it('says why: nobody there, an address that was taken away', async () => {
    for (const [name, words] of [
      ['Nobody', /cannot be reached/u],
      ['Elsewhere', /^404/u],
    ] as const) {
      const { id } = (await make({ name, receiver: name })).body;
      const { body } = await house.administrator.call<WebhookMessageView>('POST', `/webhooks/${id}/tests`, {});
      expect(body.said).toMatch(words);
    }
    const { id } = (await make()).body;
    receiver.answer = (response) => {
      response.writeHead(200, { 'content-length': 100 }).write('half');
      setTimeout(() => response.destroy(), 50);
    };
    expect((await house.administrator.call<WebhookMessageView>('POST', `/webhooks/${id}/tests`, {})).body).toMatchObject({
      state: 'taken',
      said: '200',
    });
    given = '';
    expect((await house.administrator.call<WebhookMessageView>('POST', `/webhooks/${id}/tests`, {})).body.said).toContain(
      'DELLUM_WEBHOOKS',
    );
  });

  it('for three days, or for good, switches it off; turned on again it tells what it missed', async () => {
    const { id } = (await make()).body;
    receiver.answer = (response) => response.writeHead(503).end();
    await addPilot('Wenna Hallet');
    await awaited(
      () => newest(id),
      (message) => message?.said === '503',
    );
    await later('webhooks', 'failing_since', '4 days');
    await later('webhook_messages', 'next_at', '1 day');
    await running.tick();
    const [off] = await awaited(
      async () => (await list()).webhooks,
      ([webhook]) => webhook!.off !== null,
    );
    expect(off!.failing).not.toBeNull();
    expect((await house.administrator.get<Upkeep>('/upkeep')).untold).toMatchObject([{ webhookId: id, off: true }]);
    expect((await house.administrator.get<LedgerPage>('/ledger')).lines[0]).toMatchObject({
      act: 'webhook.off',
      by: null,
      about: 'Harbour board',
    });
    const before = receiver.messages.length;
    await later('webhook_messages', 'next_at', '1 day');
    await addPilot('Corin Vale');
    await running.tick();
    expect((await newest(id))!.next).toBeNull();
    // It can be tried before it is turned on.
    receiver.answer = (response) => response.writeHead(200).end();
    await house.administrator.call('POST', `/webhooks/${id}/tests`, {});
    expect(receiver.messages.length).toBe(before + 1);
    expect((await house.administrator.call('POST', `/webhooks/${id}/on`, {})).status).toBe(204);
    await awaited(
      () => messages(id),
      (all) => all.filter(({ kind, state }) => kind === 'changes' && state === 'taken').length === 2,
    );
    expect(changed()).toHaveLength(before + 2);

    receiver.answer = (response) => response.writeHead(410).end();
    await addPilot('Rook Tansy');
    const [gone] = await awaited(
      async () => (await list()).webhooks,
      ([webhook]) => webhook!.off !== null,
    );
    expect(gone!.failing!.said).toContain('wants no more');
  });

  it('and what was, is kept for a while: the newest messages, and what waits', async () => {
    const { id } = (await make()).body;
    await sql`insert into webhook_messages (house_id, webhook_id, id, kind, body, state, at)
      select ${house.id}, ${id}, gen_random_uuid(), 'test', '{}', 'taken', now() - make_interval(mins => nth) from generate_series(1, 600) as nth`.execute(
      running.database.kysely,
    );
    await sql`insert into webhook_messages (house_id, webhook_id, id, kind, body, state, at, next_at)
      values (${house.id}, ${id}, gen_random_uuid(), 'changes', '{}', 'waits', now() - interval '60 days', now() + interval '1 hour'),
        (${house.id}, ${id}, gen_random_uuid(), 'test', '{}', 'taken', now() - interval '60 days', now())`.execute(running.database.kysely);
    await running.forget();
    const { rows } = await sql<{ state: string; kept: number }>`
      select state, count(*) as kept from webhook_messages where house_id = ${house.id} group by state order by state`.execute(
      running.database.kysely,
    );
    expect(rows).toEqual([
      { state: 'taken', kept: 500 },
      { state: 'waits', kept: 1 },
    ]);
  });

  it('is sent once where two servers look at the same time, and everything anew after a long silence', async () => {
    const { id } = (await make()).body;
    await sql`update webhooks set seq = -1 where house_id = ${house.id}`.execute(running.database.kysely);
    await Promise.all(Array.from({ length: 6 }, () => running.tell(house.id)));
    await awaited(
      () => newest(id),
      (message) => message?.state === 'taken',
    );
    expect(changed()).toHaveLength(1);
    expect(changed()[0]!.data).toMatchObject({ anew: true, catalogs: [], registers: [] });
  });

  it('and not again by a server that looked before another had told it', async () => {
    await make();
    await sql`update webhooks set seq = -1 where house_id = ${house.id}`.execute(running.database.kysely);
    const { told } = await running.database.transaction(async (trx) => {
      // Another server has told what is new, and is about to note it.
      await sql`update webhooks set seq = (select seq from house_counters where house_id = ${house.id}) where house_id = ${house.id}`.execute(
        trx,
      );
      const telling = running.tell(house.id);
      await until(async () => {
        const { rows } = await sql`select 1 from pg_stat_activity where wait_event_type = 'Lock' and query like '%webhooks%'`.execute(
          running.database.kysely,
        );
        return rows.length > 0;
      });
      return { told: telling };
    });
    await told;
    expect(changed()).toEqual([]);
  });
});
