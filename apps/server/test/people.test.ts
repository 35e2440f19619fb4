// Signing in and out, roles, and the edge of the API.
import type { Me, OpenApiDocument, Person } from './types.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openHouse, startServer, Visitor, type House, type Running } from './house.js';

let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
});
afterAll(() => running.close());

describe('sessions', () => {
  it('are rotated at sign-in and kept in an HttpOnly, SameSite=Lax cookie', async () => {
    const visitor = new Visitor(running.base, { house: house.key, role: 'clerk' });
    const first = await visitor.signedIn();
    const again = await visitor.call('POST', '/session', { house: house.key, signIn: ' CLERK ', password: 'correct-horse-1' });
    expect(again.headers.get('set-cookie')).toMatch(/^dellum_[0-9a-f]{8}=.*; Path=\/; .*HttpOnly; SameSite=Lax/);
    expect(visitor.cookie).not.toBe(first);
    const stale = new Visitor(running.base);
    stale.cookie = first;
    expect((await stale.call('GET', '/session')).status).toBe(401);
  });

  it('slow down whoever guesses, and say nothing about which half was wrong', async () => {
    const { house: own, administrator } = await (async () => {
      const other = await openHouse(running, []);
      return { house: other, administrator: other.administrator };
    })();
    const guess = (signIn: string) =>
      new Visitor(running.base).call('POST', '/session', { house: own.key, signIn, password: 'wrong-password' });
    const unknown = await guess('nobody');
    const known = await guess('clerk');
    expect([unknown.body.code, known.body.code]).toEqual(['wrong-sign-in', 'wrong-sign-in']);
    expect(unknown.body.detail).toBe(known.body.detail);
    for (let tries = 0; tries < 7; tries++) await guess('clerk');
    const right = await new Visitor(running.base).call('POST', '/session', {
      house: own.key,
      signIn: 'clerk',
      password: 'correct-horse-1',
    });
    expect([right.status, right.body.code]).toEqual([429, 'too-many-tries']);
    expect((await administrator.call('GET', '/session')).status).toBe(200);
  });

  it('are tried so often and no oftener, however many tries come at once; a browser that is known stays open, and a new password begins anew', async () => {
    const own = await openHouse(running, []);
    const address = `${running.base}/api/v1/session`;
    const from = async (password: string, cookie = '') => {
      const response = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...(cookie && { cookie }) },
        body: JSON.stringify({ house: own.key, signIn: 'clerk', password }),
      });
      return { status: response.status, cookies: response.headers.getSetCookie().map((line) => line.split(';')[0]!) };
    };
    const first = await from('correct-horse-1');
    expect([first.status, first.cookies.length]).toEqual([204, 2]);
    const known = first.cookies[1]!;
    const guesses = await Promise.all(Array.from({ length: 30 }, () => from('wrong-password')));
    expect(guesses.filter(({ status }) => status === 401).length).toBe(8);
    expect(guesses.filter(({ status }) => status === 429).length).toBe(22);
    // Who guesses locks nobody out of a browser that is known; in it one may not guess for ever, either.
    expect((await from('correct-horse-1')).status).toBe(429);
    const again = await from('correct-horse-1', known);
    expect([again.status, again.cookies.length]).toEqual([204, 1]);
    await Promise.all(Array.from({ length: 8 }, () => from('wrong-password', known)));
    expect((await from('correct-horse-1', known)).status).toBe(429);
    const clerk = (await own.administrator.get<Person[]>('/people')).find(({ role }) => role === 'clerk')!;
    await own.administrator.call('POST', `/people/${clerk.id}/password`, { password: 'another-long-one' });
    expect((await from('another-long-one')).status).toBe(204);
    const told = await running.database.kysely
      .selectFrom('ledger')
      .select('act')
      .where('house_id', '=', own.id)
      .where('act', 'like', 'session.%')
      .where('person_id', '=', clerk.id)
      .execute();
    expect(told.filter(({ act }) => act === 'session.begun').length).toBe(3);
    expect(told.filter(({ act }) => act === 'session.refused').length).toBe(16);
  });

  it('end when an administrator says so, and when the password is reset', async () => {
    const own = await openHouse(running, []);
    const people = await own.administrator.get<Person[]>('/people');
    await Promise.all([own.clerk.signedIn(), own.reader.signedIn()]);
    const clerk = people.find(({ role }) => role === 'clerk')!;
    expect((await own.administrator.call('DELETE', `/people/${clerk.id}/sessions`)).status).toBe(204);
    expect((await own.clerk.call('GET', '/session')).status).toBe(401);
    const reader = people.find(({ role }) => role === 'reader')!;
    await own.administrator.call('POST', `/people/${reader.id}/password`, { password: 'another-long-one' });
    expect((await own.reader.call('GET', '/session')).status).toBe(401);
    const again = await own.reader.call('POST', '/session', { house: own.key, signIn: 'reader', password: 'another-long-one' });
    expect(again.status).toBe(204);
  });
});

