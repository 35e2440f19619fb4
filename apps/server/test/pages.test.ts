// What goes out to browsers, as it goes: the built pages and their parts, compressed before, and answers, compressed on their way.
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { createServer } from '@dellum/server';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { MadeToken, ProgramCatalog } from '@dellum/contract';
import { openHouse, startServer, type House, type Running } from './house.js';

const folder = mkdtempSync('/tmp/dellum-pages-');
const outside = `${folder}-outside.js`;
const part = `export const words = '${'pilot '.repeat(500)}';`;
let running: Running;
let house: House;
let base: string;
let close: () => Promise<void>;
beforeAll(async () => {
  writeFileSync(join(folder, 'index.html'), '<title>The page</title>');
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'assets', 'part-1a.js'), part);
  writeFileSync(join(folder, 'assets', 'part-1a.js.br'), brotliCompressSync(part));
  writeFileSync(join(folder, 'assets', 'part-1a.js.gz'), gzipSync(part));
  writeFileSync(join(folder, '.secret'), 'secret');
  writeFileSync(outside, 'outside');
  running = await startServer();
  house = await openHouse(
    running,
    Array.from({ length: 200 }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' })),
  );
  const app = await createServer({ databaseUrl: inject('databaseUrl'), webFolder: folder });
  await app.listen(0, '127.0.0.1');
  base = `http://127.0.0.1:${(app.getHttpServer().address() as { port: number }).port}`;
  close = async () => {
    app.getHttpServer().closeAllConnections();
    await app.close();
  };
});
afterAll(async () => {
  await close();
  await running.close();
  rmSync(folder, { recursive: true });
  rmSync(outside);
});

const ask = (path: string, takes: string, more: RequestInit & { headers?: Record<string, string> } = {}) =>
  fetch(`${base}${path}`, { ...more, headers: { ...more.headers, 'accept-encoding': takes } });

describe('A part of the pages', () => {
  it.each([
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['identity', null],
  ])('is sent to a browser that takes %s as %s, and kept by it for ever', async (takes, encoding) => {
    const response = await ask('/assets/part-1a.js', takes);
    expect([response.status, response.headers.get('content-encoding'), await response.text()]).toEqual([200, encoding, part]);
    expect(response.headers.get('vary')).toMatch(/accept-encoding/iu);
    expect(response.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    expect(response.headers.get('content-type')).toMatch(/javascript/u);
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  });
  it('of a build before is not there, rather than the page', async () => {
    expect((await ask('/assets/part-of-yesterday.js', 'identity')).status).toBe(404);
  });
  it.each(['/.secret', `/..%2f${outside.split('/').at(-1)}`, `/assets/..%2f..%2f${outside.split('/').at(-1)}`])(
    'lies in the folder, and not hidden: %s is the page',
    async (path) => {
      expect(await (await ask(path, 'identity')).text()).toBe('<title>The page</title>');
    },
  );
});

describe('The page', () => {
  it.each(['/', '/sheets', '/sheets/0b0e7a62-1111-4222-8333-944455556666', '/sign-in?to=%2Fsheets'])(
    'stands under every address of its own, and is asked for each time: %s',
    async (path) => {
      const response = await ask(path, 'identity');
      expect([response.status, await response.text()]).toEqual([200, '<title>The page</title>']);
      expect(response.headers.get('cache-control')).toBe('no-cache');
      const known = { 'if-none-match': response.headers.get('etag')! };
      expect((await ask(path, 'identity', { headers: known })).status).toBe(304);
    },
  );
  it('is none where one writes, or asks the API', async () => {
    expect((await ask('/sheets', 'identity', { method: 'DELETE' })).status).toBe(404);
    const response = await ask('/api/v1/nothing', 'identity');
    expect([response.status, response.headers.get('content-type')]).toEqual([404, expect.stringMatching(/problem\+json/u)]);
  });
});

describe('An answer', () => {
  const signedIn = async () => ({ cookie: await house.administrator.signedIn() });
  it('is compressed on its way, and the same', async () => {
    const path = `/api/v1/registers/${house.visits.id}/entries?from=0&count=200`;
    const [small, large] = [
      await ask(path, 'gzip', { headers: await signedIn() }),
      await ask(path, 'identity', { headers: await signedIn() }),
    ];
    expect([small.headers.get('content-encoding'), large.headers.get('content-encoding')]).toEqual(['gzip', null]);
    expect(await small.json()).toEqual(await large.json());
  });
  it('that is short, a file, a stream, or marked by its bytes, goes as it is', async () => {
    const headers = await signedIn();
    const plain = async (path: string, more: Record<string, string> = headers) => {
      const response = await ask(`/api/v1${path}`, 'gzip, br', { headers: more });
      await response.body?.cancel();
      return [response.status, response.headers.get('content-encoding')];
    };
    expect(await plain('/session')).toEqual([200, null]);
    expect(await plain(`/catalogs/${house.catalog.id}/file?format=csv`)).toEqual([200, null]);
    expect(await plain('/live')).toEqual([200, null]);
    const { token } = (
      await house.administrator.call<MadeToken>('POST', '/access-tokens', {
        ...{ name: 'Values', writes: false, catalogs: [house.catalog.id], registers: [], until: '2099-12-31' },
      })
    ).body;
    const authorization = { authorization: `Bearer ${token}` };
    const [catalog] = (await (await ask('/api/v1/programs/catalogs', 'gzip', { headers: authorization })).json()) as ProgramCatalog[];
    expect(await plain(`/programs/catalogs/${catalog!.key}/values`, authorization)).toEqual([200, null]);
  });
});
