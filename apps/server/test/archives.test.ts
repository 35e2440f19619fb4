// House archives: a house goes out as a file and comes in elsewhere, or beside what is there.
import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { isDeepStrictEqual, promisify } from 'node:util';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { archiveSchema } from '@dellum/server';
import { loadHouse, quillhaven } from '@dellum/demo';
import type { ArchiveBrought, ArchiveLook, BuildView, Person, Problem } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lookAt } from './archiveFile.js';
import { zipOf } from './badFiles.js';
import { freshDatabase, openHouse, smallHouse, startServer, until, Visitor, type Running } from './house.js';

let running: Running;
let demo: Visitor;
beforeAll(async () => {
  running = await startServer();
  demo = await houseOf((blueprint) => ({
    ...blueprint,
    entrySheets: blueprint.entrySheets.map((sheet) => ({ ...sheet, entries: sheet.entries.slice(0, 150) })),
  }));
});
afterAll(() => running.close());

type Blueprint = Parameters<typeof loadHouse>[1];
/** The demo's house under a key of its own, with people whose password is known. */
async function houseOf(change: (blueprint: Blueprint) => Blueprint): Promise<Visitor> {
  const { key } = smallHouse([]);
  const made = quillhaven(new Date('2026-05-04'), key);
  await loadHouse(running.database.kysely, { ...change(made), people: [...made.people, ...smallHouse([]).people] });
  return new Visitor(running.base, { house: key, role: 'administrator' });
}
/** A house in which there is nothing but its people. */
async function emptyHouse(): Promise<Visitor> {
  const blueprint = smallHouse([]);
  await loadHouse(running.database.kysely, { ...blueprint, sourceSheets: [], catalogs: [], entrySheets: [] });
  return new Visitor(running.base, { house: blueprint.key, role: 'administrator' });
}

type House = Record<string, unknown> & Record<'sheets' | 'catalogs' | 'ranges' | 'people' | 'forms', Record<string, unknown>[]>;
interface Out {
  readonly bytes: Buffer;
  readonly house: House;
  readonly parts: Readonly<Record<string, Uint8Array>>;
}
async function out(visitor: Visitor, entries = 'yes', people = 'yes'): Promise<Out> {
  const response = await fetch(`${running.base}/api/v1/archives/house?entries=${entries}&people=${people}`, {
    headers: { cookie: await visitor.signedIn() },
  });
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/zip']);
  const bytes = Buffer.from(await response.arrayBuffer());
  const parts = unzipSync(bytes);
  return { bytes, parts, house: JSON.parse(strFromU8(parts['house.json']!)) as House };
}
async function bring(visitor: Visitor, bytes: Buffer, ways: (look: ArchiveLook) => { id: string; way: string }[] = () => []) {
  const { body } = await lookAt(visitor, bytes);
  expect(body.detail).toBeUndefined();
  const { status, body: brought } = await visitor.call<ArchiveBrought & Problem>('POST', '/archives/brought', {
    look: body.look,
    ways: ways(body),
  });
  expect([status, brought.detail]).toEqual([200, undefined]);
  return { look: body, brought };
}

const id = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gu;
/** What an archive says, with ids told apart by their order alone, and nothing of when it was written. */
function said({ house, parts }: Out, change: (house: House) => object = (same) => same) {
  const entries = (house['sheets'] as { registers: { entries: string | null }[] }[]).flatMap(({ registers }) =>
    registers.map(({ entries: part }) => (part === null ? null : strFromU8(parts[part]!).split('\n'))),
  );
  const known = new Map<string, number>();
  const plain = JSON.stringify([change({ ...house, at: '', name: '' }), entries]).replaceAll(id, (found) => {
    known.set(found, known.get(found) ?? known.size);
    return `id ${known.get(found)}`;
  });
  return JSON.parse(plain) as unknown;
}
/** Without those who were in the house before. */
const withoutPeople = (house: House) => ({ ...house, people: [] });

