// Linked sources against real files, a real database and a real service; what goes wrong keeps the last good values.
import { mkdtemp, mkdir, rm, symlink, truncate, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { CatalogItems, LinkedTrial, LinkedView, Outcome, Problem, Reachable, Slip } from '@dellum/contract';
import { ofRanges } from '@dellum/core';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { fitsPattern } from '../src/linked/adapters/filePattern.js';
import { startListService } from '../../../stand-ins/listService.mjs';
import { layOutVesselRegistry } from '../../../stand-ins/vesselRegistry.mjs';
import { reachableFrom } from '../src/linked/reachable.js';
import { freshDatabase, openHouse, startServer, until, type House, type Running } from './house.js';

let root: string;
let outside: string;
let service: Awaited<ReturnType<typeof startListService>>;
let running: Running;
/** The house to which nothing is given. */
let withoutGrant: string | undefined;

beforeAll(async () => {
  root = await mkdtemp('/tmp/dellum-linked-');
  outside = await mkdtemp('/tmp/dellum-outside-');
  service = await startListService();
  const registry = await layOutVesselRegistry(inject('databaseUrl'), `registry_${process.pid}`);
  const wrong = new URL(registry);
  wrong.password = 'not-this-one';
  await Promise.all([
    writeFile(join(root, 'utf8.txt'), 'Tam Ossel\nZoë\n\nTam Ossel\n'),
    writeFile(join(root, 'bom.txt'), '\uFEFFfirst\nsecond'),
    writeFile(join(root, 'wide.txt'), Buffer.from('\uFEFFRook\r\nZoë', 'utf16le')),
    writeFile(join(root, 'wide-bare.txt'), Buffer.from('Rook\r\nTansy', 'utf16le')),
    writeFile(join(root, 'windows.txt'), Buffer.from([0x5a, 0x6f, 0xeb, 0x0a])),
    writeFile(join(root, 'untold.txt'), Buffer.from([0x5a, 0x81, 0xeb, 0x0a])),
    writeFile(join(root, 'picture.png'), Buffer.from([0x89, 0x50, 0, 1, 2, 0, 3, 255, 0])),
    writeFile(join(root, 'table.csv'), 'code;name;depth\nT1;"North; old";9\nT2;Timber;7\n'),
    writeFile(join(outside, 'secret.txt'), 'secret'),
    mkdir(join(root, 'docs')).then(() =>
      Promise.all(['Tariff 10.pdf', 'Tariff 2.pdf', 'notes.txt'].map((name) => writeFile(join(root, 'docs', name), ''))),
    ),
  ]);
  await symlink(join(outside, 'secret.txt'), join(root, 'leads-out.txt'));
  await writeFile(join(root, 'huge.txt'), '');
  await truncate(join(root, 'huge.txt'), 500_000_000);
  // Jobs of these houses need what only this server reaches.
  const grant = {
    root,
    databases: new Map([
      ['Registry', registry],
      ['Wrong', wrong.href],
    ]),
    services: new Map([['Ports', service.base]]),
    receivers: new Map(),
  };
  running = await startServer(await freshDatabase(), (key) => (key === withoutGrant ? undefined : grant));
});
afterAll(async () => {
  await running.close();
  service.stop();
  await Promise.all([root, outside].map((folder) => rm(folder, { recursive: true })));
});

const trying = (house: House, settings: Record<string, unknown>) =>
  house.administrator.call<LinkedTrial & Problem>('POST', '/linked/trial', { settings });
const valuesOf = async (house: House, settings: Record<string, unknown>) =>
  (await trying(house, settings)).body.first?.map(({ value, label }) => (label ? `${value} ${label}` : value));

describe('a pattern of names', () => {
  it('means what the same pattern means to a naive look, stars within stars too', () => {
    const naive = (pattern: string, name: string): boolean => {
      if (pattern === '') return name === '';
      if (pattern[0] === '*') return naive(pattern.slice(1), name) || (name !== '' && naive(pattern, name.slice(1)));
      return name !== '' && (pattern[0] === '?' || pattern[0] === name[0]) && naive(pattern.slice(1), name.slice(1));
    };
    const letters = (unit: string[]) => fc.string({ unit: fc.constantFrom(...unit), maxLength: 8 });
    fc.assert(
      fc.property(letters(['a', 'b', '*', '?', '.']), letters(['a', 'b', '.']), (pattern, name) => {
        expect(fitsPattern(pattern, name)).toBe(naive(pattern, name));
      }),
    );
  });
  it('is looked at in a moment, however many stars it has', () => {
    expect(fitsPattern('*a'.repeat(60), 'a'.repeat(59) + 'b'.repeat(200))).toBe(false);
    expect([fitsPattern('(a|b)[c]{d}', '(A|B)[C]{D}'), fitsPattern('*(*(*', 'x')]).toEqual([true, false]);
  });
});

describe('what a source gives', () => {
  it.each([
    ['UTF-8', { kind: 'text file', path: 'utf8.txt' }, ['Tam Ossel', 'Zoë']],
    ['UTF-8 with a byte order mark', { kind: 'text file', path: 'bom.txt' }, ['first', 'second']],
    ['UTF-16 with a mark', { kind: 'text file', path: 'wide.txt', encoding: 'told apart' }, ['Rook', 'Zoë']],
    ['UTF-16 without one', { kind: 'text file', path: 'wide-bare.txt' }, ['Rook', 'Tansy']],
    ['Windows-1252', { kind: 'text file', path: 'windows.txt' }, ['Zoë']],
    [
      'columns of a CSV file',
      { kind: 'csv file', path: 'table.csv', value: 'code', label: 'name', companions: ['depth'] },
      ['T1 North; old', 'T2 Timber'],
    ],
    ['names in a folder, by number', { kind: 'folder', path: 'docs', pattern: 'tariff *.pdf', endings: false }, ['Tariff 2', 'Tariff 10']],
    [
      'a table of another database',
      { kind: 'database', connection: 'Registry', schema: 'registry', table: 'vessel_classes', value: 'code', label: 'title' },
      ['BLK Bulk carrier', 'BRG Barge', 'CST Coaster', 'FRY Ferry', 'FSH Fishing boat', 'PLT Pilot boat', 'TNK Tanker', 'TUG Tug'],
    ],
    [
      'a list over HTTP',
      { kind: 'service', connection: 'Ports', address: 'ports', list: 'data.ports', value: 'code', label: 'name' },
      ['BRW Brackwater', 'CDL Candle Sound', 'DUN Dunmouth', 'EBH Ebbhaven', 'FLD Fleetdyke', 'GAN Gannet Point'],
    ],
    [
      'an expression over a catalog',
      {
        kind: 'computed',
        catalogs: ['pilots'],
        expression: 'pilots.filter(p, p.value.contains("o")).map(p, {"value": p.value, "label": p.value + "!"})',
      },
      ['Bryn Calloway Bryn Calloway!', 'Rook Tansy Rook Tansy!'],
    ],
  ] as const)('%s', async (_what, settings, expected) => expect(await valuesOf(await openHouse(running, []), settings)).toEqual(expected));

  it('can be chosen from what is there', async () => {
    const house = await openHouse(running, []);
    const reach = await house.administrator.get<Reachable>('/linked/reachable');
    expect(reach).toMatchObject({ folders: ['docs'], connections: ['Registry', 'Wrong'], services: ['Ports'] });
    expect(reach.files).toContain('table.csv');
    expect((await house.administrator.get<{ tables: unknown }>('/linked/tables?connection=Registry')).tables).toEqual([
      { schema: 'registry', table: 'vessel_classes', columns: ['code', 'title', 'greatest_length'] },
    ]);
    expect((await trying(house, { kind: 'csv file', path: 'table.csv' })).body).toMatchObject({
      columns: ['code', 'name', 'depth'],
      rows: [
        ['T1', 'North; old', '9'],
        ['T2', 'Timber', '7'],
      ],
    });
  });
});

describe('what is given to a house', () => {
  it('is reached by that house alone', async () => {
    const [house, other] = [await openHouse(running, []), await openHouse(running, [])];
    withoutGrant = other.key;
    expect((await house.administrator.get<Reachable>('/linked/reachable')).files).toContain('utf8.txt');
    expect(await other.administrator.get<Reachable>('/linked/reachable')).toEqual({
      root: null,
      files: [],
      folders: [],
      connections: [],
      services: [],
    });
    for (const settings of [
      { kind: 'text file', path: 'utf8.txt' },
      { kind: 'database', connection: 'Registry', schema: 'registry', table: 'vessel_classes', value: 'code' },
      { kind: 'service', connection: 'Ports', address: 'ports', list: 'data.ports', value: 'code', label: 'name' },
    ])
      expect((await trying(other, settings)).body).toMatchObject({ code: 'source-unreadable' });
    expect((await other.administrator.call<Problem>('GET', '/linked/tables?connection=Registry')).body.code).toBe('source-unreadable');
    withoutGrant = undefined;
  });
  it('is told by lines that each name their house', () => {
    const reach = reachableFrom({
      DELLUM_FILES: 'mill: /srv/mill\nharbour: /srv/harbour: old',
      DELLUM_DATABASES: 'mill: Stock=postgres://reader:x@db/stock\nmill: Other = postgres://db/other',
      DELLUM_SERVICES: '\n harbour: Ports=https://ports.example/v1?x=1\n',
      DELLUM_WEBHOOKS: 'mill: Board=https://board.example/told',
    });
    expect(reach('mill')).toEqual({
      root: '/srv/mill',
      databases: new Map([
        ['Stock', 'postgres://reader:x@db/stock'],
        ['Other', 'postgres://db/other'],
      ]),
      services: new Map(),
      receivers: new Map([['Board', 'https://board.example/told']]),
    });
    expect(reach('harbour')).toMatchObject({ root: '/srv/harbour: old', services: new Map([['Ports', 'https://ports.example/v1?x=1']]) });
    expect(reach('mi')).toMatchObject({ root: undefined, databases: new Map() });
    const said: string[] = [];
    const less = reachableFrom({ DELLUM_FILES: '/srv/files\nmill: /srv/mill', DELLUM_SERVICES: 'Ports=https://ports.example' }, (words) =>
      said.push(words),
    );
    expect(less('mill')).toMatchObject({ root: '/srv/mill', services: new Map() });
    // What is said stands in logs: no address with a password is.
    expect(said.join()).not.toContain('ports.example');
    expect(said).toEqual([
      expect.stringContaining('Line 1 of DELLUM_FILES does not say to which house it is given'),
      expect.stringContaining('Line 1 of DELLUM_SERVICES does not say to which house'),
    ]);
  });
});

describe('what goes wrong is said', () => {
  it.each([
    [{ kind: 'text file', path: 'vanished.txt' }, 'is not there'],
    [{ kind: 'text file', path: '../../../etc/passwd' }, 'leads out of the folder'],
    [{ kind: 'text file', path: 'leads-out.txt' }, 'leads out of the folder'],
    [{ kind: 'text file', path: 'picture.png' }, 'not a text file'],
    [{ kind: 'text file', path: 'huge.txt' }, '500 MB'],
    [{ kind: 'text file', path: 'untold.txt' }, 'Choose UTF-8, UTF-16 or Windows-1252'],
    [{ kind: 'text file', path: 'windows.txt', encoding: 'utf-8' }, 'not written in utf-8'],
    [{ kind: 'csv file', path: 'table.csv', value: 'colour' }, 'no column “colour”'],
    [{ kind: 'database', connection: 'Wrong', schema: 'registry', table: 'vessel_classes', value: 'code' }, 'refuses the password'],
    [{ kind: 'database', connection: 'Elsewhere', schema: 'a', table: 'b', value: 'c' }, 'no database “Elsewhere”'],
    [{ kind: 'database', connection: 'Registry', schema: 'registry', table: 'gone"; drop table x', value: 'code' }, 'not there any more'],
    [{ kind: 'service', connection: 'Ports', address: 'broken' }, 'answers 500'],
    [{ kind: 'service', connection: 'Ports', address: 'page' }, 'text/html instead of JSON'],
    [{ kind: 'service', connection: 'Ports', address: 'elsewhere' }, 'not followed'],
    [{ kind: 'service', connection: 'Ports', address: 'endless' }, 'more than 20 MB'],
    [{ kind: 'service', connection: 'Ports', address: 'http://169.254.169.254/latest' }, 'leads away from the configured service'],
    [{ kind: 'service', connection: 'Ports', address: 'ports', list: 'data.none', value: 'code' }, 'no list at “data.none”'],
    [{ kind: 'computed', catalogs: ['pilots'], expression: 'pilots.map(' }, 'Unexpected token: EOF'],
    [
      {
        kind: 'computed',
        catalogs: ['pilots'],
        expression:
          'pilots.map(p, pilots.map(q, pilots.map(r, pilots.map(s, pilots.map(t, pilots.map(u, pilots.map(v, pilots.map(w, pilots.map(x, pilots.map(y, pilots.map(z, pilots.map(a, pilots.map(b, pilots.map(c, pilots.map(d, d.value)))))))))))))))',
      },
      'was stopped',
    ],
    [{ kind: 'computed', catalogs: ['pilots'], expression: 'size(pilots)' }, 'must give a list'],
    [{ kind: 'computed', catalogs: ['nobody'], expression: '[]' }, 'no catalog with the key “nobody”'],
  ])('%j: %s', async (settings, words) => {
    const { status, body } = await trying(await openHouse(running, []), settings);
    expect([status, body.code]).toEqual([422, 'source-unreadable']);
    expect(body.detail).toContain(words);
  });
  it('a service that hangs is left after ten seconds', async () => {
    const { body } = await trying(await openHouse(running, []), { kind: 'service', connection: 'Ports', address: 'silent' });
    expect(body.detail).toContain('does not answer within 10 seconds');
  });
});

describe('a refresh', () => {
  const link = async (house: House, name: string, settings: Record<string, unknown>, every = 0) =>
    (await house.administrator.call<{ id: string }>('POST', '/linked', { name, settings, every })).body.id;
  const refresh = (house: House, id: string) => house.administrator.call<Outcome & Problem>('POST', `/linked/${id}/refresh`, {});
  const view = async (house: House, id: string) =>
    (await house.administrator.get<LinkedView[]>('/linked')).find((source) => source.id === id)!;
  const define = (house: House, sourceId: string) =>
    house.administrator.call('PUT', `/catalogs/${house.catalog.id}/definition`, {
      ...ofRanges([]),
      parts: [
        { kind: 'linked', join: 'or', sourceId },
        { kind: 'range', join: 'or', rangeId: house.rangeId, companions: [] },
      ],
    });
  const values = async (house: House) =>
    (await house.administrator.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`)).items.map(({ value }) => value);

  it('that changes what entries hold goes through the slip; one that fails keeps the last good values', async () => {
    const house = await openHouse(running, []);
    await writeFile(join(root, `${house.key}.txt`), 'Nell\nAda');
    const id = await link(house, 'Names', { kind: 'text file', path: `${house.key}.txt` });
    // What was just set up is read by itself; a second reading beside it would be a test of its own, which is the next.
    await until(async () => (await view(house, id)).values === 2);
    await define(house, id);
    expect(await values(house)).toEqual(['Nell', 'Ada', 'Tam Ossel', 'Bryn Calloway', 'Rook Tansy']);
    const added = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${house.visits.id}/entries`, { count: 1 });
    await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${added.body.entries[0]!}`, {
      field: 'pilot',
      text: 'Nell',
      version: 1,
    });

    await writeFile(join(root, `${house.key}.txt`), 'Nelly\nAda');
    const { body } = await refresh(house, id);
    expect(body.slip!.questions).toMatchObject([{ value: 'Nell', holds: { [house.pilotField.id]: 1 } }]);
    expect([await values(house), (await view(house, id)).waiting]).toEqual([
      ['Nell', 'Ada', 'Tam Ossel', 'Bryn Calloway', 'Rook Tansy'],
      true,
    ]);
    // Refreshed again before it is answered, the newest values are asked about, once.
    await refresh(house, id);
    expect(await house.administrator.get<Slip[]>('/slips')).toHaveLength(1);
    // When the source gives the stored values again, there is nothing left to ask.
    await writeFile(join(root, `${house.key}.txt`), 'Nell\nAda');
    await refresh(house, id);
    expect([await house.administrator.get<Slip[]>('/slips'), (await view(house, id)).waiting]).toEqual([[], false]);
    await writeFile(join(root, `${house.key}.txt`), 'Nelly\nAda');
    await refresh(house, id);
    const slips = await house.administrator.get<Slip[]>('/slips');
    await house.administrator.call('POST', `/slips/${slips[0]!.id}/answers`, {
      answers: slips[0]!.questions.map(({ catalogId, value, becomes }) => ({
        catalogId,
        value,
        answer: becomes ? 'corrected' : 'retired',
      })),
    });
    expect((await values(house)).slice(0, 2)).toEqual(['Nelly', 'Ada']);

    await rm(join(root, `${house.key}.txt`));
    const gone = await refresh(house, id);
    expect([gone.body.code, (await view(house, id)).failure]).toEqual([
      'source-unreadable',
      `“${house.key}.txt” is not there. It may have been moved or renamed.`,
    ]);
    expect((await values(house)).slice(0, 2)).toEqual(['Nelly', 'Ada']);
    expect((await house.administrator.call('DELETE', `/linked/${id}`)).body.users).toEqual(['catalog Pilots']);
  });
  it('that ends after one that began later changes nothing, and asks nothing', async () => {
    const house = await openHouse(running, []);
    const file = join(root, `${house.key}.txt`);
    await writeFile(file, 'Nell\nAda');
    const id = await link(house, 'Names', { kind: 'text file', path: `${house.key}.txt` });
    await until(async () => (await view(house, id)).values === 2);
    await define(house, id);
    const added = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${house.visits.id}/entries`, { count: 1 });
    await house.clerk.call('PATCH', `/registers/${house.visits.id}/entries/${added.body.entries[0]!}`, {
      field: 'pilot',
      text: 'Nell',
      version: 1,
    });
    for (let round = 0; round < 12; round++) {
      await writeFile(file, 'Nelly\nAda');
      const earlier = Array.from({ length: 3 }, () => refresh(house, id));
      await house.administrator.get('/linked');
      await writeFile(file, 'Nell\nAda');
      await Promise.all([...earlier, refresh(house, id)]);
      expect([await house.administrator.get<Slip[]>('/slips'), (await view(house, id)).waiting]).toEqual([[], false]);
    }
  });
  it('on a schedule needs nobody; the service is asked with its ETag', async () => {
    const house = await openHouse(running, []);
    const id = await link(house, 'Coast', { kind: 'service', connection: 'Ports', address: 'ports', list: 'data.ports', value: 'code' }, 1);
    await running.tick();
    await until(async () => (await view(house, id)).values === 6);
    expect((await refresh(house, id)).body.notes).toEqual(['Coast gives what it gave before.']);
  });
  it('follows the catalogs that an expression is over, and cannot feed itself through one', async () => {
    const house = await openHouse(running, []);
    const id = await link(house, 'Loud', { kind: 'computed', catalogs: ['pilots'], expression: 'pilots.map(p, p.value + "!")' });
    await refresh(house, id);
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items`, { path: [], value: 'Nell' });
    await until(async () => (await view(house, id)).values === 4);
    const cycle = await define(house, id);
    expect([cycle.body.code, cycle.body.detail]).toEqual([
      'cycle',
      'The catalog would feed itself: Pilots takes from Pilots. Leave one of these parts out.',
    ]);
  });
});
