// Figures against a naive count: grouped, through links, by time, corrected values as one; kept; and the entries behind a group.
import { Exact, stepOf, type FigureDefinition, type FigureGroup, type FigurePath, type Only } from '@dellum/core';
import type { FigureLineView, FigureView, Problem, RegisterView } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running, type Visitor } from './house.js';

let running: Running;
let made: Made;
let ships: RegisterView;
let links: string;
beforeAll(async () => {
  running = await startServer();
  made = await makeEntrySheet(running, [
    ['Ship', 'text'],
    ['Day', 'date'],
    ['Tons', 'number'],
    ['Works', 'several values'],
    ['Status', 'text'],
  ]);
  const { administrator } = made.house;
  // A register of ships, that the Ship field names by their signs.
  const sheet = await administrator.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: 'Ships' });
  const build = async () => administrator.get<{ sheets: { id: string; registers: RegisterView[] }[] }>('/build');
  const registerOf = async () => (await build()).sheets.find(({ id }) => id === sheet.body.id)!.registers[0]!;
  const { id } = await registerOf();
  for (const [heading, kind] of [
    ['Sign', 'text'],
    ['Broker', 'text'],
    ['Length', 'number'],
  ])
    await administrator.call('POST', `/registers/${id}/fields`, { heading, kind });
  ships = await registerOf();
  await fill(administrator, ships, [
    { sign: 'A1', broker: 'Lorne', length: '12' },
    { sign: 'B2', broker: 'Corrow', length: '80.5' },
    { sign: 'C3', length: '40' },
    { sign: 'A1', broker: 'Second' },
  ]);
  const part = { kind: 'query', join: 'or', registerId: ships.id, value: 'sign', label: null, companions: [], filter: null };
  const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', {
    title: 'Ships',
    note: '',
    definition: { parts: [part], filter: null, distinct: 'value', order: { by: 'kept' } },
  });
  links = catalog.body.id;
  const rows = Array.from({ length: 60 }, (_, at) => ({
    ship: ['A1', 'B2', 'C3', 'gone', ''][at % 5]!,
    day: at % 11 === 0 ? '' : `2026-0${1 + (at % 4)}-1${at % 10}`,
    tons: at % 7 === 0 ? '' : String(at / 4),
    works: [['Water'], ['Water', 'Lines'], []][at % 3]!.join('\u001F'),
    status: ['Open', 'Done', 'done '][at % 3]!.trim(),
  }));
  await fill(administrator, made.register, rows);
  await made.rule('ship', { kind: 'catalog', catalogId: links, others: 'accept' } as never);
});
afterAll(() => running.close());

async function fill(visitor: Visitor, register: RegisterView, rows: readonly Readonly<Record<string, string>>[]): Promise<void> {
  const { body } = await visitor.call<{ entries: string[] }>('POST', `/registers/${register.id}/entries`, { count: rows.length });
  const cells = rows.flatMap((row, at) =>
    Object.entries(row).flatMap(([field, text]) =>
      text === '' ? [] : [{ entry: body.entries[at]!, field, text: text.replaceAll('\u001F', ', ') }],
    ),
  );
  expect((await visitor.call('POST', `/registers/${register.id}/entries/block`, { cells })).status).toBe(200);
}

const own = (field: string): FigurePath => ({ field, through: null });
const ofShip = (field: string): FigurePath => ({ field, through: { link: 'ship', registerId: ships.id } });
const figure = (over: Partial<FigureDefinition>): FigureDefinition => ({
  registerId: made.register.id,
  by: [],
  time: null,
  measure: 'count',
  of: null,
  only: [],
  chart: 'bars',
  ...over,
});

async function lines(definition: FigureDefinition, visitor = made.house.reader): Promise<FigureLineView[]> {
  const response = await fetch(`${running.base}/api/v1/figures/counted`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: await visitor.signedIn() },
    body: JSON.stringify(definition),
  });
  expect([response.status, response.headers.get('content-type')]).toEqual([200, expect.stringContaining('application/x-ndjson')]);
  return (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as FigureLineView);
}
async function groupsOf(definition: FigureDefinition): Promise<readonly FigureGroup[]> {
  const last = (await lines(definition)).at(-1)!;
  return 'groups' in last ? last.groups : [];
}

