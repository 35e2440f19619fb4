// The start command: what it owns is brought back when it dies, and nothing of it is left behind.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { until } from './house.js';

const root = new URL('../../../', import.meta.url).pathname;
let folder: string;
let port: number;
const started: ChildProcess[] = [];

async function freePort(): Promise<number> {
  const probe = createServer();
  await new Promise<void>((done) => probe.listen(0, '127.0.0.1', done));
  const { port: free } = probe.address() as AddressInfo;
  await new Promise((done) => probe.close(done));
  return free;
}

/** Starts it in the folder of the test; `said` is all that it has said. */
function start() {
  const child = spawn(process.execPath, [join(root, 'scripts', 'start.mjs'), '--empty'], {
    env: { ...process.env, DELLUM_DATA: folder, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (text += String(data)));
  const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
  return { child, ended, said: () => text };
}

const data = () => join(folder, 'own');
const running = () => JSON.parse(readFileSync(join(data(), 'start.json'), 'utf8')) as { start: number; server: number };
const postmaster = () => Number(readFileSync(join(data(), 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
const isWell = () =>
  fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
    ({ ok }) => ok,
    () => false,
  );
const isThere = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

beforeAll(async () => {
  folder = mkdtempSync('/tmp/dellum-start-');
  port = await freePort();
});
afterAll(async () => {
  for (const child of started) child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

describe('the start command', () => {
  it('starts a server and a database again that died, lets nobody start twice, and ends with all that is its own', async () => {
    const first = start();
    await until(isWell, 120);
    process.kill(running().server, 'SIGKILL');
    await until(async () => first.said().includes('is ready again') && (await isWell()), 60);
    expect(first.said()).toContain('The server stopped by itself (SIGKILL); it is started again in 1 s.');
    process.kill(postmaster(), 'SIGKILL');
    await until(async () => first.said().includes('The database is back.') && (await isWell()), 60);

    const second = start();
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain('Dellum runs from');
    expect(await isWell()).toBe(true);

    // Killed, it leaves its server and its database behind; the next start ends the one and takes the other over.
    const left = running().server;
    first.child.kill('SIGKILL');
    await first.ended;
    const third = start();
    await until(async () => third.said().includes('Dellum is ready'), 60);
    expect([isThere(left), await isWell()]).toEqual([false, true]);

    const [server, database] = [running().server, postmaster()];
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
    expect(third.said()).toContain('Dellum has stopped.');
    expect([isThere(server), isThere(database)]).toEqual([false, false]);
  }, 240_000);
});