describe('people', () => {
  it('are added, given a role, and never left without an administrator', async () => {
    const own = await openHouse(running, []);
    const added = await own.administrator.call<{ id: string }>('POST', '/people', {
      name: 'Nell Farrow',
      signIn: 'nell',
      role: 'clerk',
      password: 'long-enough-pw',
    });
    expect(added.status).toBe(201);
    const taken = await own.administrator.call('POST', '/people', {
      name: 'Other',
      signIn: ' NELL ',
      role: 'clerk',
      password: 'long-enough-pw',
    });
    expect([taken.status, taken.body.code]).toEqual([409, 'name-taken']);
    const me = await own.administrator.get<Me>('/session');
    const last = await own.administrator.call('PATCH', `/people/${me.id}`, { role: 'clerk' });
    expect(last.body.code).toBe('last-administrator');
    await own.administrator.call('PATCH', `/people/${added.body.id}`, { role: 'administrator' });
    expect((await own.administrator.call('PATCH', `/people/${me.id}`, { role: 'clerk' })).status).toBe(204);
    expect((await own.administrator.call('GET', '/people')).body.code).toBe('not-allowed');
  });
  it.each(['password123', 'qwertyuiop', '1234567890', 'aaaaaaaaaaaa', 'Test House', 'nellfarrow1'])(
    'get no password that would be guessed at once: %s',
    async (password) => {
      const person = { name: 'Nell Farrow', signIn: 'nellf', role: 'clerk', password };
      const { status, body } = await house.administrator.call('POST', '/people', person);
      expect([status, Object.keys(body.faults ?? {})]).toEqual([422, ['password']]);
    },
  );
  it('say what is wrong with a form, input by input', async () => {
    const { status, body } = await house.administrator.call('POST', '/people', { name: '', signIn: 'x', role: 'king', password: 'short' });
    expect(status).toBe(422);
    expect(Object.keys(body.faults!).sort()).toEqual(['name', 'password', 'role']);
  });
});