/** The same, counted entry by entry. */
async function naive(house: House, { by, time, of }: FigureDefinition): Promise<Map<string, { entries: number; sum: string | null }>> {
  const signed = new Map<string, Readonly<Record<string, string>>>();
  for (const { cells } of await entriesOf(house.clerk, ships))
    if (cells['sign'] && !signed.has(cells['sign'])) signed.set(cells['sign'], cells);
  const groups = new Map<string, { entries: number; sum: string | null }>();
  for (const { cells } of await entriesOf(house.clerk, made.register)) {
    const held = ({ field, through }: FigurePath): string =>
      (through ? signed.get(cells[through.link] ?? '')?.[field] : cells[field]) ?? '';
    const each = by
      .map((path) => held(path).split('\u001F'))
      .reduce<string[][]>((all, values) => all.flatMap((before) => values.map((value) => [...before, value])), [[]]);
    for (const values of each) {
      const key = [...values, ...(time ? [stepOf(held(time.path), time.step)] : [])].join('|');
      const before = groups.get(key) ?? { entries: 0, sum: null };
      const number = of ? held(of) : '';
      groups.set(key, {
        entries: before.entries + 1,
        sum: number === '' ? before.sum : new Exact(before.sum ?? '0').plus(number).toFixed(),
      });
    }
  }
  return groups;
}

describe('counting', () => {
  it.each([
    ['by one field', () => figure({ by: [own('status')] })],
    ['by several values, each by itself', () => figure({ by: [own('works')], measure: 'sum', of: own('tons') })],
    [
      'by two fields and month',
      () => figure({ by: [own('status'), own('ship')], time: { path: own('day'), step: 'month' }, measure: 'sum', of: own('tons') }),
    ],
    ['through a link', () => figure({ by: [ofShip('broker')], measure: 'sum', of: own('tons') })],
    ['what lies behind a link', () => figure({ by: [own('status'), ofShip('broker')], measure: 'sum', of: ofShip('length') })],
    ['by week alone', () => figure({ time: { path: own('day'), step: 'week' } })],
    ['everything at once', () => figure({})],
  ] as const)('%s gives what counting entry by entry gives', async (_what, definition) => {
    const groups = await groupsOf(definition());
    const wanted = await naive(made.house, definition());
    expect(
      new Map(groups.map(({ values, time, entries, sum }) => [[...values, ...(time === null ? [] : [time])].join('|'), { entries, sum }])),
    ).toEqual(wanted);
  });

  it('counts only what is wanted, says how far it is, and counts a corrected value as one from the first moment', async () => {
    const only: Only[] = [{ only: 'values', field: 'status', values: ['Open'] }];
    expect((await groupsOf(figure({ by: [own('status')], only }))).map(({ values, entries }) => [values, entries])).toEqual([
      [['Open'], 20],
    ]);
    expect((await lines(figure({ by: [own('status')] })))[0]).toEqual({ done: 60, total: 60 });
  });

  it('loses nothing when the register is counted in parts, some of them at once', async () => {
    const house = await openHouse(
      running,
      Array.from({ length: 40 }, (_, at) => ({ visit: `V${at}`, pilot: ['Tam Ossel', 'Rook Tansy'][at % 2]! })),
    );
    // Every ten entries are said to be as many as a part holds.
    const { kysely } = running.database;
    const positions = (
      await sql<{ pos: string }>`select pos::text as pos from entries where register_id = ${house.visits.id} order by pos`.execute(kysely)
    ).rows.filter((_, at) => at % 10 === 0);
    await kysely.deleteFrom('chunks').where('register_id', '=', house.visits.id).execute();
    const { house_id } = await kysely
      .selectFrom('registers')
      .select('house_id')
      .where('id', '=', house.visits.id)
      .executeTakeFirstOrThrow();
    await kysely
      .insertInto('chunks')
      .values(positions.map(({ pos }) => ({ house_id, register_id: house.visits.id, from_pos: pos, entries: 200_000 })))
      .execute();
    const said = await lines(figure({ registerId: house.visits.id, by: [own('pilot')] }), house.reader);
    expect(said.slice(0, -1)).toEqual([1, 2, 3, 4].map((part) => ({ done: part * 200_000, total: 800_000 })));
    const last = said.at(-1)!;
    expect('groups' in last && last.groups.map(({ values, entries }) => [values[0], entries]).sort()).toEqual([
      ['Rook Tansy', 20],
      ['Tam Ossel', 20],
    ]);
  });

  it('counts a corrected value as one from the first moment, whatever rows have followed', async () => {
    const house = await openHouse(
      running,
      Array.from({ length: 40 }, (_, at) => ({ visit: `V${at}`, pilot: ['Tam Ossel', 'Rook Tansy'][at % 2]! })),
    );
    const corrected = await house.administrator.call<{ slip: { id: string; questions: { value: string }[] } | null }>(
      'POST',
      `/catalogs/${house.catalog.id}/items/acts`,
      { path: [], value: 'Tam Ossel', act: 'correct', to: 'Tam Ossell' },
    );
    const { slip } = corrected.body;
    await house.administrator.call('POST', `/slips/${slip!.id}/answers`, {
      answers: slip!.questions.map(({ value }) => ({ catalogId: house.catalog.id, value, answer: 'corrected' })),
    });
    const byPilot = figure({ registerId: house.visits.id, by: [own('pilot')] });
    const last = (await lines(byPilot, house.reader)).at(-1)!;
    expect('groups' in last && last.groups.map(({ values, entries }) => [values[0], entries]).sort()).toEqual([
      ['Rook Tansy', 20],
      ['Tam Ossell', 20],
    ]);
  });

  it('leads back to the entries of each group', async () => {
    const definition = figure({ by: [ofShip('broker'), own('status')], time: { path: own('day'), step: 'month' } });
    for (const { values, time, entries } of await groupsOf(definition)) {
      const { body } = await made.house.reader.call<{ only: Only[] }>('POST', '/figures/entries', { definition, values, time });
      const found = await made.house.reader.call<{ total: number }>('POST', `/registers/${made.register.id}/records`, {
        only: body.only,
        sort: [],
        from: 0,
        count: 50,
      });
      expect([values, time, found.body.total]).toEqual([values, time, entries]);
    }
  });
});

