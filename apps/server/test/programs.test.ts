// Other programs over HTTP, by their tokens: what each token opens, values in every format, rows judged and stored once.
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type {
  AccessTokenDto,
  AccessTokenView,
  JudgedRows,
  LedgerPage,
  MadeToken,
  Problem,
  ProgramCatalog,
  ProgramChanges,
  ProgramRegister,
  ProgramValues,
  RequestGroup,
} from '@dellum/contract';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { sql } from 'kysely';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, startServer, until, type House, type Running } from './house.js';

let running: Running;
let made: Made;
let house: House;
const folder = mkdtempSync('/tmp/dellum-concepts-');
beforeAll(async () => {
  running = await startServer();
  made = await makeEntrySheet(running, [
    ['Quay', 'text'],
    ['Berth', 'text'],
    ['Draught', 'number'],
    ['Day', 'date'],
    ['Paid', 'yes/no'],
    ['Pilot', 'text'],
    ['Visit', 'text'],
  ]);
  house = made.house;
  const { quay, berth } = chain(made.berths);
  await made.rule('quay', { ...quay, mayBeBlank: false });
  await made.rule('berth', berth);
  await made.rule('pilot', { kind: 'catalog', catalogId: house.catalog.id, others: 'request' });
  await made.rule('visit', { kind: 'plain', noRepeats: true });
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await running.close();
});

const tokenDto = (over: Partial<AccessTokenDto> = {}): AccessTokenDto => ({
  name: `Crane ${randomUUID().slice(0, 8)}`,
  writes: true,
  catalogs: [made.berths, house.catalog.id],
  registers: [made.register.id],
  until: '2099-12-31',
  ...over,
});
const makeToken = async (over: Partial<AccessTokenDto> = {}) => {
  const { status, body } = await house.administrator.call<MadeToken & Problem>('POST', '/access-tokens', tokenDto(over));
  expect(status).toBe(201);
  return body;
};