describe('A house that goes out', () => {
  it('is as its form says, and comes in elsewhere as it was', async () => {
    const first = await out(demo);
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(archiveSchema());
    expect([validate(first.house), validate.errors]).toEqual([true, null]);
    expect(first.house.people.map(({ signIn }) => signIn)).toContain('mara');
    expect(JSON.stringify(first.house)).not.toMatch(/password|hash|secret/iu);

    const elsewhere = await emptyHouse();
    const { look: looked, brought } = await bring(elsewhere, first.bytes);
    // The administrator, steward, clerk and reader of both houses are called the same.
    expect(looked.collisions.map(({ what, ways }) => [what, ways])).toEqual(Array(4).fill(['people', ['here']]));
    expect(looked.said.some((words) => words.includes('without passwords'))).toBe(true);
    expect(brought.counts.catalogs).toBe(first.house.catalogs.length);
    // What is computed is read by jobs, in one house sooner than in the other.
    const saidNow = async (visitor: Visitor) => said(await out(visitor), withoutPeople);
    await until(async () => isDeepStrictEqual(await saidNow(elsewhere), await saidNow(demo)), 20).catch(() => undefined);
    expect(await saidNow(elsewhere)).toEqual(await saidNow(demo));
    const people = await elsewhere.get<Person[]>('/people');
    expect(people.map(({ signIn }) => signIn).sort()).toEqual(first.house.people.map(({ signIn }) => signIn).sort());

    // What is counted of it is the same, too, once it is gathered.
    const both = () => Promise.all([demo, elsewhere].map((visitor) => computed(visitor)));
    await until(async () => isDeepStrictEqual(...((await both()) as [object, object]))).catch(() => undefined);
    const [here, there] = await both();
    expect(there).toEqual(here);
  });

  it('leaves out what stands in its entry sheets, and who its people are, where that is wanted', async () => {
    const { house, parts } = await out(demo, 'no', 'no');
    expect(house.people).toEqual([]);
    expect(house.catalogs.every(({ stewards }) => (stewards as string[]).length === 0)).toBe(true);
    const sheets = house.sheets as unknown as { kind: string; registers: { entries: string | null }[] }[];
    expect(new Set(sheets.map(({ kind, registers }) => `${kind} ${registers.every(({ entries }) => entries === null)}`))).toEqual(
      new Set(['source false', 'entry true']),
    );
    expect(Object.keys(parts).length).toBe(1 + sheets.filter(({ kind }) => kind === 'source').flatMap(({ registers }) => registers).length);
    expect(strFromU8(parts['house.json']!)).not.toContain('Mara Fenn');
  });
});

/** How many each catalog offers, and how many entries are outside. */
async function computed(visitor: Visitor) {
  const { catalogs, sheets } = await visitor.get<BuildView>('/build');
  const offered = await Promise.all(
    catalogs.map(async ({ id: catalog, key }) => [
      key,
      (await visitor.get<{ items: object[] }>(`/catalogs/${catalog}/items`)).items.length,
    ]),
  );
  const upkeep = await visitor.get<{ outside: { entries: number }[]; unused: { values: string[] }[] }>('/upkeep');
  const pages = await Promise.all(
    sheets.flatMap(({ registers }) =>
      registers.map(async ({ id: register, title }) => [
        title,
        (await visitor.get<{ total: number }>(`/registers/${register}/entries?from=0&count=1`)).total,
      ]),
    ),
  );
  return { offered, pages, outside: upkeep.outside.map(({ entries }) => entries), unused: upkeep.unused.map(({ values }) => values) };
}

