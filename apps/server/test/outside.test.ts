// Before a change one is told what it will do, and after it every place says the same: random acts on the sources of a
// chain of fields, counted by every reader of Dellum and by a model of its own.
import type { Answer, Item } from '@dellum/core';
import type { BuildView, CatalogItems, EntryPage, FieldCount, Lineage, Outcome, Slip, SlipQuestion, Upkeep } from '@dellum/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, type Made } from './entrySheet.js';
import { entriesOf, startServer, until, Visitor, type Running } from './house.js';

let running: Running;
/** Asked after each act alone, it composes anew what the other one has brought up to date. */
let another: Running;
beforeAll(async () => {
  [running, another] = [await startServer(), await startServer()];
});
afterAll(() => Promise.all([running.close(), another.close()]));

const quays = ['North', 'South', 'West'];
const berths = ['N1', 'N2', 'S1', 'W1'];

interface Port extends Made {
  /** The list of berths under their quays. */
  readonly table: string;
  /** The administrator at another server. */
  readonly elsewhere: Visitor;
}

/** Quay, berth, draught and day; the berth stands under its quay, is long enough for the ship, and is offered on the day. */
async function openPort(): Promise<Port> {
  const made = await makeEntrySheet(running, [
    ['Quay', 'text'],
    ['Berth', 'text'],
    ['Ship', 'number'],
    ['Day', 'date'],
  ]);
  const { quay, berth } = chain(made.berths, { day: 'day', fitting: [{ companion: 'length', is: 'at least', field: 'ship' }] });
  expect([(await made.rule('quay', quay)).status, (await made.rule('berth', berth)).status]).toEqual([204, 204]);
  const { clerk, administrator } = made.house;
  const rows = quays.flatMap((one) =>
    berths.flatMap((other) =>
      ['50', '100'].map((ship, at) => ({ quay: one, berth: other, ship, day: at === 0 ? '2026-03-01' : '2026-09-01' })),
    ),
  );
  const { body } = await clerk.call<{ entries: string[] }>('POST', `/registers/${made.register.id}/entries`, { count: rows.length });
  // What is not right is stored as it would be after a change: through a rule that accepts anything.
  for (const [key, rule] of [
    ['quay', quay],
    ['berth', berth],
  ] as const)
    await made.rule(key, { ...rule, others: 'accept' });
  for (const field of ['quay', 'berth', 'ship', 'day'] as const)
    await clerk.call('POST', `/registers/${made.register.id}/entries/block`, {
      cells: rows.map((row, at) => ({ entry: body.entries[at]!, field, text: row[field] })),
    });
  for (const [key, rule] of [
    ['quay', quay],
    ['berth', berth],
  ] as const)
    await made.rule(key, rule);
  const build = await administrator.get<BuildView>('/build');
  const elsewhere = new Visitor(another.base, { house: made.house.key, role: 'administrator' });
  return { ...made, elsewhere, table: build.sheets.flatMap(({ registers }) => registers).find(({ title }) => title === 'Berths')!.id };
}

/** What is outside by a model that shares no code with the product: one entry after the other, from what the catalog page shows. */
function outsideBy(
  items: readonly Item[],
  entries: readonly { cells: Readonly<Record<string, string>> }[],
): { quay: number; berth: number; any: number } {
  const quaysNow = new Set(items.filter(({ path }) => path.length === 0).map(({ value }) => value));
  const sums = { quay: 0, berth: 0, any: 0 };
  for (const { cells } of entries) {
    const wrongQuay = cells['quay'] !== undefined && !quaysNow.has(cells['quay']);
    const wrongBerth = cells['berth'] !== undefined && isWrongBerth(items, cells, wrongQuay);
    sums.quay += Number(wrongQuay);
    sums.berth += Number(wrongBerth);
    sums.any += Number(wrongQuay || wrongBerth);
  }
  return sums;
}

function isWrongBerth(items: readonly Item[], { quay, berth, ship, day }: Readonly<Record<string, string>>, wrongQuay: boolean): boolean {
  const anywhere = items.filter(({ value, path }) => path.length === 1 && value === berth);
  if (anywhere.length === 0 || wrongQuay) return anywhere.length === 0;
  const here = anywhere.find(({ path }) => quay === undefined || path[0] === quay);
  const early = here?.validFrom !== undefined && day !== undefined && day < here.validFrom;
  const late = here?.validUntil !== undefined && day !== undefined && day > here.validUntil;
  const short = here?.companions?.['length'] !== undefined && ship !== undefined && Number(here.companions['length']) < Number(ship);
  return !here || early || late || short;
}