describe('a figure', () => {
  const refused = async (definition: FigureDefinition) =>
    (await made.house.clerk.call<Problem>('POST', '/figures/counted', definition)).body;

  it('is refused where its fields are not there, are no numbers or days, or the link goes elsewhere', async () => {
    expect((await refused(figure({ by: [own('nothing')] }))).detail).toContain('has no field “nothing”');
    expect((await refused(figure({ time: { path: own('status'), step: 'day' } }))).faults).toEqual({ time: 'Choose a field of dates.' });
    expect((await refused(figure({ measure: 'sum', of: own('status') }))).faults).toEqual({ of: 'Choose a field of numbers.' });
    expect((await refused(figure({ measure: 'sum' }))).faults).toEqual({ of: 'Choose a field of numbers.' });
    expect(
      (await refused(figure({ by: [{ field: 'status', through: { link: 'ship', registerId: made.register.id } }] }))).detail,
    ).toContain('does not name entries of');
    expect((await refused(figure({ by: [{ field: 'value', through: { link: 'ship', registerId: made.house.pilots.id } }] }))).code).toBe(
      'not-found',
    );
    expect((await refused(figure({ by: [own('status'), own('ship'), own('day')] }))).code).toBe('not-valid');
    expect((await refused(figure({ registerId: made.house.pilots.id }))).code).toBe('not-found');
  });

  it('is kept under a name by whoever made it, seen by everybody, and changed by its author or an administrator', async () => {
    const { clerk, administrator, reader, steward } = made.house;
    const kept = await clerk.call<{ id: string }>('POST', '/figures', {
      title: ' Tons by  broker',
      definition: figure({ by: [ofShip('broker')], measure: 'sum', of: own('tons') }),
    });
    expect(kept.status).toBe(201);
    expect((await reader.get<FigureView[]>('/figures')).map(({ title, by, mine }) => [title, by, mine])).toEqual([
      ['Tons by broker', 'The clerk', false],
    ]);
    expect((await administrator.call<Problem>('POST', '/figures', { title: 'tons by broker', definition: figure({}) })).body.code).toBe(
      'name-taken',
    );
    expect((await steward.call<Problem>('PUT', `/figures/${kept.body.id}`, { title: 'Mine', definition: figure({}) })).body.code).toBe(
      'not-allowed',
    );
    expect(
      (await administrator.call('PUT', `/figures/${kept.body.id}`, { title: 'Tons', definition: figure({ by: [own('ship')] }) })).status,
    ).toBe(200);
    expect((await steward.call<Problem>('DELETE', `/figures/${kept.body.id}`)).body.code).toBe('not-allowed');
    expect((await clerk.call('DELETE', `/figures/${kept.body.id}`)).status).toBe(204);
    expect(await reader.get<FigureView[]>('/figures')).toEqual([]);
  });

  it('stays when a field that it looks at has gone, and says what to do', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const definition = figure({
      registerId: house.visits.id,
      by: [own('visit')],
      only: [{ only: 'values', field: 'visit', values: ['V1'] }],
    });
    await house.administrator.call('POST', '/figures', { title: 'Visits', definition });
    const visit = house.visits.fields.find(({ key }) => key === 'visit')!;
    expect((await house.administrator.call('DELETE', `/fields/${visit.id}`)).status).toBe(200);
    expect((await house.reader.get<FigureView[]>('/figures')).map(({ title }) => title)).toEqual(['Visits']);
    expect((await house.reader.call<Problem>('POST', '/figures/counted', definition)).body.detail).toContain(
      'has no field “visit” any more',
    );
  });

  it('stops when nobody waits for it', async () => {
    const stop = new AbortController();
    const counting = fetch(`${running.base}/api/v1/figures/counted`, {
      method: 'POST',
      signal: stop.signal,
      headers: { 'content-type': 'application/json', cookie: await made.house.clerk.signedIn() },
      body: JSON.stringify(figure({ by: [own('ship')] })),
    }).then((response) => response.text());
    stop.abort();
    await expect(counting).rejects.toThrow();
    expect((await groupsOf(figure({}))).map(({ entries }) => entries)).toEqual([60]);
  });
});
