// Sheets for some: what a sheet that is limited to groups answers to whoever belongs to none, may look only, or enters data in it.
import { randomUUID } from 'node:crypto';
import { newLayout } from '@dellum/core';
import type {
  BuildView,
  EntryChange,
  FigureView,
  FormView,
  HeldIn,
  LedgerPage,
  Lineage,
  Person,
  Problem,
  RecordView,
  ReturnedFileView,
} from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listen } from './ear.js';
import { entriesOf, openHouse, startServer, until, type House, type Running, type Visitor } from './house.js';

let running: Running;
let house: House;
let register: string;
let entry: string;
let form: string;
let clerkId: string;
/** A file that the clerk has brought to the sheet. */
let file: number;
let people: readonly Person[];
beforeAll(async () => {
  running = await startServer();
  house = await openHouse(running, [
    { visit: 'V1', pilot: 'Tam Ossel' },
    { visit: 'V2', pilot: 'Tam Ossel' },
  ]);
  register = house.visits.id;
  entry = (await entriesOf(house.administrator, house.visits))[0]!.id;
  people = await house.administrator.get<Person[]>('/people');
  clerkId = people.find(({ role }) => role === 'clerk')!.id;
  const brought = await fetch(`${running.base}/api/v1/returned-files?name=a.csv&registerId=${register}`, {
    method: 'POST',
    headers: { cookie: await house.clerk.signedIn(), 'content-type': 'application/octet-stream' },
    body: 'Visit\nV3\n',
  });
  file = ((await brought.json()) as ReturnedFileView).id;
  await until(async () => (await house.clerk.get<ReturnedFileView>(`/returned-files/${file}`)).state !== 'reading');
  form = (await house.administrator.call<{ id: string }>('POST', '/forms', { registerId: register, title: 'Arrivals' })).body.id;
  const { edition } = await house.administrator.get<FormView>(`/forms/${form}`);
  const layout = newLayout(house.visits.fields.filter(({ key }) => key === 'visit'));
  expect((await house.administrator.call('PUT', `/forms/${form}`, { edition, title: 'Arrivals', layout })).status).toBe(200);
  expect((await house.administrator.call('POST', `/forms/${form}/versions`, {})).status).toBe(201);
  const kept = await house.administrator.call('POST', '/figures', { title: 'All visits', definition: figure() });
  expect(kept.status).toBe(201);
});
afterAll(() => running.close());

const figure = () => ({
  registerId: register,
  by: [{ field: 'pilot', through: null }],
  time: null,
  measure: 'count',
  of: null,
  only: [],
  chart: 'bars',
});
const limit = (groups: readonly { groupId: string; enters: boolean }[], limited = true) =>
  house.administrator.call<Problem>('PUT', `/sheets/${house.visits.sheetId}/limits`, { limited, groups });
const makeGroup = async (name: string, people: readonly string[]) =>
  (await house.administrator.call<{ id: string }>('POST', '/groups', { name, people })).body.id;

