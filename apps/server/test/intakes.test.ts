// Intakes: files of one kind that come in by themselves, by hand, out of a folder and by programs; what is new waits.
import { mkdir, mkdtemp, rm, symlink, truncate, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type {
  EntryView,
  IntakeDto,
  IntakeFileView,
  IntakeView,
  LedgerPage,
  MadeToken,
  Problem,
  ProgramFile,
  ProgramIntake,
  ReturnedFileView,
  ReturnedRows,
  Upkeep,
} from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, freshDatabase, startServer, until, type Running, type Visitor } from './house.js';

let running: Running;
let root: string;
let made: Made;
/** The house to which no folder is given. */
let withoutRoot: string | undefined;
beforeAll(async () => {
  root = await mkdtemp('/tmp/dellum-intakes-');
  running = await startServer(await freshDatabase(), (key) => ({
    root: key === withoutRoot ? undefined : join(root, key),
    databases: new Map(),
    services: new Map(),
    receivers: new Map(),
  }));
});
afterAll(async () => {
  await running.close();
  await rm(root, { recursive: true });
});
beforeEach(async () => {
  made = await makeEntrySheet(running, [
    ['Quay', 'text'],
    ['Berth', 'text'],
    ['Day', 'date'],
    ['Note', 'text'],
  ]);
  const { quay, berth } = chain(made.berths);
  await made.rule('quay', quay);
  await made.rule('berth', berth);
  await mkdir(join(root, made.house.key, 'in'), { recursive: true });
});

const intake = (over: Partial<IntakeDto> = {}): IntakeDto => ({
  name: 'Daily list',
  registerId: made.register.id,
  folder: null,
  pattern: '',
  holdsAll: false,
  ...over,
});
const make = (over: Partial<IntakeDto> = {}) => made.house.administrator.call<IntakeView & Problem>('POST', '/intakes', intake(over));
const list = () => made.house.administrator.get<IntakeView[]>('/intakes');
const log = (id: string) => made.house.administrator.get<IntakeFileView[]>(`/intakes/${id}/files`);
async function send<Answer>(
  path: string,
  headers: Record<string, string>,
  text: string,
): Promise<{ status: number; body: Answer & Problem }> {
  const all = { 'content-type': 'application/octet-stream', ...headers };
  const response = await fetch(`${running.base}/api/v1${path}`, { method: 'POST', headers: all, body: text });
  return { status: response.status, body: (await response.json()) as Answer & Problem };
}
const bring = async (id: string, name: string, text: string, visitor: Visitor = made.house.administrator) =>
  send<IntakeFileView>(`/intakes/${id}/files?name=${encodeURIComponent(name)}`, { cookie: await visitor.signedIn() }, text);
const isSettled = ({ state }: IntakeFileView) => !['coming', 'reading'].includes(state);
/** Until so many files are settled, and what they store is stored. */
async function settled(id: string, files: number): Promise<IntakeFileView[]> {
  let all: IntakeFileView[] = [];
  await until(async () => (all = await log(id)).filter(isSettled).length >= files && all.every(isSettled));
  await until(async () => {
    const { rows } = await sql<{ open: number }>`select count(*)::int as open from entry_acts
      where house_id = ${made.house.id} and state = 'under way'`.execute(running.database.kysely);
    return rows[0]!.open === 0;
  });
  return log(id);
}
const heading = 'Quay,Berth,Day,Note\n';
const held = async () => (await entriesOf(made.house.clerk, made.register)).map(({ cells }: EntryView) => cells['note']);
const brief = ({ name, state, rows }: IntakeFileView) => [name, state, rows];
const put = async (name: string, text: string, at = new Date(Date.now() - 60_000)) => {
  const path = join(root, made.house.key, name);
  await writeFile(path, text);
  await utimes(path, at, at);
};
const tick = () => running.tick();
const rowsOf = (file: IntakeFileView, show: string) =>
  made.house.administrator.get<ReturnedRows>(`/returned-files/${file.id}/rows?show=${show}`);