/** How many entries are outside in quay or berth. Every reader must say the same. */
async function outsideOf({ house, elsewhere, register, berths: catalogId }: Port): Promise<number> {
  const { administrator } = house;
  const fields = register.fields.filter(({ key }) => key === 'quay' || key === 'berth');
  const [chips, bindings, upkeep, { items }, entries] = await Promise.all([
    administrator.get<FieldCount[]>(`/registers/${register.id}/counts`),
    administrator.get<FieldCount[]>('/bindings'),
    administrator.get<Upkeep>('/upkeep'),
    administrator.get<CatalogItems>(`/catalogs/${catalogId}/items`),
    entriesOf(administrator, register),
  ]);
  const pages = await Promise.all(
    ['*', ...fields.map(({ key }) => key)].map((key) =>
      administrator.get<EntryPage>(`/registers/${register.id}/entries?from=0&count=1&outside=${key}`),
    ),
  );
  expect(await elsewhere.get<CatalogItems>(`/catalogs/${catalogId}/items`)).toEqual(
    await administrator.get<CatalogItems>(`/catalogs/${catalogId}/items`),
  );
  const byKey = (counts: readonly { fieldId: string; outside: number }[]) =>
    Object.fromEntries(fields.map(({ key, id }) => [key, counts.find(({ fieldId }) => fieldId === id)?.outside ?? 0]));
  const { any, ...model } = outsideBy(items, entries);
  expect({
    chips: byKey(chips),
    bindings: byKey(bindings),
    upkeep: byKey(upkeep.outside.map(({ fieldId, entries: outside }) => ({ fieldId, outside }))),
    pages: Object.fromEntries(['any', ...fields.map(({ key }) => key)].map((key, at) => [key, pages[at]!.total])),
  }).toEqual({ chips: model, bindings: model, upkeep: model, pages: { ...model, any } });
  return any;
}

/** What is answered where it can be; else what stands stays right. */
const answers = ['gone', 'corrected', 'stays'] as const;
const answerOf = ({ choices }: SlipQuestion, wanted: (typeof answers)[number]): Answer =>
  choices.find((one) => one === wanted) ?? choices.find((one) => one === 'retired' || one === 'replaced')!;

/** How many entries a slip says would be outside by these answers. */
const announced = ({ questions, outside }: Slip, given: (typeof answers)[number]): number =>
  [...(given === 'gone' ? questions.flatMap(({ holds }) => Object.values(holds)) : []), ...outside.map(({ entries }) => entries)].reduce(
    (sum, entries) => sum + entries,
    0,
  );

const act = fc.oneof(
  fc.record({
    what: fc.constant('write' as const),
    row: fc.nat(9),
    field: fc.constantFrom('quay', 'berth', 'length'),
    text: fc.constantFrom(...quays, ...berths, '40', '90', '200', ''),
  }),
  fc.record({ what: fc.constant('delete' as const), row: fc.nat(9) }),
  fc.record({
    what: fc.constant('insert' as const),
    cells: fc.tuple(fc.constantFrom(...quays), fc.constantFrom(...berths), fc.constantFrom('40', '90', '200')),
  }),
  fc.record({
    what: fc.constant('valid' as const),
    item: fc.nat(9),
    from: fc.constantFrom(null, '2026-02-01', '2026-06-01'),
    until: fc.constantFrom(null, '2026-07-01', '2026-12-01'),
  }),
  fc.record({ what: fc.constant('retire' as const), item: fc.nat(9) }),
  fc.record({ what: fc.constant('filter' as const), least: fc.constantFrom(null, '50', '100') }),
  fc.record({ what: fc.constant('undo' as const) }),
);
type Wanted = typeof act extends fc.Arbitrary<infer A> ? A : never;

/** Waits until all entries have followed what was corrected: before, it cannot be taken back. */
const followed = ({ house, berths: catalogId }: Port) =>
  until(async () => (await house.administrator.get<Lineage>(`/catalogs/${catalogId}/lineage`)).carries.length === 0);