type Ask = readonly [method: string, path: string, body?: object | string, headers?: Record<string, string>];
const block = { fields: ['visit'], arranged: false };
const search = { find: 'V', whole: false, exact: false };
const reads = (): Ask[] => [
  ['GET', `/registers/${register}/entries`],
  ['GET', `/registers/${register}/counts`],
  ['GET', `/registers/${register}/requests`],
  ['GET', `/registers/${register}/arrangement`],
  ['GET', `/registers/${register}/values?field=pilot&search=`],
  ['GET', `/registers/${register}/records/${entry}`],
  ['GET', `/registers/${register}/records/${entry}/history`],
  ['POST', `/registers/${register}/records`, { only: [], sort: [], from: 0, count: 10 }],
  ['POST', `/registers/${register}/found`, { search, fields: ['visit'], arranged: false }],
  ['POST', `/registers/${register}/summed`, block],
  ['POST', '/figures/entries', { definition: figure(), values: ['Tam Ossel'] }],
  ['POST', '/live/place', { registerId: register }],
  ['GET', `/returned-files/${file}`],
  ['GET', `/returned-files/${file}/rows?show=new`],
  ['POST', `/fields/${house.pilotField.id}/rule/why`, { text: 'Tam Ossel', entry }],
];
const writes = (): Ask[] => [
  ['PATCH', `/registers/${register}/entries/${entry}`, { field: 'visit', text: 'X', version: 1 }],
  ['PUT', `/registers/${register}/entries/${randomUUID()}`, { field: 'visit', text: 'X' }],
  ['POST', `/registers/${register}/entries`, { count: 1 }],
  ['POST', `/registers/${register}/entries/block`, { cells: [{ entry, field: 'visit', text: 'X' }] }],
  ['POST', `/registers/${register}/entries/taken-back`, { cells: [{ entry, field: 'visit', version: 1 }] }],
  ['POST', `/registers/${register}/entries/restored`, { entries: [randomUUID()] }],
  ['POST', `/registers/${register}/entries/delete`, { entries: [entry] }],
  ['POST', `/registers/${register}/entry-acts`, { does: 'clear', block }],
  ['POST', `/registers/${register}/records/${entry}/history/1/back`, { field: 'visit' }],
  ['POST', `/returned-files?name=b.csv&registerId=${register}`, 'Visit\nV4\n', { 'content-type': 'application/octet-stream' }],
  ['PUT', `/returned-files/${file}/columns`, { registerId: register, columns: [{ at: 0, field: 'visit' }] }],
  ['POST', `/forms/${form}/entries`, { submission: randomUUID(), version: 1, answers: [] }],
];
const asked = async (asks: readonly Ask[]) => {
  const answers = [];
  for (const [method, path, body, headers] of asks)
    answers.push([`${method} ${path}`, (await house.clerk.call(method, path, body, headers)).status] as const);
  return answers;
};
const all = (asks: readonly Ask[], status: number) => asks.map(([method, path]) => [`${method} ${path}`, status]);

