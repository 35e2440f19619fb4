// Attacks at the edge: bodies that are too large, too deep, too wide or slow; streams whose readers stop, break off or are signed out.
import { spawn } from 'node:child_process';
import { connect, type Socket } from 'node:net';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import type { Problem } from '@dellum/contract';
import fc from 'fast-check';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { freePort } from '../../../scripts/lib/postgres.mjs';
import { shapeFault } from '../src/api/bodyShape.js';
import { mostUnsent } from '../src/live/eventStream.js';
import { mostStreams } from '../src/live/live.controller.js';
import { inserting, openHouse, startServer, until, Visitor, type House, type Running } from './house.js';

let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, [{ visit: 'V1' }]);
});
afterAll(() => running.close());

const stranger = () => new Visitor(running.base);
const wide = (members: number) => `{${Array.from({ length: members }, (_, at) => `"m${at}":1`).join(',')}}`;
const deep = (levels: number) => `{"house":${'['.repeat(levels)}${']'.repeat(levels)}}`;

/** A connection on which one writes by hand. */
async function dial(head: readonly string[]): Promise<Socket> {
  const { hostname, port } = new URL(running.base);
  const socket = connect(Number(port), hostname);
  await new Promise((done, failed) => socket.once('connect', done).once('error', failed));
  socket.on('error', () => undefined);
  socket.write(`${head.join('\r\n')}\r\nHost: ${hostname}:${port}\r\n`);
  return socket;
}

describe('a body', () => {
  it.each([
    ['40,000 unknown members', wide(40_000), 413, 'too-large'],
    ['2,000 unknown members', wide(1200), 413, 'too-large'],
    ['400 unknown members', wide(400), 422, 'not-valid'],
    ['7,000 levels', deep(7000), 400, 'malformed-body'],
    ['8 MB of brackets', '['.repeat(8_000_000), 413, 'too-large'],
    ['no JSON', '{"house":', 400, 'malformed-body'],
    ['a number', '7', 400, 'malformed-body'],
    ['nothing', '', 422, 'not-valid'],
  ])('of a stranger with %s is refused', async (_, body, status, code) => {
    const answer = await stranger().call<Problem>('POST', '/session', body, { 'content-type': 'application/json' });
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(Object.keys(answer.body.faults ?? {}).length).toBeLessThanOrEqual(20);
  });
  it.each([
    ['80,000 unknown members', wide(80_000), 400, 'malformed-body'],
    ['many levels', deep(40), 400, 'malformed-body'],
    ['2 MB', JSON.stringify({ title: 'x'.repeat(2_000_000) }), 413, 'too-large'],
    ['60,000 members in lists', JSON.stringify({ title: Array.from({ length: 60_000 }, () => 1) }), 413, 'too-large'],
    ['1,000 unknown members', wide(1000), 422, 'not-valid'],
  ])('of somebody signed in with %s is refused', async (_, body, status, code) => {
    const answer = await house.administrator.call<Problem>('POST', '/sheets', body);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(JSON.stringify(answer.body).length).toBeLessThan(4000);
  });
  it('is not waited for where the request may not be made at all', async () => {
    const socket = await dial(['POST /api/v1/sheets HTTP/1.1', 'Content-Type: application/json', 'Content-Length: 7900000']);
    socket.write('\r\n{"title":"');
    const said = await new Promise<string>((done) => socket.once('data', (data) => done(String(data))));
    expect(said).toMatch(/^HTTP\/1\.1 401 /);
    socket.destroy();
  });
  it('of a block is taken up to its bounds', async () => {
    const cells = Array.from({ length: 3000 }, () => ({ entry: crypto.randomUUID(), field: 'visit', text: 'x'.repeat(400) }));
    const answer = await house.clerk.call<Problem>('POST', `/registers/${house.visits.id}/entries/block`, { cells });
    expect(answer.body.code).toBe('not-found');
  });
  it('is looked at as JSON would be: strings hold no members', () =>
    fc.assert(
      fc.property(fc.json(), fc.string(), (json, text) => {
        const value: unknown = JSON.parse(json);
        const count = (one: unknown): { members: number; objects: number } => {
          if (typeof one !== 'object' || one === null) return { members: 0, objects: 0 };
          const inner = Object.values(one).map(count);
          return {
            members: Math.max(1, inner.length) + inner.reduce((sum, { members }) => sum + members, 0),
            objects: (Array.isArray(one) ? 0 : 1) + inner.reduce((sum, { objects }) => sum + objects, 0),
          };
        };
        const { members, objects } = count([text, value]);
        const body = JSON.stringify([text, value]);
        expect(shapeFault(body, { members, objects })).toBeUndefined();
        expect(shapeFault(body, { members: members - 1, objects })).toBe('too many');
        if (objects > 0) expect(shapeFault(body, { members, objects: objects - 1 })).toBe('too many');
      }),
    ));
});