async function doIt(port: Port, wanted: Wanted): Promise<Outcome | undefined> {
  const { administrator } = port.house;
  const post = async (path: string, body: unknown, method = 'POST') => (await administrator.call<Outcome>(method, path, body)).body;
  const rows = (await administrator.get<EntryPage>(`/registers/${port.table}/entries`)).entries;
  const { items } = await administrator.get<CatalogItems>(`/catalogs/${port.berths}/items`);
  const row = 'row' in wanted ? rows[wanted.row % Math.max(1, rows.length)] : undefined;
  const item = 'item' in wanted ? items[wanted.item % Math.max(1, items.length)] : undefined;
  const acts = (one: unknown) => post(`/registers/${port.table}/acts`, { acts: [one] });
  switch (wanted.what) {
    case 'write':
      return row && acts({ act: 'write', cells: [{ entry: row.id, field: wanted.field, text: wanted.text }] });
    case 'delete':
      return row && acts({ act: 'delete', entries: [row.id] });
    case 'insert':
      return acts({ act: 'insert', fields: ['quay', 'berth', 'length'], rows: [wanted.cells] });
    case 'valid':
      return (
        item &&
        post(
          `/catalogs/${port.berths}/items/kept`,
          { value: item.value, path: item.path, otherNames: [], validFrom: wanted.from, validUntil: wanted.until },
          'PUT',
        )
      );
    case 'retire':
      return item && post(`/catalogs/${port.berths}/items/acts`, { act: 'retire', value: item.value, path: item.path });
    case 'filter': {
      const { definition } = (await administrator.get<BuildView>('/build')).catalogs.find(({ id }) => id === port.berths)!;
      return post(
        `/catalogs/${port.berths}/definition`,
        { ...definition, filter: wanted.least && { all: true, conditions: [{ field: 'length', is: 'at least', value: wanted.least }] } },
        'PUT',
      );
    }
    case 'undo':
      await followed(port);
      return post(`/sheets/${port.house.pilots.sheetId}/undo`, {});
  }
}