describe('a sheet that is limited to groups', () => {
  it('is not there for whoever belongs to none; is looked at by some, and entered by others; at once', async () => {
    const cells = async () => (await entriesOf(house.administrator, house.visits)).map((one) => one.cells['visit']);
    const ok = (answers: readonly (readonly [string, number])[]) => answers.filter(([, status]) => status >= 300);
    expect(ok(await asked(reads()))).toEqual([]);

    expect((await limit([])).status).toBe(200);
    expect(await asked(reads())).toEqual(all(reads(), 404));
    const [writing, answers] = [writes(), await asked(writes())];
    expect(answers.map(([, status]) => status)).toEqual(writing.map(() => 404));
    const build = await house.clerk.get<BuildView>('/build');
    expect([build.sheets, build.forms, build.links, build.groups]).toEqual([[], [], [], []]);
    expect(await house.clerk.get<HeldIn[]>('/held?value=Tam%20Ossel')).toEqual([]);
    expect(await house.clerk.get<FigureView[]>('/figures')).toEqual([]);
    expect(await house.clerk.get<ReturnedFileView[]>('/returned-files')).toEqual([]);
    // Who keeps the list is not told by its way where it is used.
    const [steward] = people.filter(({ role }) => role === 'steward');
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/stewards`, { people: [steward!.id] });
    const fieldsTold = async (visitor: Visitor) => (await visitor.get<Lineage>(`/catalogs/${house.catalog.id}/lineage`)).fields.length;
    expect([await fieldsTold(house.steward), await fieldsTold(house.administrator)]).toEqual([0, 1]);
    expect(await cells()).toEqual(['V1', 'V2']);
    // An administrator goes on, and so does an open link of a form.
    expect(await house.administrator.get<HeldIn[]>('/held?value=Tam%20Ossel')).toHaveLength(1);

    const watch = await makeGroup('Front desk', [clerkId]);
    const office = await makeGroup('Pilots’ office', []);
    await limit([
      { groupId: watch, enters: false },
      { groupId: office, enters: true },
    ]);
    expect(ok(await asked(reads()))).toEqual([]);
    expect((await asked(writes())).map(([, status]) => status)).toEqual(writing.map(() => 403));
    expect((await house.clerk.get<BuildView>('/build')).sheets[0]).toMatchObject({
      limited: true,
      groups: [],
      registers: [{ enters: false }],
    });
    expect(await cells()).toEqual(['V1', 'V2']);

    const join = (people: readonly string[]) => house.administrator.call('PUT', `/groups/${office}`, { name: 'Pilots’ office', people });
    await join([clerkId]);
    const version = (await house.clerk.get<RecordView>(`/registers/${register}/records/${entry}`)).entry.version;
    const edit = () => house.clerk.call('PATCH', `/registers/${register}/entries/${entry}`, { field: 'visit', text: 'V1a', version });
    expect((await edit()).status).toBe(200);
    await join([]);
    expect((await edit()).status).toBe(403);
    const [change] = await house.clerk.get<EntryChange[]>(`/registers/${register}/records/${entry}/history`);
    expect(
      (await house.clerk.call('POST', `/registers/${register}/records/${entry}/history/${change!.id}/back`, { field: 'visit' })).status,
    ).toBe(403);

    // A group that is deleted opens nothing.
    for (const group of [watch, office]) expect((await house.administrator.call('DELETE', `/groups/${group}`)).status).toBe(200);
    expect(await asked(reads())).toEqual(all(reads(), 404));
    await limit([], false);
    expect(ok(await asked(reads()))).toEqual([]);
    const told = (await house.administrator.get<LedgerPage>('/ledger')).lines.map(({ act }) => act);
    expect(told).toEqual(expect.arrayContaining(['group.made', 'group.changed', 'group.deleted', 'sheet.limited']));
  });

  it('is not heard of on the live stream from the moment on in which it is closed', async () => {
    await limit([], false);
    const ear = await listen(running.base, house.clerk);
    const write = async (text: string) => {
      const { version } = (await house.administrator.get<RecordView>(`/registers/${register}/records/${entry}`)).entry;
      await house.administrator.call('PATCH', `/registers/${register}/entries/${entry}`, { field: 'visit', text, version });
    };
    const heard = () => ear.heard.flatMap(({ change }) => (change.kind === 'cells' ? [change.cells['visit']] : []));
    await write('seen');
    await limit([]);
    await Promise.all([write('hidden'), house.administrator.call('POST', '/live/place', { registerId: register, entry })]);
    // Once a later change of the build is heard, the stream has passed by all that came before it while the sheet was closed.
    await limit([{ groupId: await makeGroup('Nobody yet', []), enters: false }]);
    const { version } = await house.administrator.get<BuildView>('/build');
    await until(async () => ear.heard.some(({ change }) => change.kind === 'build' && change.version === version));
    await limit([], false);
    await write('seen again');
    await until(async () => heard().includes('seen again'));
    expect(heard()).toEqual(['seen', 'seen again']);
    expect(ear.places).toEqual([]);
    ear.stop();
  });

  it.each([
    [{ name: ' ', people: [] }, 422],
    [{ name: 'Desk', people: ['x'] }, 422],
    [{ name: 'Desk' }, 422],
  ])('refuses the group %j', async (body, status) => {
    expect((await house.administrator.call('POST', '/groups', body)).status).toBe(status);
  });
  it('knows no group twice, none of another house, and nobody of it', async () => {
    const other = await openHouse(running, []);
    const theirs = (await other.administrator.call<{ id: string }>('POST', '/groups', { name: 'Theirs', people: [] })).body.id;
    const group = await makeGroup('Night watch', [clerkId, randomUUID()]);
    expect((await house.administrator.call<Problem>('POST', '/groups', { name: ' night WATCH', people: [] })).body.code).toBe('name-taken');
    expect((await limit([{ groupId: theirs, enters: true }])).status).toBe(404);
    expect((await house.administrator.call('PUT', `/groups/${theirs}`, { name: 'Ours', people: [] })).status).toBe(404);
    const { groups } = await house.administrator.get<BuildView>('/build');
    expect(groups.find(({ id }) => id === group)?.people).toEqual([clerkId]);
  });
});