describe('A house that comes in beside what is there', () => {
  it('takes another name, or uses what is here, as it is chosen; all that named it follows', async () => {
    const { administrator, catalog } = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const { bytes } = await out(administrator);
    const twice = await bring(administrator, bytes);
    expect(twice.look.collisions.map(({ what, name, instead, ways }) => [what, name, instead, ways[0]])).toEqual([
      ['sheets', 'Lists', 'Lists 2', 'beside'],
      ['sheets', 'Visits', 'Visits 2', 'beside'],
      ['ranges', 'Pilots', 'Pilots 2', 'here'],
      ['catalogs', 'Pilots', 'Pilots 2', 'here'],
      ...['administrator', 'clerk', 'reader', 'steward'].map((name) => ['people', name, `${name} 2`, 'here']),
    ]);
    const ruleOf = async (title: string) =>
      (await administrator.get<BuildView>('/build')).sheets.find((sheet) => sheet.title === title)!.registers[0]!.fields[1]!.rule;
    expect(await ruleOf('Visits 2')).toMatchObject({ catalogId: catalog.id });

    await bring(administrator, bytes, ({ collisions }) => collisions.map(({ id: part }) => ({ id: part, way: 'beside' })));
    const build = await administrator.get<BuildView>('/build');
    const other = build.catalogs.find(({ title }) => title === 'Pilots 2')!;
    expect([other.key, other.definition.parts]).toEqual([
      'pilots-2',
      [expect.objectContaining({ rangeId: build.ranges.find(({ name }) => name === 'Pilots 2')!.id })],
    ]);
    expect(await ruleOf('Visits 3')).toMatchObject({ catalogId: other.id });
    const held = build.sheets.find(({ title }) => title === 'Visits 3')!.registers[0]!;
    expect(
      (await administrator.get<{ entries: { cells: object }[] }>(`/registers/${held.id}/entries?from=0&count=9`)).entries.map(
        ({ cells }) => cells,
      ),
    ).toEqual([{ visit: 'V1', pilot: 'Tam Ossel' }]);
    // Nobody who is here was changed, and nobody came twice.
    expect((await administrator.get<Person[]>('/people')).length).toBe(4);
  });

  it('refers to what is meant where names went from one thing to another meanwhile', async () => {
    const { administrator, catalog } = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const named = (title: string, parts: object[]) =>
      administrator.call<{ id: string }>('POST', '/catalogs', {
        title,
        note: '',
        definition: { parts, filter: null, distinct: 'value', order: { by: 'kept' } },
      });
    const { body: tugs } = await named('Tugs', [{ kind: 'typed', join: 'or', values: ['Big', 'Small'] }]);
    const { bytes } = await out(administrator);
    for (const [id, title] of [
      [catalog.id, 'Old'],
      [tugs.id, 'Pilots'],
      [catalog.id, 'Tugs'],
    ])
      expect((await administrator.call('PATCH', `/catalogs/${id}`, { title })).status).toBeLessThan(300);
    await bring(administrator, bytes, ({ collisions }) =>
      collisions.map(({ id, name }) => ({ id, way: name === 'Tugs' ? 'beside' : 'here' })),
    );
    const { sheets } = await administrator.get<BuildView>('/build');
    // "Pilots" is what was called "Tugs" when the archive was made: it is used as it is called here.
    expect(sheets.find(({ title }) => title === 'Visits 2')!.registers[0]!.fields[1]!.rule).toMatchObject({ catalogId: tugs.id });
  });

  it('comes in once, however often one says so at once; a few archives wait and go out at a time', async () => {
    const { administrator } = await openHouse(running, []);
    const { bytes } = await out(administrator);
    const { body } = await lookAt(administrator, bytes);
    const answers = await Promise.all(
      Array.from({ length: 4 }, () => administrator.call('POST', '/archives/brought', { look: body.look, ways: [] })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404, 404, 404]);
    const looks = await Promise.all(Array.from({ length: 9 }, () => lookAt(administrator, bytes)));
    const there = await Promise.all(looks.map((one) => administrator.call('GET', `/archives/${one.body.look}`)));
    expect(there.filter(({ status }) => status === 200).length).toBe(5);
    expect((await administrator.call('DELETE', `/archives/${looks.find((_, at) => there[at]!.status === 200)!.body.look}`)).status).toBe(
      204,
    );
    const outs = await Promise.all(Array.from({ length: 30 }, () => administrator.call('GET', '/archives/house?entries=yes&people=yes')));
    expect(new Set(outs.map(({ status }) => status))).toEqual(new Set([200, 503]));
    expect((await administrator.call('GET', '/archives/house?entries=yes&people=yes')).status).toBe(200);
    expect((await administrator.call('GET', '/build')).status).toBe(200);
  });

  it('is one’s own to look at: another administrator, and another house, do not bring it in; and it comes in once', async () => {
    const [one, other] = [await openHouse(running, []), await openHouse(running, [])];
    const { body } = await lookAt(one.administrator, (await out(one.administrator)).bytes);
    expect((await other.administrator.call('POST', '/archives/brought', { look: body.look, ways: [] })).status).toBe(404);
    expect((await one.administrator.call('POST', '/archives/brought', { look: body.look, ways: [] })).status).toBe(200);
    expect((await one.administrator.call('POST', '/archives/brought', { look: body.look, ways: [] })).status).toBe(404);
  });

  it('is the template that ships: looked at, brought in, and ready to be entered in', async () => {
    const shipped = await startServer(undefined, undefined, join(import.meta.dirname, '../../../demo/templates'));
    try {
      const empty = await emptyHouse();
      const visitor = new Visitor(shipped.base);
      visitor.cookie = await empty.signedIn();
      const [template] =
        await visitor.get<{ key: string; name: string; counts: { entries: number; catalogs: number } }[]>('/archives/templates');
      const { body } = await visitor.call<ArchiveLook>('POST', '/archives/templates', { template: template!.key });
      expect([body.name, body.collisions, body.counts.people]).toEqual([template!.name, [], 0]);
      expect(body.said[0]).toBe('Its entry sheets come without entries.');
      expect((await visitor.call('POST', '/archives/brought', { look: body.look, ways: [] })).status).toBe(200);
      const { offered } = await computed(visitor);
      expect(offered.filter(([, count]) => Number(count) > 0).length).toBeGreaterThan(8);
      expect((await visitor.call('POST', '/archives/templates', { template: 'nothing-of-this-name' })).status).toBe(404);
    } finally {
      await shipped.close();
    }
  });

  it('is described by the schema in the documents', () => {
    const file = join(import.meta.dirname, '../../../docs/house.schema.json');
    expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(archiveSchema());
  });
});