describe('what entries are told to become', () => {
  it('is said before, and by every reader alike after', { timeout: 120_000 }, async () => {
    const port = await openPort();
    let before = await outsideOf(port);
    await fc.assert(
      fc.asyncProperty(act, fc.constantFrom(...answers), async (wanted, given) => {
        const outcome = await doIt(port, wanted);
        const slip = outcome?.slip;
        // While it waits nothing of it is live.
        if (slip) {
          expect(await outsideOf(port)).toEqual(before);
          const all = slip.questions.map((question) => ({
            catalogId: question.catalogId,
            value: question.value,
            level: question.level,
            ...(question.path && { path: question.path }),
            answer: answerOf(question, given),
          }));
          expect((await port.house.administrator.call('POST', `/slips/${slip.id}/answers`, { answers: all })).status).toBe(200);
        }
        const after = await outsideOf(port);
        expect(after - before).toBeLessThanOrEqual(slip ? announced(slip, given) : 0);
        before = after;
      }),
      { numRuns: 50, endOnFailure: true },
    );
  });

  /** The port with one ship at N1 under North, long enough and on any day. */
  async function oneShip(): Promise<{ port: Port; entry: string; row: string }> {
    const port = await openPort();
    const rows = (await port.house.administrator.get<EntryPage>(`/registers/${port.table}/entries`)).entries;
    const entry = (await entriesOf(port.house.clerk, port.register)).find(
      ({ cells }) => cells['quay'] === 'North' && cells['berth'] === 'N1' && cells['ship'] === '50' && cells['day'] === '2026-03-01',
    )!.id;
    return { port, entry, row: rows.find(({ cells }) => cells['quay'] === 'North' && cells['berth'] === 'N1')!.id };
  }
  const isOutside = async ({ house, register }: Port, entry: string) =>
    (await entriesOf(house.clerk, register, '&outside=berth')).some(({ id }) => id === entry);

  it('asks about a value that moves to another parent; what stood there stays right when it is kept', async () => {
    const { port, entry, row } = await oneShip();
    const { administrator } = port.house;
    const { body } = await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, {
      acts: [{ act: 'write', cells: [{ entry: row, field: 'quay', text: 'South' }] }],
    });
    const [question] = body.slip!.questions;
    expect(question).toMatchObject({ value: 'N1', path: ['North'], under: ['South'], choices: ['retired', 'gone'] });
    expect(Object.values(question!.holds)).toEqual([2]);
    const answered = await administrator.call('POST', `/slips/${body.slip!.id}/answers`, {
      answers: [{ catalogId: port.berths, value: 'N1', path: ['North'], answer: 'retired' }],
    });
    expect([answered.status, await isOutside(port, entry)]).toEqual([200, false]);
    expect((await port.edit(await port.entry({ quay: 'North' }), 'berth', 'N1')).body).toMatchObject({
      code: 'value-refused',
      verdict: 'retired',
    });
  });

  it('says which entries will not fit the value that theirs is corrected to, where that is there already and is another one', async () => {
    const { port, row } = await oneShip();
    const { administrator } = port.house;
    // N1 takes 120, a berth above it 60: ships of 100 stand at N1 and would not at that one.
    await administrator.call('POST', `/registers/${port.table}/acts`, {
      acts: [{ act: 'insert', fields: ['quay', 'berth', 'length'], rows: [['North', 'N0', '60']], before: row }],
    });
    const before = await outsideOf(port);
    const { body } = await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, {
      acts: [{ act: 'write', cells: [{ entry: row, field: 'berth', text: 'N0' }] }],
    });
    const slip = body.slip!;
    expect(slip.questions).toMatchObject([{ value: 'N1', becomes: 'N0', merges: true }]);
    const told = announced(slip, 'corrected');
    const answered = await administrator.call('POST', `/slips/${slip.id}/answers`, {
      answers: [{ catalogId: port.berths, value: 'N1', answer: 'corrected' }],
    });
    expect(answered.status).toBe(200);
    const after = await outsideOf(port);
    expect([told > 0, after - before]).toEqual([true, told]);
  });

  it('keeps what stands below a value that is replaced, and what is kept of a value under a parent that is corrected', async () => {
    const { port, entry, row } = await oneShip();
    const { administrator } = port.house;
    await administrator.call('PUT', `/catalogs/${port.berths}/items/kept`, {
      value: 'N1',
      path: ['North'],
      note: 'By the crane',
      otherNames: ['First'],
    });
    const rename = async (from: string, text: string, answer: Answer) => {
      const { entries } = await administrator.get<EntryPage>(`/registers/${port.table}/entries`);
      const cells = entries.filter(({ cells: held }) => held['quay'] === from).map(({ id }) => ({ entry: id, field: 'quay', text }));
      const { body } = await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, { acts: [{ act: 'write', cells }] });
      expect(body.slip!.questions.map(({ value, becomes }) => [value, becomes])).toEqual([[from, text]]);
      await administrator.call('POST', `/slips/${body.slip!.id}/answers`, {
        answers: [{ catalogId: port.berths, value: from, level: 0, answer }],
      });
      const { items } = await administrator.get<CatalogItems>(`/catalogs/${port.berths}/items`);
      return items;
    };
    const corrected = await rename('North', 'Norths', 'corrected');
    expect(corrected.find(({ value, path }) => value === 'N1' && path[0] === 'Norths')).toMatchObject({
      note: 'By the crane',
      otherNames: ['First'],
      state: 'offered',
    });
    expect([(await port.cells(entry))['quay'], await isOutside(port, entry)]).toEqual(['Norths', false]);
    const replaced = await rename('Norths', 'Far end', 'replaced');
    expect(replaced.find(({ value, path }) => value === 'N1' && path[0] === 'Norths')).toMatchObject({ state: 'retired' });
    expect(await isOutside(port, entry)).toBe(false);
    // A berth corrected under its quay is understood by its old spelling from now on.
    const { body } = await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, {
      acts: [{ act: 'write', cells: [{ entry: row, field: 'berth', text: 'N-1' }] }],
    });
    expect(body.slip?.questions ?? []).toEqual([]);
    const acted = await administrator.call<Outcome>('POST', `/catalogs/${port.berths}/items/acts`, {
      act: 'correct',
      value: 'N-1',
      path: ['Far end'],
      to: 'N 1a',
    });
    expect(acted.body.slip).toBeNull();
    expect((await port.edit(await port.entry({ quay: 'Far end' }), 'berth', 'N-1')).body.verdict).toMatchObject({
      verdict: 'taken',
      value: 'N 1a',
    });
  });

  it('corrects a value in the fields of its own level, where another one bears the same name, and takes that back', async () => {
    const { port, row } = await oneShip();
    const { administrator } = port.house;
    const acts = async (one: unknown) => (await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, { acts: [one] })).body;
    // A berth that is called as its quay is, with two ships at it.
    await acts({ act: 'insert', fields: ['quay', 'berth', 'length'], rows: [['North', 'North', '200']], before: row });
    const ships = [await port.entry({ quay: 'North', berth: 'North' }), await port.entry({ quay: 'North', berth: 'North' })];
    const { entries } = await administrator.get<EntryPage>(`/registers/${port.table}/entries`);
    const cells = entries
      .filter(({ cells: held }) => held['quay'] === 'North')
      .map(({ id }) => ({ entry: id, field: 'quay', text: 'Nord' }));
    const { slip } = await acts({ act: 'write', cells });
    expect(slip!.questions.map(({ value, level, becomes }) => ({ value, level, becomes }))).toEqual([
      { value: 'North', level: 0, becomes: 'Nord' },
    ]);
    const held = async () => Promise.all(ships.map((ship) => port.cells(ship)));
    await administrator.call('POST', `/slips/${slip!.id}/answers`, {
      answers: [{ catalogId: port.berths, value: 'North', level: 0, answer: 'corrected' }],
    });
    await followed(port);
    expect(await held()).toMatchObject([
      { quay: 'Nord', berth: 'North' },
      { quay: 'Nord', berth: 'North' },
    ]);
    const back = await administrator.call<Outcome>('POST', `/sheets/${port.house.pilots.sheetId}/undo`, {});
    expect(back.body.slip!.questions).toMatchObject([{ value: 'Nord', level: 0, becomes: 'North', proposed: 'corrected' }]);
    await administrator.call('POST', `/slips/${back.body.slip!.id}/answers`, {
      answers: [{ catalogId: port.berths, value: 'Nord', level: 0, answer: 'corrected' }],
    });
    await followed(port);
    expect(await held()).toMatchObject([
      { quay: 'North', berth: 'North' },
      { quay: 'North', berth: 'North' },
    ]);
    expect(await Promise.all(ships.map((ship) => isOutside(port, ship)))).toEqual([false, false]);
  });

  it('keeps what is known as retired right when its parent is corrected to one under which something of old is noted', async () => {
    const { port } = await oneShip();
    const { administrator, clerk } = port.house;
    const listed = async () => (await administrator.get<EntryPage>(`/registers/${port.table}/entries`)).entries;
    const act = async (one: unknown, answer: Answer) => {
      const { slip } = (await administrator.call<Outcome>('POST', `/registers/${port.table}/acts`, { acts: [one] })).body;
      if (!slip) return;
      const answers = slip.questions.map(({ value, level, path }) => ({ catalogId: port.berths, value, level, path, answer }));
      expect((await administrator.call('POST', `/slips/${slip.id}/answers`, { answers })).status).toBe(200);
    };
    const without = (quay: string, berth?: string) => async () => ({
      act: 'delete',
      entries: (await listed())
        .filter(({ cells }) => cells['quay'] === quay && (berth ?? cells['berth']) === cells['berth'])
        .map(({ id }) => id),
    });
    // Days are noted of N1 under North, which goes, and with it all of North.
    await administrator.call('PUT', `/catalogs/${port.berths}/items/kept`, {
      value: 'N1',
      path: ['North'],
      otherNames: [],
      validUntil: '2026-12-31',
    });
    await act(await without('North')(), 'gone');
    await act(
      {
        act: 'insert',
        fields: ['quay', 'berth'],
        rows: [
          ['West', 'N1'],
          ['West', 'W1'],
        ],
      },
      'gone',
    );
    await act(await without('West', 'N1')(), 'retired');
    const moored = (await entriesOf(clerk, port.register)).find(({ cells }) => cells['quay'] === 'West' && cells['berth'] === 'N1')!.id;
    expect(await isOutside(port, moored)).toBe(false);
    const [row] = (await listed()).filter(({ cells }) => cells['quay'] === 'West');
    await act({ act: 'write', cells: [{ entry: row!.id, field: 'quay', text: 'North' }] }, 'corrected');
    expect([(await port.cells(moored))['quay'], await isOutside(port, moored)]).toEqual(['North', false]);
    await outsideOf(port);
  });

  it('says how many entries other days of validity turn, and leaves them when one leaves it', async () => {
    const { port, entry } = await oneShip();
    const { administrator } = port.house;
    const keep = () =>
      administrator.call<Outcome>('PUT', `/catalogs/${port.berths}/items/kept`, {
        value: 'N1',
        path: ['North'],
        otherNames: [],
        validFrom: '2026-06-01',
      });
    const { slip } = (await keep()).body;
    expect([slip!.questions, slip!.outside.map(({ entries }) => entries)]).toEqual([[], [1]]);
    expect((await administrator.call('DELETE', `/slips/${slip!.id}`)).status).toBe(204);
    expect(await isOutside(port, entry)).toBe(false);
    const again = (await keep()).body.slip!;
    expect((await administrator.call('POST', `/slips/${again.id}/answers`, { answers: [] })).status).toBe(200);
    expect(await isOutside(port, entry)).toBe(true);
  });
});
