// The start command: what it owns is brought back when it dies, and nothing of it is left behind.
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { BuildView, EntryPage } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort } from '../../../scripts/lib/postgres.mjs';
import { until, Visitor } from './house.js';

const root = new URL('../../../', import.meta.url).pathname;
let folder: string;
let port: number;
const started: ChildProcess[] = [];

/** Starts it in the folder of the test; `said` is all that it has said. */
function start(data = folder) {
  const child = spawn(process.execPath, [join(root, 'scripts', 'start.mjs'), '--empty'], {
    env: { ...process.env, DELLUM_DATA: data, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (text += String(data)));
  const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
  return { child, ended, said: () => text };
}

const data = () => join(folder, 'own');
/** The server that runs. */
const running = () => (JSON.parse(readFileSync(join(data(), 'start.json'), 'utf8')) as { processes: [number] }).processes[0];
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
    process.kill(running(), 'SIGKILL');
    await until(async () => first.said().includes('is ready again') && (await isWell()), 60);
    expect(first.said()).toContain('The server stopped by itself (SIGKILL); it is started again in 1 s.');
    process.kill(postmaster(), 'SIGKILL');
    await until(async () => first.said().includes('The database is back.') && (await isWell()), 60);

    const second = start();
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain('Dellum runs from');
    expect(await isWell()).toBe(true);

    // Killed, it leaves its server and its database behind; the next start ends the one and takes the other over.
    const left = running();
    first.child.kill('SIGKILL');
    await first.ended;
    const third = start();
    await until(async () => third.said().includes('Dellum is ready'), 60);
    expect([isThere(left), await isWell()]).toEqual([false, true]);

    const [server, database] = [running(), postmaster()];
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
    expect(third.said()).toContain('Dellum has stopped.');
    expect([isThere(server), isThere(database)]).toEqual([false, false]);
  }, 240_000);
});

describe('a backup', () => {
  const script = (name: string, args: readonly string[], data = folder) => {
    const done = spawnSync(process.execPath, [join(root, 'scripts', name), ...args], {
      env: { ...process.env, DELLUM_DATA: data },
      encoding: 'utf8',
    });
    return { code: done.status, said: done.stdout + done.stderr };
  };
  it('is written while people work, and brings a house back into a new folder, as it was', async () => {
    const first = start();
    await until(async () => first.said().includes('Dellum is ready'), 60);
    const visitor = new Visitor(`http://127.0.0.1:${port}`);
    const account = { name: 'Orla Venn', signIn: 'orla', password: 'a-long-password' };
    expect((await visitor.call('POST', '/houses', { house: 'Marl Lane', ...account })).status).toBe(204);
    const sheet = await visitor.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: 'Orders' });
    const registers = async (who: Visitor) => (await who.get<BuildView>('/build')).sheets.flatMap((one) => one.registers);
    const [register] = await registers(visitor);
    expect(sheet.status).toBe(201);
    await visitor.call('POST', `/registers/${register!.id}/fields`, { heading: 'Item', kind: 'text' });
    const add = (count: number) => visitor.call('POST', `/registers/${register!.id}/entries`, { count });
    await add(250);
    const writing = Promise.all(Array.from({ length: 5 }, () => add(1)));
    const made = script('backup.mjs', [join(folder, 'kept')]);
    await writing;
    expect(made).toMatchObject({ code: 0 });
    const file = /^(\S+\.dump) holds (\d+) entries/u.exec(made.said)!;
    expect(Number(file[2])).toBeGreaterThanOrEqual(250);
    await add(100);
    // A house that is there is not written over, and what is no backup is told.
    expect(script('restore.mjs', [file[1]!])).toMatchObject({ code: 1, said: expect.stringContaining('runs from') as string });
    first.child.kill('SIGTERM');
    await first.ended;
    expect(script('restore.mjs', [file[1]!]).said).toContain('There is a house in this data folder already.');
    expect(script('restore.mjs', [join(root, 'package.json')]).said).toContain('is no backup of Dellum');

    const other = join(folder, 'elsewhere');
    expect(script('restore.mjs', [file[1]!], other)).toMatchObject({
      code: 0,
      said: expect.stringContaining(`${file[2]} entries are back.`) as string,
    });
    const again = start(other);
    await until(async () => again.said().includes('Dellum is ready'), 60);
    const back = new Visitor(`http://127.0.0.1:${port}`);
    expect((await back.call('POST', '/session', { signIn: 'orla', password: account.password })).status).toBe(204);
    const page = await back.get<EntryPage>(`/registers/${(await registers(back))[0]!.id}/entries?from=0&count=1`);
    expect(page.total).toBe(Number(file[2]));
    again.child.kill('SIGTERM');
    expect(await again.ended).toBe(0);
  }, 240_000);
});
