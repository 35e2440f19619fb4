// A JSON Schema comes in as a sheet with its rules: of another office, of this house itself, and of those who mean harm.
import type {
  AdoptionView,
  ArchiveBrought,
  ArchiveLook,
  BuildView,
  MadeToken,
  Problem,
  ProgramRegister,
  RecordView,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lookAt } from './archiveFile.js';
import { openHouse, startServer, until, type House, type Running, type Visitor } from './house.js';

let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, []);
});
afterAll(() => running.close());

const bytesOf = (held: unknown) => Buffer.from(JSON.stringify(held, null, 2));
async function brought(visitor: Visitor, schema: unknown): Promise<{ look: ArchiveLook; registerId: string }> {
  const { body: look } = await lookAt(visitor, bytesOf(schema));
  expect(look.detail).toBeUndefined();
  const ways = look.collisions.map(({ id }) => ({ id, way: 'beside' }));
  const { status, body } = await visitor.call<ArchiveBrought & Problem>('POST', '/archives/brought', { look: look.look, ways });
  expect([status, body.detail]).toEqual([200, undefined]);
  const { sheets } = await visitor.get<BuildView>('/build');
  const entered = sheets.find(({ id, kind }) => kind === 'entry' && body.sheets.some((sheet) => sheet.id === id))!;
  return { look, registerId: entered.registers[0]!.id };
}

const stay = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Stays',
  type: 'object',
  properties: {
    guest: { title: 'Guest', type: 'string', minLength: 2, maxLength: 40 },
    wing: { title: 'Wing', enum: ['East', 'West'] },
    room: { title: 'Room', type: 'string' },
    nights: { title: 'Nights', type: 'integer', minimum: 1, maximum: 30, description: 'As on the slip.' },
    from: { title: 'From', type: 'string', format: 'date' },
    breakfast: { title: 'Breakfast', type: 'boolean' },
    mark: { title: 'Mark', type: 'string', pattern: '^[A-Z]{2}-\\d{3}$' },
  },
  required: ['guest', 'room', 'nights'],
  allOf: Object.entries({ East: ['E1', 'E2'], West: ['W1'] }).map(([wing, rooms]) => ({
    if: { properties: { wing: { const: wing } }, required: ['wing'] },
    then: { properties: { room: { enum: rooms } } },
  })),
};