describe('a stream', () => {
  const stream = async (visitor: Visitor) => {
    const socket = await dial(['GET /api/v1/live HTTP/1.1', `Cookie: ${await visitor.signedIn()}`]);
    socket.write('\r\n');
    return socket;
  };
  const begun = async (socket: Socket) => {
    let said = '';
    socket.on('data', (data) => (said += String(data)));
    await until(async () => said.includes('event: ready'));
  };
  const ended = (socket: Socket) => new Promise<void>((done) => (socket.destroyed ? done() : socket.once('close', () => done())));
  /** Tells the house a change of so many bytes. */
  const tellMuch = (bytes: number) =>
    sql`
      with taken as (update house_counters set seq = seq + 1 where house_id = ${house.id} returning seq), told as (
        insert into changes (house_id, seq, audience, body) select ${house.id}, seq, 'everyone', jsonb_build_object('kind', 'requests', 'pad', repeat('x', ${bytes})) from taken)
      select pg_notify('dellum_live', ${house.id} || ':' || seq) from taken`.execute(running.database.kysely);
  const tell = () =>
    house.administrator.call('POST', `/registers/${house.pilots.id}/acts`, { acts: [inserting(`Pilot ${crypto.randomUUID()}`)] });

  it('whose reader takes nothing more is let go of, and the server goes on', async () => {
    const socket = await stream(house.clerk);
    await begun(socket);
    const before = await running.connections();
    socket.pause();
    // The kernel's own buffers take some of it first.
    await until(async () => {
      await tellMuch(mostUnsent / 2);
      return (await running.connections()) < before;
    });
    socket.destroy();
    expect((await tell()).status).toBe(200);
    expect((await stranger().call('POST', '/session', { house: house.key, signIn: 'clerk', password: 'wrong-password' })).status).toBe(401);
  });
  it('that is broken off before it has begun leaves nothing behind', async () => {
    await house.reader.signedIn();
    const before = await running.connections();
    const sockets = await Promise.all(Array.from({ length: 40 }, () => stream(house.reader)));
    for (const socket of sockets) socket.destroy();
    await until(async () => (await running.connections()) <= before);
    expect((await tell()).status).toBe(200);
  });
  it('ends when its session does', async () => {
    const visitor = new Visitor(running.base);
    await visitor.call('POST', '/session', { house: house.key, signIn: 'steward', password: 'correct-horse-1' });
    const socket = await stream(visitor);
    await begun(socket);
    await visitor.call('DELETE', '/session');
    await ended(socket);
  });
  it('is one of a few of its session: the oldest goes', async () => {
    const first = await stream(house.steward);
    await begun(first);
    const others = [];
    for (let at = 0; at < mostStreams; at++) {
      const other = await stream(house.steward);
      await begun(other);
      others.push(other);
    }
    await ended(first);
    for (const other of others) other.destroy();
  });
});

describe('the log of requests', () => {
  it('holds nothing by which somebody could come in', async () => {
    const port = await freePort();
    const base = `http://127.0.0.1:${port}`;
    const child = spawn(process.execPath, [join(import.meta.dirname, '../dist/main.js')], {
      env: { ...process.env, DATABASE_URL: inject('databaseUrl'), PORT: String(port), DELLUM_LOG: 'requests' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let said = '';
    child.stderr.on('data', (data) => (said += String(data)));
    for await (const line of createInterface({ input: child.stdout })) if (line.startsWith('listening')) break;
    const secret = 'abcdefghijklmnopqrstuvwx';
    const headers = { cookie: `dellum=${secret}`, authorization: `Bearer ${secret}`, referer: `${base}/open/${secret}` };
    await fetch(`${base}/api/v1/open/${secret}?version=1`, { headers });
    await fetch(`${base}/api/v1/programs/catalogs`, { headers });
    await until(() => Promise.resolve(said.includes('/programs/catalogs')));
    child.kill();
    expect(said).toContain('/api/v1/open/…?version=1');
    expect(said).not.toContain(secret);
  });
});