describe('An archive that is none, or does harm', () => {
  /** An archive of a small house, changed somewhere. */
  async function changed(change: (house: House, parts: Record<string, Uint8Array>) => void): Promise<Buffer> {
    const { administrator } = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const { house, parts } = await out(administrator);
    const own = { ...parts };
    change(house, own);
    return zipOf({ ...own, 'house.json': strToU8(JSON.stringify(house)) });
  }
  const entriesPart = (house: House, sheet: number) => (house.sheets[sheet]!['registers'] as { entries: string }[])[0]!.entries;
  const field = (house: House) => (house.sheets[1]!['registers'] as { fields: Record<string, unknown>[] }[])[0]!.fields[1]!;
  const rule = (house: House) => field(house)['rule'] as Record<string, unknown>;
  const stranger = '0b0e7a52-7e0f-4a5c-9a1e-000000000001';

  const cases: readonly [string, RegExp, () => Promise<Buffer>][] = [
    ['no ZIP at all', /damaged/u, () => Promise.resolve(Buffer.from('Pilots;Tam'))],
    ['a ZIP of something else', /no house archive/u, () => Promise.resolve(zipOf({ 'a.txt': strToU8('a') }))],
    ['a house that is no JSON', /not readable JSON/u, () => Promise.resolve(zipOf({ 'house.json': strToU8('{"version":1') }))],
    ['a house that is a list', /damaged/u, () => Promise.resolve(zipOf({ 'house.json': strToU8('[]') }))],
    ['brackets a thousand deep', /nested too deep/u, () => Promise.resolve(zipOf({ 'house.json': strToU8('['.repeat(1000)) }))],
    [
      'a house that becomes a thousand times larger',
      /far larger/u,
      () => Promise.resolve(zipOf({ 'house.json': strToU8(' '.repeat(30_000_000)) })),
    ],
    ['another version', /another version/u, () => changed((house) => void (house['version'] = 2))],
    ['a member too many', /damaged/u, () => changed((house) => void (house['more'] = 1))],
    ['a rule of a kind that is not there', /kind/u, () => changed((house) => void (rule(house)['kind'] = 'magic'))],
    ['a rule over a catalog that is not in it', /names a catalog/u, () => changed((house) => void (rule(house)['catalogId'] = stranger))],
    [
      'a range over a list that is not in it',
      /names a list/u,
      () => changed((house) => void ((house.ranges[0]!['stretches'] as Record<string, unknown>[])[0]!['registerId'] = stranger)),
    ],
    [
      'a range that ends at an entry that is not there',
      /names an entry/u,
      () =>
        changed(
          (house) => void ((house.ranges[0]!['stretches'] as Record<string, unknown>[])[0]!['end'] = { ends: 'fixed', entry: stranger }),
        ),
    ],
    [
      'a catalog composed of itself',
      /composed of itself/u,
      () =>
        changed(
          (house) =>
            void ((house.catalogs[0]!['definition'] as Record<string, unknown>)['parts'] = [
              { kind: 'catalog', join: 'or', catalogId: house.catalogs[0]!['id'] },
            ]),
        ),
    ],
    [
      'two things of one name',
      /stands there twice/u,
      () => changed((house) => void house.ranges.push({ ...house.ranges[0]!, id: stranger })),
    ],
    ['two things of one id', /same id/u, () => changed((house) => void (house.ranges[0]!['id'] = house.catalogs[0]!['id']))],
    [
      'a field that is called as objects are by nature',
      /cannot be used/u,
      () => changed((house) => void (field(house)['key'] = 'constructor')),
    ],
    [
      'what is kept of a value twice',
      /keeps something of a value twice/u,
      () =>
        changed((house) => {
          const item = { value: 'Tam Ossel', path: [], retired: true, otherNames: [] };
          house.catalogs[0]!['kept'] = [item, item];
        }),
    ],
    ['a name that is blank', /blank/u, () => changed((house) => void (house.ranges[0]!['name'] = '  '))],
    [
      'an entry sheet of two tables',
      /has 2 tables/u,
      () =>
        changed((house) => {
          const registers = house.sheets[1]!['registers'] as object[];
          registers.push({ ...registers[0], id: stranger });
        }),
    ],
    [
      'a source that is computed over the catalog that it feeds',
      /composed of itself/u,
      () =>
        changed((house) => {
          house['linked'] = [
            { id: stranger, name: 'Itself', every: 0, settings: { kind: 'computed', expression: '[]', catalogs: ['pilots'] } },
          ];
          house.catalogs[0]!['definition'] = {
            ...(house.catalogs[0]!['definition'] as object),
            parts: [{ kind: 'linked', join: 'or', sourceId: stranger }],
          };
        }),
    ],
    ['a steward who is not in it', /names somebody/u, () => changed((house) => void (house.catalogs[0]!['stewards'] = [stranger]))],
    [
      'entries that lead out of the archive',
      /damaged/u,
      () => changed((house) => void ((house.sheets[1]!['registers'] as Record<string, unknown>[])[0]!['entries'] = '../../etc/passwd')),
    ],
    ['entries that are missing', /is missing/u, () => changed((house, parts) => void delete parts[entriesPart(house, 1)])],
    [
      'an entry of a field that is not there',
      /entry 1 of “Visits”/u,
      () => changed((house, parts) => void (parts[entriesPart(house, 1)] = strToU8(`{"id":"${stranger}","cells":{"sea":"x"}}\n`))),
    ],
    [
      'an entry that holds a number',
      /entry 1 of “Visits”/u,
      () => changed((house, parts) => void (parts[entriesPart(house, 1)] = strToU8(`{"id":"${stranger}","cells":{"visit":1}}\n`))),
    ],
    [
      'an entry that cannot be stored',
      /entry 2 of “Visits”/u,
      () =>
        changed(
          (house, parts) =>
            void (parts[entriesPart(house, 1)] = strToU8(
              `{"id":"${stranger}","cells":{}}\n{"id":"${stranger}","cells":{"visit":"a\\u0000b"}}\n`,
            )),
        ),
    ],
    [
      'two entries of one id',
      /twice/u,
      () =>
        changed(
          (house, parts) =>
            void (parts[entriesPart(house, 1)] = strToU8(`{"id":"${stranger}","cells":{}}\n{"id":"${stranger}","cells":{}}\n`)),
        ),
    ],
  ];
  it.each(cases)('is refused in a sentence, and nothing of it stays: %s', async (_name, words, bytes) => {
    const house = await openHouse(running, []);
    const before = await house.administrator.get<BuildView>('/build');
    const { status, body } = await lookAt(house.administrator, await bytes());
    expect([status, body.code]).toEqual([422, 'not-valid']);
    expect(body.detail).toMatch(words);
    expect(await house.administrator.get<BuildView>('/build')).toEqual(before);
  });

  it('may hold rules that are at fault: they come in, and the house goes on', async () => {
    const bytes = await changed((house) => {
      const fields = (house.sheets[1]!['registers'] as { fields: Record<string, unknown>[] }[])[0]!.fields;
      const plain = {
        mayBeBlank: true,
        others: 'refuse',
        hint: '',
        refusalText: '',
        begins: { with: 'empty', value: '' },
        noRepeats: false,
        where: null,
      };
      fields[0]!['rule'] = { ...plain, kind: 'pattern', pattern: '([', examples: [] };
      fields[2]!['rule'] = { ...plain, kind: 'expression', expression: 'visit + (', message: '' };
      rule(house)['parents'] = ['nowhere'];
    });
    const elsewhere = await emptyHouse();
    await bring(elsewhere, bytes);
    const { sheets } = await elsewhere.get<BuildView>('/build');
    const visits = sheets.find(({ title }) => title === 'Visits')!.registers[0]!;
    expect(
      (await elsewhere.call('POST', `/registers/${visits.id}/entries`, { cells: [{ field: 'visit', text: 'V2' }] })).status,
    ).toBeLessThan(500);
    expect((await elsewhere.call('GET', '/upkeep')).status).toBe(200);
    expect((await elsewhere.call('GET', `/registers/${visits.id}/entries?from=0&count=9`)).status).toBe(200);
  });

  it('is larger than is taken here', async () => {
    const { administrator } = await openHouse(running, []);
    const { status, body } = await lookAt(administrator, Buffer.alloc(51 * 1024 * 1024));
    expect([status, body.code]).toEqual([413, 'too-large']);
    expect(body.detail).toContain('npm run archive');
  });
});