describe('an intake', () => {
  it('stores what fits at once, and keeps what is new to be looked at; what is mended is stored by hand', async () => {
    const { status, body } = await make();
    expect([status, body.failure, body.waits, body.by]).toEqual([201, null, 0, 'The administrator']);
    const text = `${heading}North,N1,2026-11-29,a\nNorth,N2,2026-11-29,b\nNroth,N1,2026-11-30,c\nSouth,S1,no day,d\n`;
    expect((await bring(body.id, 'monday.csv', text)).status).toBe(202);
    const files = await settled(body.id, 2);
    expect(files.map(brief)).toEqual([
      ['monday.csv', 'applied', 2],
      ['monday.csv', 'ready', 2],
    ]);
    const [part, waits] = files;
    expect(part!.partOf).toBe(waits!.id);
    expect(await held()).toEqual(['a', 'b']);
    const upkeep = await made.house.administrator.get<Upkeep>('/upkeep');
    expect(upkeep.intakes).toEqual([{ intakeId: body.id, name: 'Daily list', waits: 1, failure: null }]);

    const { rows, total } = await rowsOf(waits!, 'refused');
    expect([total, rows[0]!.cells.find(({ field }) => field === 'quay')!.refused?.suggestions]).toEqual([2, ['North']]);
    const path = `/returned-files/${waits!.id}`;
    await made.house.administrator.call('PUT', `${path}/rows/${rows[0]!.ord}`, { field: 'quay', text: 'North' });
    await made.house.administrator.call('PUT', `${path}/rows/${rows[1]!.ord}`, { field: 'day', text: '2026-11-30' });
    expect((await made.house.administrator.call('POST', `${path}/applied`, {})).status).toBe(202);
    await settled(body.id, 2);
    expect(await held()).toEqual(['a', 'b', 'c', 'd']);
    expect((await made.house.administrator.get<Upkeep>('/upkeep')).intakes).toEqual([]);
    const { lines } = await made.house.administrator.get<LedgerPage>('/ledger');
    expect(lines.filter(({ act }) => act === 'file.brought')).toHaveLength(2);
  });

  it('compares what waits again with the list as it is by then, and stores what fits now', async () => {
    const { body } = await make();
    await bring(body.id, 'a.csv', `${heading}West,W1,,x\nNorth,N1,,y\n`);
    const [, waits] = await settled(body.id, 2);
    const table = made.house.administrator;
    const { sheets } = await table.get<{ sheets: { registers: { id: string; title: string }[] }[] }>('/build');
    const berths = sheets.flatMap(({ registers }) => registers).find(({ title }) => title === 'Berths')!;
    const rows = [['West', 'W1', '10', '']];
    const acts = [{ act: 'insert', fields: ['quay', 'berth', 'length', 'from'], rows }];
    expect((await table.call('POST', `/registers/${berths.id}/acts`, { acts })).status).toBeLessThan(300);
    await made.house.administrator.call('POST', `/returned-files/${waits!.id}/compared`, {});
    await until(async () => (await log(body.id)).every(({ state }) => state === 'applied'));
    await settled(body.id, 2);
    expect((await held()).toSorted()).toEqual(['x', 'y']);
  });

  it('knows the rows of a file that grows, however often they stand in it, and those that were deleted here', async () => {
    const { body } = await make();
    const rows = ['North,N1,,a', 'North,N1,,a', 'North,N2,,b'];
    const file = (count: number, more: readonly string[] = []) => heading + [...rows.slice(0, count), ...more].join('\n');
    await bring(body.id, 'log.csv', file(1));
    await bring(body.id, 'log.csv', file(2));
    await bring(body.id, 'log.csv', file(3));
    await bring(body.id, 'log.csv', file(3));
    expect((await settled(body.id, 4)).map(({ rows: count }) => count)).toEqual([0, 1, 1, 1]);
    expect(await held()).toEqual(['a', 'a', 'b']);
    const [first] = await entriesOf(made.house.clerk, made.register);
    await made.house.clerk.call('POST', `/registers/${made.register.id}/entries/deleted`, { entries: [first!.id] });
    await bring(body.id, 'log.csv', file(3, ['South,S1,,c', 'West,W9,,d']));
    await settled(body.id, 6);
    // What waits is known, too.
    await bring(body.id, 'log.csv', file(3, ['South,S1,,c', 'West,W9,,d', 'South,S1,,e']));
    const [last] = await settled(body.id, 7);
    expect(brief(last!)).toEqual(['log.csv', 'applied', 1]);
    // Another name is another file.
    await bring(body.id, 'other.csv', file(2));
    await settled(body.id, 8);
    expect((await held()).at(-1)).toBe('a');
  });

  it('takes files that hold the old rows under new names where it is told so', async () => {
    const { body } = await make({ holdsAll: true });
    await bring(body.id, 'mon.csv', `${heading}North,N1,,a\n`);
    await bring(body.id, 'tue.csv', `${heading}North,N1,,a\nNorth,N1,,a\nSouth,S1,,b\n`);
    expect((await settled(body.id, 2)).map(brief)).toEqual([
      ['tue.csv', 'applied', 2],
      ['mon.csv', 'applied', 1],
    ]);
    expect(await held()).toEqual(['a', 'a', 'b']);
  });

  it('reads many files that come at once one after another, and stores each row once', async () => {
    const { body } = await make({ holdsAll: true });
    const file = (count: number) => heading + Array.from({ length: count }, (_, at) => `North,N1,,${at}`).join('\n');
    await Promise.all(Array.from({ length: 12 }, (_, at) => bring(body.id, `${at}.csv`, file(20 + at * 5))));
    await settled(body.id, 12);
    expect((await held()).toSorted()).toEqual(Array.from({ length: 75 }, (_, at) => String(at)).toSorted());
  });

  it('reads numbers and days as the file writes them, not each cell for itself', async () => {
    const { administrator } = made.house;
    for (const [title, kind] of [
      ['Toll', 'amount'],
      ['Depth', 'number'],
    ])
      expect((await administrator.call('POST', `/registers/${made.register.id}/fields`, { heading: title, kind })).status).toBe(201);
    const { body } = await make();
    await bring(body.id, 'a.csv', 'Quay;Day;Note;Toll;Depth\nNorth;11/29/2026;a;1.234,50;1,234\nNorth;03/04/2026;b;80;6,5\n');
    await settled(body.id, 1);
    const cells = (await entriesOf(made.house.clerk, made.register)).map((entry) => entry.cells);
    expect(cells.map(({ day, toll, depth }) => [day, toll, depth])).toEqual([
      ['2026-11-29', '1234.5', '1.234'],
      ['2026-03-04', '80', '6.5'],
    ]);
    const { said } = await administrator.get<ReturnedFileView>(`/returned-files/${(await log(body.id))[0]!.id}`);
    expect(said).toEqual([
      '“Day” is read as the file writes: the month first.',
      '“Toll” is read as the file writes: with a decimal comma.',
      '“Depth” is read as the file writes: with a decimal comma.',
    ]);
  });

  it('keeps a mended spelling as another name, where one says so: the next file comes in by itself', async () => {
    const { administrator, clerk } = made.house;
    const { body } = await make();
    await bring(body.id, 'a.csv', `${heading}South,N2x,,a\n`);
    const [file] = await settled(body.id, 1);
    const path = `/returned-files/${file!.id}/rows`;
    const named = (visitor: Visitor, field: string, name: string) =>
      visitor.call<Problem>('POST', `${path}/0/other-names`, { field, name });
    expect((await named(administrator, 'berth', 'N2x')).status).toBe(422);
    await administrator.call('PUT', `${path}/0`, { field: 'berth', text: 'N2' });
    const refused = [
      [await named(administrator, 'note', 'x'), 422],
      [await named(administrator, 'berth', 'S1'), 409],
      [await named(administrator, 'berth', ''), 422],
      [await named(administrator, 'nothing', 'x'), 404],
      [await named(clerk, 'berth', 'x'), 403],
    ] as const;
    expect(refused.map(([{ status }]) => status)).toEqual(refused.map(([, status]) => status));
    expect((await named(administrator, 'berth', 'N2x')).status).toBe(200);
    await bring(body.id, 'b.csv', `${heading}South,N2x,,b\nNorth,N2x,,c\n`);
    await settled(body.id, 3);
    expect((await log(body.id)).map(brief)).toEqual([
      ['b.csv', 'applied', 1],
      ['b.csv', 'ready', 1],
      ['a.csv', 'ready', 1],
    ]);
    const cells = (await entriesOf(clerk, made.register)).map((entry) => entry.cells);
    expect(cells).toEqual([{ quay: 'South', berth: 'N2', note: 'b' }]);
  });

  it('asks once what columns of other headings are, and knows it from then on', async () => {
    const { body } = await make();
    const text = 'Pier,Place,When,Remark\nNorth,N1,2026-11-29,a\n';
    await bring(body.id, 'one.csv', text);
    const [first] = await settled(body.id, 1);
    expect(first!.state).toBe('unclear');
    const fields = ['quay', 'berth', 'day', 'note'];
    const columns = fields.map((field, at) => ({ at, field }));
    const dto = { registerId: made.register.id, columns };
    expect((await made.house.administrator.call('PUT', `/returned-files/${first!.id}/columns`, dto)).status).toBe(200);
    await settled(body.id, 1);
    await bring(body.id, 'two.csv', text.replace(',a', ',b'));
    await settled(body.id, 2);
    expect(await held()).toEqual(['a', 'b']);
  });

  it('takes back what a file has stored, once, and then takes its rows again', async () => {
    const { body } = await make();
    await bring(body.id, 'a.csv', `${heading}North,N1,,a\nSouth,S1,,b\n`);
    const [file] = await settled(body.id, 1);
    const back = () => made.house.administrator.call<Problem | null>('POST', `/intakes/${body.id}/files/${file!.id}/taken-back`, {});
    expect((await back()).status).toBe(204);
    expect((await settled(body.id, 1))[0]!.takenBack).toBe(true);
    expect(await held()).toEqual([]);
    expect((await back()).body?.code).toBe('file-settled');
    await bring(body.id, 'a.csv', `${heading}North,N1,,a\nSouth,S1,,b\n`);
    await settled(body.id, 2);
    expect(await held()).toEqual(['a', 'b']);
  });

  it('says what is wrong with how it is set up, and is for administrators of the house alone', async () => {
    const bad: readonly (readonly [Partial<IntakeDto>, number, string])[] = [
      [{ name: ' ' }, 422, 'name-unfit'],
      [{ name: '' }, 422, 'not-valid'],
      [{ registerId: made.house.catalog.id }, 422, 'not-valid'],
      [{ registerId: made.house.pilots.id }, 404, 'not-found'],
      [{ registerId: 'x' }, 422, 'not-valid'],
      [{ folder: 'x'.repeat(501) }, 422, 'not-valid'],
    ];
    for (const [over, status, code] of bad) {
      const answer = await make(over);
      expect([over, answer.status, answer.body.code]).toEqual([over, status, code]);
    }
    const { body } = await make({ folder: 'in', pattern: '*.csv' });
    expect((await make({ name: 'daily  LIST' })).body.code).toBe('name-taken');
    expect((await make({ name: 'Twin', folder: 'in', pattern: ' *.csv ' })).body.faults).toHaveProperty('folder');
    const stranger = (await makeEntrySheet(running, [['Note', 'text']])).house.administrator;
    for (const [method, path] of [
      ['PUT', ''],
      ['POST', '/off'],
      ['POST', '/on'],
      ['DELETE', ''],
      ['GET', '/files'],
      ['POST', '/files/1/taken-back'],
    ] as const)
      expect([
        path,
        (await stranger.call(method, `/intakes/${body.id}${path}`, method === 'GET' || method === 'DELETE' ? undefined : intake())).status,
      ]).toEqual([path, 404]);
    expect((await bring(body.id, 'a.csv', 'x', stranger)).status).toBe(404);
    expect((await bring(body.id, 'a.csv', 'x', made.house.clerk)).status).toBe(403);
  });

  it('leaves its files when it is removed, and those under way are read to the end', async () => {
    const { body } = await make();
    await bring(body.id, 'a.csv', `${heading}North,N1,,a\n`);
    await settled(body.id, 1);
    await Promise.all(['b', 'c', 'd'].map((name) => bring(body.id, `${name}.csv`, `${heading}West,W1,,${name}\n`)));
    expect((await made.house.administrator.call('DELETE', `/intakes/${body.id}`)).status).toBe(204);
    expect(await list()).toEqual([]);
    const files = () => made.house.administrator.get<ReturnedFileView[]>('/returned-files');
    await until(async () => (await files()).every(({ state }) => state !== 'reading'));
    expect((await files()).map(({ intake: own }) => own)).toEqual([null, null, null, null]);
    expect((await make()).status).toBe(201);
  });
});