describe('A JSON Schema', () => {
  it('becomes a sheet that asks what it asks, with a list of what depends on one another', async () => {
    const { administrator, clerk } = house;
    const { look, registerId } = await brought(administrator, stay);
    expect([look.of, look.name, look.said, look.counts.sheets, look.counts.catalogs, look.counts.entries]).toEqual([
      'schema',
      'Stays',
      [],
      1,
      1,
      0,
    ]);
    const edit = (entry: string, version: number, field: string, text: string) =>
      clerk.call<Problem & { entry: { version: number } }>('PATCH', `/registers/${registerId}/entries/${entry}`, { field, text, version });
    const { body: made } = await clerk.call<{ entries: [string] }>('POST', `/registers/${registerId}/entries`, { count: 1 });
    const [entry] = made.entries;
    let { version } = (await clerk.get<RecordView>(`/registers/${registerId}/records/${entry}`)).entry;
    const said: string[] = [];
    for (const [field, text] of [
      ['guest', 'Odo Renner'],
      ['room', 'E1'],
      ['wing', 'East'],
      ['room', 'W1'],
      ['room', 'e2'],
      ['nights', '31'],
      ['nights', '2.5'],
      ['nights', '3'],
      ['mark', 'AB-12'],
      ['mark', 'AB-123'],
      ['breakfast', 'yes'],
      ['guest', 'O'],
    ] as const) {
      const { status, body } = await edit(entry, version, field, text);
      if (status === 200) version = body.entry.version;
      said.push(`${field} ${text} ${status}`);
    }
    expect(said).toEqual([
      'guest Odo Renner 200',
      'room E1 422',
      'wing East 200',
      'room W1 422',
      'room e2 200',
      'nights 31 422',
      'nights 2.5 422',
      'nights 3 200',
      'mark AB-12 422',
      'mark AB-123 200',
      'breakfast yes 200',
      'guest O 422',
    ]);
  });

  it('of a sheet of this house makes a sheet of the same schema', async () => {
    const { administrator } = house;
    const { registerId } = await brought(administrator, { ...stay, title: 'First' });
    const schemaOf = async (register: string) => {
      const { token } = (
        await administrator.call<MadeToken>('POST', '/access-tokens', {
          ...{ name: `Reader ${register}`, writes: false, catalogs: [], registers: [register], until: '2099-12-31' },
        })
      ).body;
      const ask = async <T>(path: string) =>
        (await (await fetch(`${running.base}/api/v1/programs${path}`, { headers: { authorization: `Bearer ${token}` } })).json()) as T;
      const [own] = await ask<ProgramRegister[]>('/registers');
      return ask<{ title: string; $defs: Record<string, { enum: unknown }> }>(`/registers/${own!.key}/schema`);
    };
    const out = await schemaOf(registerId);
    const again = await schemaOf((await brought(administrator, out)).registerId);
    // Lists are named by the ids of their catalogs.
    const plain = ({ $defs, ...schema }: typeof out, of: typeof out) => ({
      lists: Object.values($defs).map((list) => list.enum),
      rest: JSON.stringify({ ...schema, title: '' }).replaceAll(Object.keys(of.$defs)[0]!.split('/')[0]!, 'catalog'),
    });
    expect(plain(again, again)).toEqual(plain(out, out));
  });

  it.each<[string, Buffer, RegExp]>([
    ['no JSON', Buffer.from('{"$schema": "https://json-schema.org/draft/2020-12/schema", "properties": {'), /is no JSON/u],
    ['nothing to ask', bytesOf({ $schema: 'https://json-schema.org/draft/2020-12/schema', type: 'string' }), /names no members/u],
    [
      'nested without end',
      Buffer.from(`{"type":"object","properties":{"a":${'{"items":'.repeat(50_000)}1${'}'.repeat(50_000)}}}`),
      /nested/u,
    ],
    [
      'very many members',
      Buffer.from(`{"type":"object","properties":{${Array.from({ length: 300_000 }, (_, at) => `"p${at}":{}`).join(',')}}}`),
      /too many members/u,
    ],
    ['larger than one is', Buffer.from(`{"type":"object","properties":{"a":{"description":"${'x'.repeat(9 * 1024 * 1024)}"}}}`), /8 MB/u],
  ])('that is %s is told in a sentence, and nothing is kept', async (_, bytes, words) => {
    const { status, body } = await lookAt(house.administrator, bytes);
    expect([status, body.code]).toEqual([422, 'not-valid']);
    expect(body.detail).toMatch(words);
  });

  it('with what cannot be stored, or is longer than it may be, comes in without it, and goes out in an archive', async () => {
    const { administrator } = house;
    const long = `${'x'.repeat(399)}😀`;
    const { look, registerId } = await brought(administrator, {
      type: 'object',
      title: `Odd\u0000 ${'t'.repeat(300)}`,
      properties: {
        'a\u0000b': { type: 'string', description: long, enum: ['one\u0000', 'x'.repeat(501), '😀'], default: 'no\u0000' },
        p: { type: 'string', pattern: '\u0000+' },
        q: { type: 'string', pattern: 'x'.repeat(600) },
      },
    });
    expect(look.said).toHaveLength(2);
    const { sheets } = await administrator.get<BuildView>('/build');
    const [field] = sheets.flatMap(({ registers }) => registers).find(({ id }) => id === registerId)!.fields;
    expect([field!.heading, field!.rule]).toMatchObject(['a b', { kind: 'typed', values: ['one', '😀'], hint: 'x'.repeat(399) }]);
    // Whatever stands in the house now is such as may come in.
    const out = await fetch(`${running.base}/api/v1/archives/house?entries=no&people=no`, {
      headers: { cookie: await administrator.signedIn() },
    });
    const { body } = await lookAt(administrator, Buffer.from(await out.arrayBuffer()));
    expect([body.detail, body.of]).toEqual([undefined, 'archive']);
  });

  it('is not taken for a table, where tables are brought', async () => {
    const response = await fetch(`${running.base}/api/v1/adoption-files?name=stay.json`, {
      method: 'POST',
      headers: { cookie: await house.administrator.signedIn(), 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytesOf(stay)),
    });
    const { id } = (await response.json()) as AdoptionView;
    const view = () => house.administrator.get<AdoptionView>(`/adoptions/${id}`);
    await until(async () => (await view()).state !== 'reading');
    expect((await view()).why).toMatch(/is a JSON Schema.*“The whole house”/u);
  });
});