interface Said<T> {
  readonly status: number;
  readonly body: T & Problem;
  readonly text: string;
  readonly headers: Headers;
}
async function ask<T = unknown>(
  token: string | undefined,
  path: string,
  headers: Record<string, string> = {},
  body?: unknown,
): Promise<Said<T>> {
  const response = await fetch(`${running.base}/api/v1/programs${path}`, {
    headers: {
      ...(token && { authorization: `Bearer ${token}` }),
      ...(body !== undefined && { 'content-type': 'application/json' }),
      ...headers,
    },
    ...(body !== undefined && { method: 'POST', body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  const text = await response.text();
  const isJson = /json/u.test(response.headers.get('content-type') ?? '') && text !== '';
  return { status: response.status, body: (isJson ? JSON.parse(text) : {}) as T & Problem, text, headers: response.headers };
}
const check = (token: string, rows: unknown, more = {}) =>
  ask<JudgedRows>(token, `/registers/${made.register.id}/check`, {}, { rows, ...more });
const store = (token: string, key: string, rows: unknown, more = {}) =>
  ask<JudgedRows>(token, `/registers/${made.register.id}/entries`, { 'idempotency-key': key }, { rows, ...more });

describe('an access token', () => {
  it('is told once, kept as a hash, and listed with its last use', async () => {
    const { id, token } = await makeToken({ name: 'Gate camera' });
    const list = () => house.administrator.get<AccessTokenView[]>('/access-tokens');
    const own = async () => (await list()).find((known) => known.id === id)!;
    expect(await own()).toMatchObject({ name: 'Gate camera', writes: true, by: 'The administrator', lastUsed: null, over: false });
    await ask(token, '/catalogs');
    expect((await own()).lastUsed).not.toBeNull();
    const rows = await running.database.kysely.selectFrom('access_tokens').selectAll().where('house_id', '=', house.id).execute();
    expect(JSON.stringify([rows, await list(), (await house.administrator.get<LedgerPage>('/ledger')).lines])).not.toContain(
      token.split('.')[1],
    );
  });
  it('ends at once, after its last day, and with a wrong letter; no session takes its place', async () => {
    const { id, token } = await makeToken();
    expect((await ask(token, '/catalogs')).status).toBe(200);
    for (const wrong of [undefined, '', 'x', `${token}x`, `${randomUUID()}.${token.split('.')[1]}`, token.split('.')[1]]) {
      const { status, body } = await ask(wrong, '/catalogs');
      expect([wrong, status, body.code]).toEqual([wrong, 401, 'no-token']);
    }
    expect((await house.administrator.call('GET', '/programs/catalogs')).status).toBe(401);
    expect((await ask(undefined, '/catalogs', { authorization: `Basic ${token}` })).status).toBe(401);
    // Nor does a token take the place of a session.
    const build = await fetch(`${running.base}/api/v1/build`, { headers: { authorization: `Bearer ${token}` } });
    expect(build.status).toBe(401);
    expect((await house.administrator.call('DELETE', `/access-tokens/${id}`)).status).toBe(204);
    expect((await ask(token, '/catalogs')).status).toBe(401);
    expect((await house.administrator.call('DELETE', `/access-tokens/${id}`)).status).toBe(404);
    const old = await makeToken();
    await running.database.kysely
      .updateTable('access_tokens')
      .set({ until: '2020-01-01' })
      .where('house_id', '=', house.id)
      .where('id', '=', old.id)
      .execute();
    expect((await ask(old.token, '/catalogs')).status).toBe(401);
  });
  it('opens what it was made for, to read or to write, and nothing else', async () => {
    const register = `/registers/${made.register.id}`;
    const none = await makeToken({ catalogs: [house.catalog.id], registers: [], writes: false });
    const reads = await makeToken({ catalogs: [], writes: false });
    const writes = await makeToken({ catalogs: [] });
    const { key } = (await ask<ProgramCatalog[]>(none.token, '/catalogs')).body[0]!;
    const rows = { rows: [{ quay: 'North' }] };
    const endpoints: readonly (readonly [path: string, body?: unknown])[] = [
      [`/catalogs/${key}/values`],
      [`${register}/schema`],
      [`${register}/check`, rows],
      [`${register}/entries`, rows],
    ];
    const statuses = async (token: string) =>
      Promise.all(endpoints.map(async ([path, body]) => (await ask(token, path, { 'idempotency-key': randomUUID() }, body)).status));
    expect(await statuses(none.token)).toEqual([200, 404, 404, 403]);
    expect(await statuses(reads.token)).toEqual([404, 200, 200, 403]);
    expect(await statuses(writes.token)).toEqual([404, 200, 200, 200]);
    expect((await ask<ProgramRegister[]>(reads.token, '/registers')).body).toEqual([
      { key: made.register.id, title: 'Log', writes: false },
    ]);
    // A sheet of another house, and one of values, is none.
    const others = (await makeEntrySheet(running, [['Word', 'text']])).register.id;
    expect((await ask(writes.token, `/registers/${others}/check`, {}, rows)).status).toBe(404);
    for (const registers of [[others], [house.pilots.id], [randomUUID()]])
      expect((await house.administrator.call('POST', '/access-tokens', tokenDto({ registers }))).status).toBe(404);
  });
  it.each([
    ['no name', { name: ' ' }, 'name'],
    ['a day that is over', { until: '2020-01-01' }, 'until'],
    ['no day', { until: 'soon' }, 'until'],
    ['nothing that it opens', { catalogs: [], registers: [] }, 'catalogs'],
    ['no ids', { catalogs: ['x'] }, 'catalogs'],
    ['one thing twice', { registers: ['a2b1c0de-0000-4000-8000-000000000000', 'a2b1c0de-0000-4000-8000-000000000000'] }, 'registers'],
  ])('is not made with %s', async (_what, over, input) => {
    const { status, body } = await house.administrator.call('POST', '/access-tokens', { ...tokenDto(), ...over });
    expect([status, Object.keys(body.faults ?? {})]).toEqual([422, [input]]);
  });
  it('is answered so often in a minute, and then told to wait', async () => {
    const { id, token } = await makeToken();
    const used = () =>
      running.database.kysely
        .updateTable('access_tokens')
        .set({ asked: 600, minute: sql<Date>`date_trunc('minute', now())` })
        .where('house_id', '=', house.id)
        .where('id', '=', id)
        .execute();
    // A minute may be over between the two.
    await until(async () => {
      await used();
      return (await ask(token, '/catalogs')).status === 429;
    });
    const { status, body, headers } = await ask(token, '/catalogs');
    expect([status, body.code, Number(headers.get('retry-after')) > 0]).toEqual([429, 'too-many-requests', true]);
  });
});

describe('the values of a catalog', () => {
  const values = async (token: string, title: string) => {
    const { key } = (await ask<ProgramCatalog[]>(token, '/catalogs')).body.find((catalog) => catalog.title === title)!;
    return `/catalogs/${key}/values`;
  };
  it('come as JSON and CSV, of a day, and under parents', async () => {
    const { token } = await makeToken();
    const path = await values(token, 'Berths');
    const read = async (query: string) =>
      (await ask<ProgramValues>(token, `${path}${query}`)).body.values.map(({ under, value }) => [...under, value].join('/'));
    expect(await read('')).toEqual(['North', 'North/N1', 'North/N2', 'South', 'South/S1', 'South/N2']);
    expect(await read('?under=North')).toEqual(['North/N1', 'North/N2']);
    expect(await read('?under=North&under=N1')).toEqual([]);
    const { text, headers } = await ask(token, `${path}?under=South`, { accept: 'text/csv' });
    expect(headers.get('content-type')).toBe('text/csv; charset=utf-8');
    expect(Papa.parse<string[]>(text.trim()).data).toMatchObject([
      ['value', 'label', 'under 1', 'other names', 'note', 'valid from', 'valid until', 'retired', 'length'],
      ['S1', 'S1', 'South', '', '', '', '', 'no', '60'],
      ['N2', 'N2', 'South', '', '', '', '', 'no', '40'],
    ]);
    for (const [query, status] of [
      ['?on=2026-02-30', 422],
      ['?on=today', 422],
      ['?all=perhaps', 422],
      ['?other=1', 422],
      ['?under=%00', 422],
    ] as const)
      expect([query, (await ask(token, `${path}${query}`)).status]).toEqual([query, status]);
    expect((await ask(token, path, { accept: 'image/png' })).body.code).toBe('not-acceptable');
    expect((await ask(token, '/catalogs/none/values')).status).toBe(404);
  });
  it.each([
    ['text/turtle', 'turtle'],
    ['application/ld+json', 'json-ld'],
  ])('are concepts to a reader of %s', async (accept, format) => {
    const { token } = await makeToken();
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/items/kept`, {
      path: [],
      value: 'Rook Tansy',
      otherNames: ['R. Tansy', 'a "quoted" \\ name\n'],
      label: 'Rook <Tansy>',
      note: 'nights; days, too',
      colour: null,
      validFrom: '2020-01-01',
      validUntil: null,
    });
    const { text, headers } = await ask(token, await values(token, 'Pilots'), { accept });
    expect(headers.get('content-type')).toBe(`${accept}; charset=utf-8`);
    const file = join(folder, randomUUID());
    writeFileSync(file, text);
    const read = JSON.parse(
      execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'readConcepts.py'), file, format], { encoding: 'utf8' }),
    ) as { schemes: unknown; concepts: { value: string }[] };
    expect(read.schemes).toEqual([['Pilots']]);
    expect(read.concepts.map(({ value }) => value)).toEqual(['Bryn Calloway', 'Rook Tansy', 'Tam Ossel']);
    expect(read.concepts[1]).toMatchObject({
      label: 'Rook <Tansy>',
      otherNames: ['R. Tansy', 'a "quoted" \\ name'].sort(),
      note: ['nights; days, too'],
      from: ['2020-01-01'],
      broader: null,
      deprecated: [],
    });
  });
  it('are sent again only when they have changed', async () => {
    const { token } = await makeToken();
    const path = await values(token, 'Pilots');
    const first = await ask(token, path);
    const etag = first.headers.get('etag')!;
    expect(etag).toMatch(/^"[0-9a-f]+"$/u);
    const again = await ask(token, path, { 'if-none-match': etag });
    expect([again.status, again.text]).toEqual([304, '']);
    expect((await ask(token, path, { 'if-none-match': etag, accept: 'text/csv' })).status).toBe(200);
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items`, { path: [], value: 'New Pilot', widen: true });
    const now = await ask<ProgramValues>(token, path, { 'if-none-match': etag });
    expect([now.status, now.body.values.some(({ value }) => value === 'New Pilot')]).toEqual([200, true]);
  });
});

describe('the values of a catalog as a file', () => {
  const file = async (query: string, visitor = house.administrator, id = made.berths) => {
    const response = await fetch(`${running.base}/api/v1/catalogs/${id}/file${query}`, { headers: { cookie: await visitor.signedIn() } });
    return { status: response.status, headers: response.headers, text: await response.text() };
  };
  it('is for whoever keeps them, guarded against formulas where it is asked for, and noted', async () => {
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items`, { path: [], value: '=1+1', widen: true });
    const plain = await file('?format=csv', house.administrator, house.catalog.id);
    expect(plain.headers.get('content-disposition')).toBe(`attachment; filename="Pilots.csv"; filename*=UTF-8''Pilots.csv`);
    const firsts = (text: string) => Papa.parse<string[]>(text.trim()).data.map(([first]) => first);
    expect(firsts(plain.text)).toContain('=1+1');
    expect(firsts((await file('?format=csv&guarded=true', house.administrator, house.catalog.id)).text)).toContain("'=1+1");
    expect((await file('?format=turtle')).headers.get('content-type')).toBe('text/turtle; charset=utf-8');
    // Nobody has entrusted it to the steward.
    expect((await file('?format=csv', house.steward)).status).toBe(403);
    for (const query of ['', '?format=pdf', '?format=csv&all=1']) expect([query, (await file(query)).status]).toEqual([query, 422]);
    const { lines } = await house.administrator.get<LedgerPage>('/ledger');
    expect(lines.find(({ act }) => act === 'catalog.downloaded')).toMatchObject({ by: 'The administrator', about: 'Berths' });
  });
});

describe('rows of a program', () => {
  it('are judged as on the sheet, and nothing is stored', async () => {
    const { token } = await makeToken();
    const before = await entriesOf(house.clerk, made.register);
    const { body } = await check(token, [
      { quay: 'North', berth: 'N1', draught: 4.5, day: '2026-11-05', paid: true },
      { quay: 'North', berth: 'S1' },
      { berth: 'N1' },
      { quay: 'North', draught: '4,5', day: '5.11.2026', paid: 'yes', wrong: 1 },
      {},
    ]);
    expect([body.taken, body.refused]).toEqual([1, 4]);
    expect(body.rows[0]).toEqual({
      row: 0,
      taken: true,
      cells: { quay: 'North', berth: 'N1', draught: 4.5, day: '2026-11-05', paid: true },
      faults: [],
    });
    expect(body.rows.slice(1).map(({ faults }) => faults.map(({ field, code }) => `${field} ${code}`))).toEqual([
      ['berth not under parent'],
      expect.arrayContaining(['quay blank']),
      ['draught wrong kind', 'day wrong kind', 'paid wrong kind', 'wrong no such field'],
      expect.arrayContaining(['quay blank']),
    ]);
    expect(await entriesOf(house.clerk, made.register)).toEqual(before);
  });
  it('fit the schema of the register where they are taken, and do not where they are not', async () => {
    const { token } = await makeToken();
    const { body: schema, headers } = await ask<Record<string, unknown>>(token, `/registers/${made.register.id}/schema`);
    expect(headers.get('content-type')).toContain('application/schema+json');
    const validate = new Ajv2020({ strict: true, formats: { date: true } }).compile(schema);
    const rows = [
      { quay: 'North', berth: 'N1' },
      { quay: 'North', berth: 'S1' },
      { quay: 'South', berth: 'S1', draught: 1 },
      { berth: 'N1' },
      { quay: 'East' },
    ];
    const { body } = await check(token, rows);
    expect(rows.map((row) => validate(row))).toEqual(body.rows.map(({ taken }) => taken));
  });
  it('are stored once for a key, however often and at once they are sent', async () => {
    const { token } = await makeToken({ name: 'Tide gauge' });
    const key = randomUUID();
    const rows = [
      { quay: 'North', berth: 'N1', visit: 'V-1', draught: 0.1 },
      { quay: 'East', visit: 'V-2' },
      { quay: 'South', pilot: 'Somebody New', visit: '=1+1' },
    ];
    const before = (await entriesOf(house.clerk, made.register)).length;
    const all = await Promise.all(Array.from({ length: 8 }, () => store(token, key, rows)));
    expect(new Set(all.map(({ status, text }) => `${status} ${text}`)).size).toBe(1);
    expect(all[0]!.body).toMatchObject({
      taken: 2,
      refused: 1,
      rows: [{ taken: true }, { taken: false, faults: [{ field: 'quay' }] }, { taken: true }],
    });
    const entries = (await entriesOf(house.clerk, made.register)).slice(before);
    expect(entries.map(({ id, cells }) => ({ id, ...cells }))).toEqual([
      { id: all[0]!.body.rows[0]!.entry, quay: 'North', berth: 'N1', visit: 'V-1', draught: '0.1' },
      { id: all[0]!.body.rows[2]!.entry, quay: 'South', pilot: 'Somebody New', visit: '=1+1' },
    ]);
    // The new pilot was asked for, as from a clerk.
    const asked = (await house.administrator.get<RequestGroup[]>('/requests')).flatMap(({ spellings }) =>
      spellings.map(({ value }) => value),
    );
    expect(asked).toContain('Somebody New');
    // Other rows under the key are refused; the same ones under another are judged again: a visit is there once.
    expect((await store(token, key, [{ quay: 'North' }])).body.code).toBe('key-reused');
    expect((await store(token, randomUUID(), rows)).body).toMatchObject({ taken: 0, refused: 3 });
    const { lines } = await house.administrator.get<LedgerPage>('/ledger');
    expect(lines.filter(({ act }) => act === 'program.entered').slice(0, 1)).toMatchObject([
      { registerId: made.register.id, about: 'Tide gauge' },
    ]);
    const counted = await house.administrator.get<{ total: number }>(`/registers/${made.register.id}/entries?from=0&count=1`);
    expect(counted.total).toBe(before + 2);
  });
  it('that are asked about are taken once they are meant', async () => {
    const { token } = await makeToken();
    await made.rule('pilot', { kind: 'catalog', catalogId: house.catalog.id, others: 'confirm' });
    const rows = [{ quay: 'North', pilot: 'Quite Another' }];
    expect((await check(token, rows)).body.rows[0]!.faults).toMatchObject([{ field: 'pilot', mayConfirm: true }]);
    expect((await check(token, rows, { confirmed: true })).body.taken).toBe(1);
    await made.rule('pilot', { kind: 'catalog', catalogId: house.catalog.id, others: 'request' });
  });
  it.each([
    ['no key', {}, { rows: [] }, 'key-missing'],
    ['a key without end', { 'idempotency-key': 'k'.repeat(201) }, { rows: [] }, 'key-missing'],
    ['no rows', { 'idempotency-key': 'a' }, {}, 'not-valid'],
    ['rows that are none', { 'idempotency-key': 'a' }, { rows: [1, null, 'x'] }, 'not-valid'],
    ['a list for a row', { 'idempotency-key': 'a' }, { rows: [[]] }, 'not-valid'],
    ['values within values', { 'idempotency-key': 'a' }, { rows: [{ quay: { value: 'North' } }] }, 'not-valid'],
    ['what cannot be stored', { 'idempotency-key': 'a' }, { rows: [{ quay: 'a\u0000' }] }, 'not-valid'],
    ['half a character', { 'idempotency-key': 'a' }, '{"rows":[{"quay":"\\ud800"}]}', 'not-valid'],
    ['too many rows', { 'idempotency-key': 'a' }, { rows: Array.from({ length: 1001 }, () => ({})) }, 'not-valid'],
    ['other members', { 'idempotency-key': 'a' }, { rows: [], person: 'x' }, 'not-valid'],
    ['no JSON', { 'idempotency-key': 'a' }, '{"rows":', 'malformed-body'],
    ['what is nested without end', { 'idempotency-key': 'a' }, `{"rows":${'['.repeat(5000)}${']'.repeat(5000)}}`, 'malformed-body'],
  ])('are refused with %s', async (_what, headers, body, code) => {
    const { token } = await makeToken();
    const said = await ask(token, `/registers/${made.register.id}/entries`, headers, body);
    expect([said.status < 500, said.body.code]).toEqual([true, code]);
  });
  it('do no harm by odd names and values', async () => {
    const { token } = await makeToken();
    const rows = '[{"__proto__":"x","constructor":"y","quay":"North"},{"quay":1e999},{"quay":["North"]},{"quay":true,"draught":-0}]';
    const { status, body } = await ask<JudgedRows>(token, `/registers/${made.register.id}/check`, {}, `{"rows":${rows}}`);
    // No field has such a name; the row is what is left of it.
    expect([status, body.rows.map(({ taken, cells }) => taken && cells)]).toEqual([200, [{ quay: 'North' }, false, false, false]]);
  });
});

describe('what has changed', () => {
  it('is told since a number, waits for it, and says when it cannot know', async () => {
    const { token } = await makeToken({ catalogs: [house.catalog.id] });
    const { now } = (await ask<ProgramChanges>(token, '/changes')).body;
    const waited = ask<ProgramChanges>(token, `/changes?since=${now}&wait=20`);
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items`, { path: [], value: 'Later Pilot', widen: true });
    await until(async () => (await ask<ProgramChanges>(token, `/changes?since=${now}`)).body.catalogs.length > 0);
    expect((await waited).body.now).toBeGreaterThan(now);
    const since = (await ask<ProgramChanges>(token, `/changes?since=${now}`)).body;
    expect(since).toMatchObject({ anew: false, registers: [] });
    expect(since.catalogs).toMatchObject([{ key: (await ask<ProgramCatalog[]>(token, '/catalogs')).body[0]!.key }]);
    await store(token, randomUUID(), [{ quay: 'North' }]);
    expect((await ask<ProgramChanges>(token, `/changes?since=${since.now}`)).body).toMatchObject({
      catalogs: [],
      registers: [made.register.id],
    });
    expect((await ask<ProgramChanges>(token, `/changes?since=${since.now + 1_000_000}`)).body.anew).toBe(true);
    for (const query of ['?since=-1', '?since=x', '?since=1.5', '?wait=600'])
      expect((await ask(token, `/changes${query}`)).status).toBe(422);
  });
});