describe('the folder of an intake', () => {
  it('is looked at each minute: what is new or changed is taken, what is still written is left', async () => {
    await put('in/a.csv', `${heading}North,N1,,a\n`);
    await put('in/.hidden.csv', `${heading}North,N1,,hidden\n`);
    await put('in/~lock.csv', 'x');
    await put('in/note.txt', 'not meant');
    await put('in/fresh.csv', `${heading}North,N1,,fresh\n`, new Date());
    await put('outside.csv', `${heading}North,N1,,outside\n`);
    await symlink(join(root, made.house.key, 'outside.csv'), join(root, made.house.key, 'in', 'link.csv'));
    const { body } = await make({ folder: 'in', pattern: '*.csv' });
    expect((await settled(body.id, 1)).map(({ name, way }) => [name, way])).toEqual([['a.csv', 'folder']]);
    await rm(join(root, made.house.key, 'in/fresh.csv'));
    await Promise.all([tick(), tick(), tick()]);
    await put('in/a.csv', `${heading}North,N1,,a\nNorth,N1,,a2\n`);
    await put('in/b.csv', `${heading}South,S1,,b\n`, new Date(Date.now() - 30_000));
    await tick();
    expect((await settled(body.id, 3)).map(brief)).toEqual([
      ['b.csv', 'applied', 1],
      ['a.csv', 'applied', 1],
      ['a.csv', 'applied', 1],
    ]);
    expect(await held()).toEqual(['a', 'a2', 'b']);
  });

  it('says each bad file once, and forgets a half one when it has come whole', async () => {
    await put('in/half.xlsx', 'PK\u0003\u0004 half');
    await put('in/empty.csv', '');
    await put('in/large.csv', '');
    await truncate(join(root, made.house.key, 'in/large.csv'), 60_000_000);
    await utimes(join(root, made.house.key, 'in/large.csv'), new Date(1e12), new Date(1e12));
    const { body } = await make({ folder: 'in' });
    const files = await settled(body.id, 3);
    await tick();
    expect((await settled(body.id, 3)).map(({ name, state, why }) => [name, state, (why ?? '').length > 20]).toSorted()).toEqual([
      ['empty.csv', 'unreadable', true],
      ['half.xlsx', 'unreadable', true],
      ['large.csv', 'unreadable', true],
    ]);
    expect(files).toHaveLength(3);
    await put('in/empty.csv', `${heading}North,N1,,now\n`);
    await tick();
    await until(async () => (await held()).length === 1);
    expect((await log(body.id)).filter(({ name }) => name === 'empty.csv').map(({ state }) => state)).toEqual(['applied']);
  });

  it('is said where it is not there, leads out, is a file, or none is given', async () => {
    await put('in/a.csv', 'x');
    const ids: string[] = [];
    for (const folder of ['gone', '..', '../..', 'in/a.csv', '/etc']) ids.push((await make({ name: folder, folder })).body.id);
    await until(async () => (await list()).every(({ failure }) => failure !== null));
    await Promise.all(ids.map(async (id) => expect(await log(id)).toEqual([])));
    withoutRoot = made.house.key;
    await tick();
    await until(async () => (await list()).every(({ failure }) => failure?.includes('DELLUM_FILES')));
    withoutRoot = undefined;
    const dto = intake({ name: 'gone', folder: 'in', pattern: '*.xlsx' });
    const { body } = await made.house.administrator.call<IntakeView>('PUT', `/intakes/${ids[0]}`, dto);
    expect(body.failure).toBe(null);
  });

  it('is left while the intake is switched off, and while too much waits', async () => {
    const { administrator } = made.house;
    const { body } = await make({ folder: 'in' });
    await administrator.call('POST', `/intakes/${body.id}/off`, {});
    await put('in/a.csv', `${heading}North,N1,,a\n`);
    await tick();
    expect((await list())[0]!.off).not.toBe(null);
    await administrator.call('POST', `/intakes/${body.id}/on`, {});
    await settled(body.id, 1);

    await Promise.all(Array.from({ length: 55 }, (_, at) => put(`in/${String(at).padStart(2, '0')}.csv`, `${heading}West,W1,,${at}\n`)));
    await tick();
    await until(async () => (await list())[0]!.failure?.startsWith('50 of its files wait') === true);
    expect((await settled(body.id, 51)).filter(({ state }) => state === 'ready')).toHaveLength(50);
    expect((await bring(body.id, 'b.csv', heading)).body.code).toBe('too-many-requests');
  });
});

