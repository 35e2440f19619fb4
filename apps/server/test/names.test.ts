// Under which names the server answers, whom it believes in front of it, and what it says of itself to those who run it.
import { request as ask, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createServer, Database, edgeFrom, Metrics } from '@dellum/server';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, [{ visit: 'V1' }]);
});
afterAll(() => running.close());

interface Heard {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
}

/** Asks a server on loopback under any name. */
const under = (base: string, method: string, path: string, headers: Record<string, string>, body?: object): Promise<Heard> =>
  new Promise((done, failed) => {
    const { port } = new URL(base);
    const sent = ask(
      { host: '127.0.0.1', port, method, path, headers: { ...headers, ...(body && { 'content-type': 'application/json' }) } },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', (part: string) => (text += part));
        answer.on('end', () => done({ status: answer.statusCode!, headers: answer.headers, text }));
      },
    );
    sent.once('error', failed);
    sent.end(body && JSON.stringify(body));
  });

const threshold = '/api/v1/houses/threshold';

describe('a name', () => {
  it.each([
    ['127.0.0.1', 200],
    ['localhost:4170', 200],
    ['lists.localhost', 200],
    ['[::1]:4170', 200],
    ['192.168.7.7', 200],
    ['rebound.example', 421],
    ['localhost.rebound.example', 421],
    ['127.0.0.1.rebound.example', 421],
  ])('“%s” that leads here is answered %i', async (host, status) => {
    expect((await under(running.base, 'GET', threshold, { host })).status).toBe(status);
  });
  it('that another site sends along is believed of nobody who is no proxy of ours', async () => {
    const forwarded = { host: 'rebound.example', 'x-forwarded-host': 'localhost', 'x-forwarded-proto': 'https' };
    expect((await under(running.base, 'GET', threshold, forwarded)).status).toBe(421);
  });
});

describe('behind a proxy', () => {
  let app: Awaited<ReturnType<typeof createServer>>;
  let base: string;
  beforeAll(async () => {
    app = await createServer({
      databaseUrl: inject('databaseUrl'),
      edge: edgeFrom({ DELLUM_PROXIES: 'loopback', DELLUM_HOSTS: 'lists.example, office.example' }),
    });
    await app.listen(0, '127.0.0.1');
    base = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
  });
  afterAll(() => app.close());
  const signIn = (headers: Record<string, string>) =>
    under(base, 'POST', '/api/v1/session', headers, { house: house.key, signIn: 'clerk', password: 'correct-horse-1' });

  it('answers under its names, writes from its own pages only, and gives cookies to secure connections alone', async () => {
    const secure = { host: 'inner:80', 'x-forwarded-host': 'lists.example', 'x-forwarded-proto': 'https' };
    expect((await under(base, 'GET', threshold, { ...secure, 'x-forwarded-host': 'rebound.example' })).status).toBe(421);
    const own = await signIn({ ...secure, origin: 'https://lists.example' });
    expect([own.status, String(own.headers['set-cookie'])]).toEqual([204, expect.stringMatching(/; Secure/u)]);
    expect((await signIn({ ...secure, origin: 'https://office.example' })).status).toBe(403);
    const plain = await signIn({ host: 'office.example', origin: 'http://office.example' });
    expect(String(plain.headers['set-cookie'])).not.toMatch(/; Secure/u);
  });

  it('is ready while its database answers and it is not about to stop; its figures stand on a port of their own', async () => {
    expect((await under(base, 'GET', '/healthz', { host: 'anything' })).status).toBe(200);
    expect((await under(base, 'GET', '/readyz', { host: 'anything' })).status).toBe(200);
    const figures = await app.get(Metrics).serve(0);
    const at = `http://127.0.0.1:${(figures.address() as AddressInfo).port}`;
    await under(base, 'GET', threshold, { host: 'office.example' });
    const { text } = await under(at, 'GET', '/metrics', { host: 'anything' });
    expect(text).toMatch(/dellum_request_seconds_count\{method="GET",route="\/api\/v1\/houses\/threshold",status="200"\} [1-9]/u);
    expect(text).toContain('dellum_live_streams 0');
    expect(text).toMatch(/dellum_database_connections\{state="waiting"\} 0/u);
    expect((await under(base, 'GET', '/metrics', { host: 'office.example' })).text).not.toContain('dellum_request_seconds');
    figures.close();
    const away = new Database('postgres://nobody@127.0.0.1:1/none', 1);
    expect(away.connections).toEqual({ used: 0, idle: 0, waiting: 0 });
    await away.kysely.destroy();
  });
});

describe('a full disk', () => {
  it('is said as what it is; what was typed can be sent again', async () => {
    const { id } = house;
    // The database says it of its own accord, as it does when a file cannot grow.
    await sql`create function full_disk() returns trigger language plpgsql as 'begin raise exception ''could not extend file'' using errcode = ''53100''; end'`.execute(
      running.database.kysely,
    );
    await sql`create trigger full_disk before insert on entries for each row when (new.house_id = '${sql.raw(id)}') execute function full_disk()`.execute(
      running.database.kysely,
    );
    const insert = () => house.clerk.call<{ code: string }>('POST', `/registers/${house.visits.id}/entries`, { count: 1 });
    const refused = await insert();
    expect([refused.status, refused.body.code, refused.headers.get('retry-after')]).toEqual([503, 'disk-full', '1']);
    expect((await house.clerk.call('GET', `/registers/${house.visits.id}/entries?from=0&count=5`)).status).toBe(200);
    await sql`drop trigger full_disk on entries`.execute(running.database.kysely);
    await sql`drop function full_disk`.execute(running.database.kysely);
    expect((await insert()).status).toBe(201);
  });
});