const keepsFigures = ['POST /figures', 'PUT /figures/{id}', 'DELETE /figures/{id}'];
/** What each role may call; everything that is not listed here is closed to it. */
const clerkMay = [
  'PUT /session/password',
  'GET /session/all',
  'DELETE /session/others',
  'GET /figures',
  'POST /figures/counted',
  'POST /figures/entries',
  'POST /registers/{registerId}/downloads',
  'GET /downloads',
  'GET /downloads/{id}',
  'GET /downloads/{id}/file',
  'DELETE /downloads/{id}',
  'GET /build',
  'GET /catalogs/{id}/items',
  'GET /catalogs/{id}/items/packed',
  'GET /held',
  'GET /live',
  'GET /registers/{id}/counts',
  'POST /fields/{id}/rule/why',
  'GET /registers/{registerId}/entries',
  'GET /registers/{registerId}/entries/packed',
  'GET /session',
  'GET /session/factor',
  'POST /session/factor',
  'POST /session/factor/begin',
  'POST /session/factor/codes',
  'POST /session/factor/given-up',
  'DELETE /session',
  'GET /registers/{registerId}/arrangement',
  'PUT /registers/{registerId}/arrangement',
  'POST /registers/{registerId}/arrangement/anew',
  'GET /registers/{registerId}/values',
  'POST /registers/{registerId}/found',
  'POST /registers/{registerId}/summed',
  'GET /registers/{registerId}/requests',
  'POST /live/place',
  'POST /registers/{registerId}/records',
  'GET /registers/{registerId}/records/{id}',
  'GET /registers/{registerId}/records/{id}/history',
];
const stewardKeeps = [
  ...keepsFigures,
  'GET /requests',
  'GET /requests/count',
  'POST /requests/answers',
  'GET /slips',
  'POST /slips/{id}/answers',
  'DELETE /slips/{id}',
  'POST /catalogs/{id}/items',
  'POST /catalogs/{id}/items/acts',
  'PUT /catalogs/{id}/items/kept',
  'GET /catalogs/{id}/history',
  'GET /catalogs/{id}/as-of',
  'GET /catalogs/{id}/use',
  'GET /catalogs/{id}/lineage',
  'GET /catalogs/{id}/file',
];
const clerkEnters = [
  'POST /returned-files',
  'GET /returned-files',
  'GET /returned-files/{id}',
  'GET /returned-files/{id}/rows',
  'PUT /returned-files/{id}/columns',
  'POST /returned-files/{id}/compared',
  'PUT /returned-files/{id}/rows/{ord}',
  'PUT /returned-files/{id}/decided',
  'POST /returned-files/{id}/applied',
  'DELETE /returned-files/{id}',
  ...keepsFigures,
  'GET /requests/own',
  'GET /forms/{id}/filling',
  'POST /forms/{id}/entries',
  'PATCH /registers/{registerId}/entries/{id}',
  'PUT /registers/{registerId}/entries/{id}',
  'POST /registers/{registerId}/entries',
  'POST /registers/{registerId}/entries/block',
  'POST /registers/{registerId}/entries/delete',
  'POST /registers/{registerId}/entries/restored',
  'POST /registers/{registerId}/entries/taken-back',
  'POST /registers/{registerId}/entry-acts',
  'GET /registers/{registerId}/entry-acts/{id}',
  'POST /registers/{registerId}/records/{id}/history/{change}/back',
];
const open = [
  'GET /open/{token}',
  'GET /open/{token}/catalogs/{id}',
  'POST /open/{token}/entries',
  'GET /health',
  'GET /houses/threshold',
  'POST /houses',
  'POST /session',
];
/** A token opens these, no session does. */
const byToken = [
  'GET /programs/catalogs',
  'GET /programs/catalogs/{key}/values',
  'GET /programs/registers',
  'GET /programs/registers/{key}/schema',
  'POST /programs/registers/{key}/check',
  'POST /programs/registers/{key}/entries',
  'GET /programs/intakes',
  'POST /programs/intakes/{id}/files',
  'GET /programs/intakes/{id}/files/{file}',
  'GET /programs/changes',
];
const streams = new Set(['GET /live', 'DELETE /session']);