describe('At the command line', () => {
  const program = join(import.meta.dirname, '../dist/exchange/archiveFile.js');
  const run = promisify(execFile);

  it('a house goes out and comes in as a new one, whose administrator gets a password, or into one that is there', async () => {
    const url = await freshDatabase();
    const own = await startServer(url);
    const folder = mkdtempSync('/tmp/dellum-archive-');
    const archive = (...args: readonly string[]) =>
      run(process.execPath, [program, ...args], { env: { ...process.env, DATABASE_URL: url } }).then(
        ({ stdout }) => stdout,
        (error: { stderr: string }) => `failed: ${error.stderr}`,
      );
    try {
      const house = await openHouse(own, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
      const file = join(folder, 'house.zip');
      expect(await archive('out', file)).toBe(`${file} holds the house.\n`);
      expect(await archive('out', file)).toContain('is there already');
      expect(await archive('in', join(folder, 'none.zip'))).toContain('is not there');
      expect(await archive('out', join(folder, 'other.zip'), '--house', 'nobody')).toContain(`There are: ${house.key}.`);
      expect(existsSync(join(folder, 'other.zip'))).toBe(false);

      const [, key, signIn, password] = /\?house=(\S+) as “(.+)” with the password (\S+), /u.exec(await archive('in', file))!;
      const visitor = new Visitor(own.base);
      expect((await visitor.call('POST', '/session', { house: key, signIn, password })).status).toBe(204);
      const { sheets } = await visitor.get<BuildView>('/build');
      const visits = sheets.find(({ title }) => title === 'Visits')!.registers[0]!;
      expect(
        (await visitor.get<{ entries: { cells: object }[] }>(`/registers/${visits.id}/entries?from=0&count=9`)).entries[0]!.cells,
      ).toEqual({ visit: 'V1', pilot: 'Tam Ossel' });
      expect(await archive('in', file, '--into', house.key)).toContain('“Visits” came in as “Visits 2”.');
      expect((await house.administrator.get<BuildView>('/build')).sheets.map(({ title }) => title)).toContain('Visits 2');
    } finally {
      await own.close();
      rmSync(folder, { recursive: true });
    }
  }, 180_000);
});