describe('a program', () => {
  const token = async (writes: boolean, registers = [made.register.id], name = 'Gate scale') => {
    const dto = { name, catalogs: [], registers, writes, until: '2099-01-01' };
    const { body } = await made.house.administrator.call<MadeToken & Problem>('POST', '/access-tokens', dto);
    return { authorization: `Bearer ${body.token}` };
  };
  const get = async <Answer>(path: string, headers: Record<string, string>) => {
    const response = await fetch(`${running.base}/api/v1/programs${path}`, { headers });
    return { status: response.status, body: (await response.json()) as Answer };
  };

  it('sends files to the intakes of its sheets, and hears what became of them', async () => {
    const { body } = await make();
    const writes = await token(true);
    expect((await get<ProgramIntake[]>('/intakes', writes)).body).toEqual([
      { id: body.id, name: 'Daily list', registerId: made.register.id },
    ]);
    const path = `/programs/intakes/${body.id}/files?name=scale.csv`;
    const { status, body: sent } = await send<ProgramFile>(path, writes, `${heading}North,N1,,a\nWest,W1,,b\n`);
    expect([status, sent.state]).toEqual([202, 'reading']);
    await settled(body.id, 2);
    const { body: file } = await get<ProgramFile>(`/intakes/${body.id}/files/${sent.id}`, writes);
    expect(file).toEqual({ id: sent.id, state: 'waits', stored: 1, waiting: 1, why: null });
    expect((await log(body.id)).map(({ way, by }) => [way, by])).toEqual([
      ['program', 'Gate scale'],
      ['program', 'Gate scale'],
    ]);
    const again = await send<ProgramFile>(path, writes, `${heading}North,N1,,a\nWest,W1,,b\n`);
    await settled(body.id, 3);
    expect((await get<ProgramFile>(`/intakes/${body.id}/files/${again.body.id}`, writes)).body).toMatchObject({
      state: 'stored',
      stored: 0,
    });
    expect(await held()).toEqual(['a']);
  });

  it('sends nothing where its token does not open the sheet, or reads only, and nothing that is no file', async () => {
    const { body } = await make();
    const path = `/programs/intakes/${body.id}/files?name=a.csv`;
    for (const headers of [await token(false, undefined, 'Reads'), await token(true, [made.house.visits.id], 'Elsewhere')]) {
      expect((await send(path, headers, heading)).status).toBe(404);
      expect((await get('/intakes', headers)).body).toEqual([]);
    }
    const writes = await token(true);
    expect((await send(path, {}, heading)).status).toBe(401);
    expect((await send(path, { ...writes, 'content-type': 'text/csv' }, heading)).body.code).toBe('json-only');
    expect((await send(`/programs/intakes/${body.id}/files`, writes, heading)).status).toBe(422);
    expect((await get(`/intakes/${body.id}/files/1`, writes)).status).toBe(404);
    await made.house.administrator.call('POST', `/intakes/${body.id}/off`, {});
    expect((await send(path, writes, heading)).body.code).toBe('not-allowed');
    await made.house.administrator.call('POST', `/intakes/${body.id}/on`, {});

    const becomes = (role: string) =>
      sql`update people set role = ${role} where house_id = ${made.house.id} and name = ${body.by}`.execute(running.database.kysely);
    await becomes('clerk');
    const refused = await send(path, writes, heading);
    await becomes('administrator');
    expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('who is no administrator here any more')]);
  });
});