describe('every endpoint', () => {
  const endpoints = async () => {
    const document = (await (await fetch(`${running.base}/api/openapi.json`)).json()) as OpenApiDocument;
    expect(document.openapi).toMatch(/^3\.1/);
    return Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replace('/api/v1', '')}`),
    );
  };
  const call = (visitor: Visitor, endpoint: string) => {
    const [method, path] = endpoint.split(' ') as [string, string];
    return visitor.call(method, path.replace(/\{\w+\}/g, house.visits.id), method === 'GET' || method === 'DELETE' ? undefined : {});
  };

  it('is closed to whoever is not signed in, but for the threshold', async () => {
    for (const endpoint of await endpoints()) {
      if (streams.has(endpoint) && endpoint.startsWith('GET')) continue;
      const { status } = await call(new Visitor(running.base), endpoint);
      expect([endpoint, status === 401]).toEqual([endpoint, !open.includes(endpoint)]);
    }
  });
  it.each([
    ['clerk', [...clerkMay, ...clerkEnters]],
    ['steward', [...clerkMay, ...stewardKeeps]],
    ['reader', clerkMay],
  ] as const)('is open to the %s only where the role needs it', async (role, may) => {
    const visitor = new Visitor(running.base, { house: house.key, role });
    await visitor.signedIn();
    for (const endpoint of await endpoints()) {
      if (open.includes(endpoint) || streams.has(endpoint)) continue;
      const { status } = await call(visitor, endpoint);
      if (byToken.includes(endpoint)) expect([endpoint, status]).toEqual([endpoint, 401]);
      else expect([endpoint, status !== 403]).toEqual([endpoint, (may as readonly string[]).includes(endpoint)]);
    }
  });
  it('hides source sheets and ranges from clerks', async () => {
    const build = await house.clerk.get<{ sheets: { kind: string }[]; ranges: unknown[] }>('/build');
    expect(build.sheets.map(({ kind }) => kind)).toEqual(['entry']);
    expect(build.ranges).toEqual([]);
    expect((await house.clerk.call('GET', `/registers/${house.pilots.id}/entries`)).status).toBe(404);
  });
  it('does not know the ids of another house', async () => {
    const other = await openHouse(running, [{ visit: 'X' }]);
    const entry = (await other.administrator.get<{ entries: { id: string }[] }>(`/registers/${other.visits.id}/entries`)).entries[0]!;
    const tries = await Promise.all([
      house.administrator.call('GET', `/registers/${other.visits.id}/entries`),
      house.administrator.call('GET', `/catalogs/${other.catalog.id}/items`),
      house.administrator.call('PATCH', `/registers/${other.visits.id}/entries/${entry.id}`, { field: 'visit', text: 'Y', version: 1 }),
      house.administrator.call('PATCH', `/registers/${house.visits.id}/entries/${entry.id}`, { field: 'visit', text: 'Y', version: 1 }),
      house.administrator.call('PATCH', `/ranges/${other.rangeId}`, { ends: 'gap' }),
      house.administrator.call('PUT', `/fields/${other.pilotField.id}/rule`, {
        kind: 'catalog',
        catalogId: house.catalog.id,
        mayBeBlank: true,
        others: 'refuse',
        hint: '',
        refusalText: '',
      }),
    ]);
    expect(tries.map(({ status, body }) => [status, body.code])).toEqual(tries.map(() => [404, 'not-found']));
  });
});

describe('the edge', () => {
  const edit = (body: unknown, headers?: Record<string, string>) =>
    house.administrator.call('POST', `/registers/${house.visits.id}/entries`, body, headers);
  it.each([
    ['a form post', { headers: { 'content-type': 'application/x-www-form-urlencoded' }, body: 'count=1' }, 415, 'json-only'],
    ['a malformed body', { headers: {}, body: '{"count":' }, 400, 'malformed-body'],
    ['another origin', { headers: { origin: 'https://elsewhere.example' }, body: '{"count":1}' }, 403, 'other-origin'],
    ['20 MB', { headers: {}, body: JSON.stringify({ count: 1, more: 'x'.repeat(20_000_000) }) }, 413, 'too-large'],
    ['members nobody knows', { headers: {}, body: '{"count":1,"role":"administrator"}' }, 422, 'not-valid'],
  ])('refuses %s with a problem', async (_what, { headers, body }, status, code) => {
    const answer = await edit(body, headers);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    expect(answer.body.detail.length).toBeGreaterThan(20);
  });
  it('takes a write from its own pages', async () => {
    expect((await edit('{"count":1}', { origin: running.base })).status).toBe(201);
  });
});
