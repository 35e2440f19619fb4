// Records: looked for, opened with their links both ways, and their history, of which the last change is taken back.
import type {
  BuildView,
  EditOutcome,
  EntryChange,
  EntryPage,
  EntryView,
  FieldCount,
  Outcome,
  Problem,
  ProposedFieldView,
  RecordView,
} from '@dellum/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const looking = { search: '', sort: [], only: [], from: 0, count: 100 };
const search = (house: House, query: Record<string, unknown>, visitor = house.clerk) =>
  visitor.call<EntryPage & Problem>('POST', `/registers/${house.visits.id}/records`, { ...looking, ...query });
const found = async (house: House, query: Record<string, unknown>) =>
  (await search(house, query)).body.entries.map(({ cells }) => cells['visit']);
const recordOf = (house: House, entry: string, register = house.visits.id) =>
  house.clerk.get<RecordView>(`/registers/${register}/records/${entry}`);
const historyOf = (house: House, entry: string) => house.clerk.get<EntryChange[]>(`/registers/${house.visits.id}/records/${entry}/history`);
const edit = (house: House, entry: EntryView, field: string, text: string, visitor = house.clerk) =>
  visitor.call<EditOutcome>('PATCH', `/registers/${house.visits.id}/entries/${entry.id}`, { field, text, version: entry.version });
const back = (house: House, entry: string, { id, field }: Pick<EntryChange, 'id' | 'field'>, visitor = house.clerk) =>
  visitor.call<EntryView & Problem>('POST', `/registers/${house.visits.id}/records/${entry}/history/${id}/back`, { field });

/** Crew of the visits: a register whose field Visit names an entry of the other one. */
async function linked(house: House) {
  const { administrator } = house;
  const definition = {
    parts: [{ kind: 'query', join: 'or', registerId: house.visits.id, value: 'visit', label: 'pilot', companions: [], filter: null }],
    filter: null,
    distinct: 'value',
    order: { by: 'kept' },
  };
  const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', { title: 'Visits', note: '', definition });
  const sheet = await administrator.call<{ id: string }>('POST', '/sheets', { kind: 'entry', title: 'Crew' });
  const register = async () => (await administrator.get<BuildView>('/build')).sheets.find(({ id }) => id === sheet.body.id)!.registers[0]!;
  for (const heading of ['Name', 'Visit'])
    await administrator.call('POST', `/registers/${(await register()).id}/fields`, { heading, kind: 'text' });
  const crew = await register();
  const field = crew.fields.find(({ key }) => key === 'visit')!;
  expect(
    (await administrator.call('PUT', `/fields/${field.id}/rule`, ruleDto({ kind: 'catalog', catalogId: catalog.body.id }))).status,
  ).toBe(204);
  const made = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${crew.id}/entries`, { count: 3 });
  const cells = made.body.entries.flatMap((entry, at) => [
    { entry, field: 'name', text: `Person ${at}` },
    { entry, field: 'visit', text: at < 2 ? 'V1' : 'V2' },
  ]);
  await house.clerk.call('POST', `/registers/${crew.id}/entries/block`, { cells });
  return { crew, field, people: made.body.entries };
}

describe('records', () => {
  it('are found where every word stands somewhere, as a naive look finds them', async () => {
    const words = ['Tam', 'ossel', 'V1', 'calloway', '9'];
    const visits = Array.from({ length: 30 }, (_, at) => ({
      visit: `V${at}`,
      ...(at % 3 > 0 && { pilot: at % 3 === 1 ? 'Tam Ossel' : 'Bryn Calloway' }),
    }));
    const house = await openHouse(running, visits);
    await fc.assert(
      fc.asyncProperty(fc.uniqueArray(fc.constantFrom(...words), { maxLength: 3 }), async (sought) => {
        const naive = visits
          .filter((cells) => sought.every((word) => Object.values(cells).some((text) => text.toLowerCase().includes(word.toLowerCase()))))
          .map(({ visit }) => visit);
        expect(await found(house, { search: sought.join('  ') })).toEqual(naive);
      }),
      { numRuns: 15 },
    );
  });
  it('are found by what is shown instead of a value, narrowed by values and blanks, ordered, and paged', async () => {
    const house = await openHouse(running, [
      { visit: 'V1', pilot: 'Tam Ossel', arrival: '2026-03-02' },
      { visit: 'V2' },
      { visit: 'V3', pilot: 'Tam Ossel', arrival: '2026-01-01' },
      { visit: 'V10', pilot: 'Rook Tansy' },
    ]);
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/items/kept`, {
      path: [],
      value: 'Rook Tansy',
      label: 'R. Tansy of the Mole',
      otherNames: [],
    });
    expect(await found(house, { search: 'mole' })).toEqual(['V10']);
    expect(
      await found(house, {
        only: [{ only: 'values', field: 'pilot', values: ['Tam Ossel'] }],
        sort: [{ field: 'arrival', direction: 'up' }],
      }),
    ).toEqual(['V3', 'V1']);
    expect(await found(house, { only: [{ only: 'values', field: 'pilot', values: [''] }] })).toEqual(['V2']);
    expect(await found(house, { sort: [{ field: 'visit', direction: 'down' }] })).toEqual(['V10', 'V3', 'V2', 'V1']);
    const second = await search(house, { from: 2, count: 1 });
    expect([second.body.total, second.body.entries.map(({ cells }) => cells['visit'])]).toEqual([4, ['V3']]);
    expect((await search(house, { sort: [{ field: 'nowhere', direction: 'up' }] })).body.code).toBe('not-found');
    expect((await search(house, { count: 100_000 })).body.code).toBe('not-valid');
    expect((await house.clerk.call('POST', `/registers/${house.pilots.id}/records`, looking)).status).toBe(404);
  });
  it('show what they name and what names them', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }, { visit: 'V2' }, { visit: 'V3' }]);
    const { crew, field, people } = await linked(house);
    const [first, , third] = await entriesOf(house.clerk, house.visits);
    expect((await recordOf(house, people[0]!, crew.id)).out).toEqual([{ field: 'visit', registerId: house.visits.id, entryId: first!.id }]);
    // A catalog of two registers leads to the one in which the value stands.
    const { catalogs } = await house.administrator.get<BuildView>('/build');
    const { id, definition } = catalogs.find(({ title }) => title === 'Visits')!;
    const both = {
      ...definition,
      parts: [
        ...definition.parts,
        { kind: 'query', join: 'or', registerId: crew.id, value: 'name', label: null, companions: [], filter: null },
      ],
    };
    expect((await house.administrator.call('PUT', `/catalogs/${id}/definition`, both)).status).toBe(200);
    expect((await recordOf(house, people[0]!, crew.id)).out).toEqual([{ field: 'visit', registerId: house.visits.id, entryId: first!.id }]);
    const { here } = await recordOf(house, first!.id);
    expect(here).toMatchObject([{ registerId: crew.id, fieldId: field.id, total: 2 }]);
    expect(here[0]!.entries.map(({ cells }) => cells['name'])).toEqual(['Person 0', 'Person 1']);
    expect((await recordOf(house, third!.id)).here).toEqual([]);
    // A record that others name is not deleted without asking.
    const gone = await house.clerk.call('POST', `/registers/${house.visits.id}/entries/delete`, { entries: [first!.id] });
    expect([gone.body.code, gone.body.detail]).toEqual([
      'slip-open',
      expect.stringContaining('2 entries hold “V1” because of this value.'),
    ]);
  });
});

it('looks for twenty words at most, and goes on whoever asks however much at once', async () => {
  const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
  const words = (count: number) => Array.from({ length: count }, () => 'v').join(' ');
  expect((await search(house, { search: words(20) })).body.total).toBe(1);
  expect((await search(house, { search: words(21) })).body.faults).toEqual({ search: 'These are too many words.' });
  const many = await Promise.all(Array.from({ length: 30 }, () => search(house, { search: 'ossel' })));
  expect(new Set(many.map(({ status, body }) => `${status} ${body.total}`))).toEqual(new Set(['200 1']));
});

describe('the history of a record', () => {
  it('says who changed what from what to what; the last change of a field is taken back, an older one is not', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const now = async () => (await entriesOf(house.clerk, house.visits))[0]!;
    await edit(house, await now(), 'pilot', 'Bryn Calloway');
    await edit(house, await now(), 'visit', 'V1b', house.administrator);
    await edit(house, await now(), 'pilot', 'Rook Tansy', house.administrator);
    const { id } = await now();
    const changes = await historyOf(house, id);
    expect(changes.map(({ by, field, from, to, standing }) => [by, field, from, to, standing])).toEqual([
      ['The administrator', 'pilot', 'Bryn Calloway', 'Rook Tansy', true],
      ['The administrator', 'visit', 'V1', 'V1b', true],
      ['The clerk', 'pilot', 'Tam Ossel', 'Bryn Calloway', false],
    ]);
    expect((await back(house, id, changes[2]!)).body.code).toBe('cell-changed');
    expect((await back(house, id, changes[0]!, house.reader)).status).toBe(403);
    expect((await back(house, id, changes[0]!)).body.cells).toEqual({ visit: 'V1b', pilot: 'Bryn Calloway' });
    expect((await back(house, id, changes[0]!)).body.code).toBe('cell-changed');
    expect((await historyOf(house, id))[0]).toMatchObject({
      by: 'The clerk',
      field: 'pilot',
      from: 'Rook Tansy',
      to: 'Bryn Calloway',
      standing: true,
    });
    expect((await back(house, id, { id: 999_999_999, field: 'pilot' })).body.code).toBe('not-found');
    expect((await back(house, id, { ...changes[0]!, field: null })).body.code).toBe('not-valid');
  });
  it('tells each field that one act wrote, and takes back one of them without the others', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }]);
    const [{ id }] = (await entriesOf(house.clerk, house.visits)) as [EntryView];
    const pasted = [
      { entry: id, field: 'visit', text: 'V7' },
      { entry: id, field: 'pilot', text: 'Rook Tansy' },
    ];
    expect((await house.clerk.call('POST', `/registers/${house.visits.id}/entries/block`, { cells: pasted })).status).toBe(200);
    const changes = await historyOf(house, id);
    expect(changes.map(({ field, from, to, standing }) => [field, from, to, standing])).toEqual([
      ['visit', 'V1', 'V7', true],
      ['pilot', 'Tam Ossel', 'Rook Tansy', true],
    ]);
    expect(changes[0]!.id).toBe(changes[1]!.id);
    expect((await back(house, id, { ...changes[0]!, field: 'day' })).body.code).toBe('not-found');
    expect((await back(house, id, changes[0]!)).body.cells).toEqual({ visit: 'V1', pilot: 'Rook Tansy' });
    expect((await back(house, id, changes[0]!)).body.code).toBe('cell-changed');
    expect((await back(house, id, changes[1]!)).body.cells).toEqual({ visit: 'V1', pilot: 'Tam Ossel' });
    // Whoever saw the entry before is told which of its fields was changed by whom.
    const late = { field: 'pilot', text: 'Bryn Calloway', version: 1 };
    const told = await house.administrator.call<Problem>('PATCH', `/registers/${house.visits.id}/entries/${id}`, late);
    expect([told.status, told.body.code]).toEqual([409, 'cell-changed']);
  });
  it('tells a correction that reached the record, and who decided it; an older change of the field is not taken back over it', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Bryn Calloway' }]);
    const [entry] = await entriesOf(house.clerk, house.visits);
    await edit(house, entry!, 'pilot', 'Tam Ossel');
    const { body } = await house.administrator.call<Outcome>('POST', `/catalogs/${house.catalog.id}/items/acts`, {
      path: [],
      value: 'Tam Ossel',
      act: 'correct',
      to: 'Tamsin Ossel',
    });
    const answers = body.slip!.questions.map(({ catalogId, value }) => ({ catalogId, value, answer: 'corrected' }));
    await house.administrator.call('POST', `/slips/${body.slip!.id}/answers`, { answers });
    await expect
      .poll(async () => (await historyOf(house, entry!.id)).map(({ by, act, from, to, standing }) => [by, act, from, to, standing]))
      .toEqual([
        ['The administrator', 'followed', 'Tam Ossel', 'Tamsin Ossel', false],
        ['The clerk', 'written', 'Bryn Calloway', 'Tam Ossel', false],
      ]);
    const [, written] = await historyOf(house, entry!.id);
    expect((await back(house, entry!.id, written!)).body.code).toBe('cell-changed');
  });
  it('takes back a value that is no longer offered, and what is a value elsewhere as a change of its source', async () => {
    const house = await openHouse(running, [{ visit: 'V1', pilot: 'Tam Ossel' }, { visit: 'V2' }]);
    const { crew } = await linked(house);
    const [first, second] = await entriesOf(house.clerk, house.visits);
    await edit(house, first!, 'pilot', 'Rook Tansy');
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items/acts`, { path: [], value: 'Tam Ossel', act: 'retire' });
    const [change] = await historyOf(house, first!.id);
    expect((await back(house, first!.id, change!)).body.cells).toEqual({ visit: 'V1', pilot: 'Tam Ossel' });
    expect((await recordOf(house, first!.id)).entry.cells['pilot']).toBe('Tam Ossel');
    // Two who change one field of what is a value elsewhere: the second is told, as anywhere.
    const [, seen] = await entriesOf(house.clerk, house.visits);
    expect((await edit(house, seen!, 'pilot', 'Bryn Calloway', house.administrator)).status).toBe(200);
    expect((await edit(house, seen!, 'pilot', 'Rook Tansy')).status).toBe(409);
    // Its deletion leaves a trace; who never was has none.
    const free = await house.clerk.call<{ entries: string[] }>('POST', `/registers/${crew.id}/entries`, { count: 1 });
    await house.clerk.call('POST', `/registers/${crew.id}/entries/delete`, { entries: free.body.entries });
    expect(
      (await house.clerk.get<EntryChange[]>(`/registers/${crew.id}/records/${free.body.entries[0]!}/history`)).map(({ act }) => act),
    ).toEqual(['deleted', 'made']);
    expect((await house.clerk.call('GET', `/registers/${crew.id}/records/${second!.id}/history`)).status).toBe(404);
    expect((await house.clerk.call('GET', `/registers/${crew.id}/records/${second!.id}`)).status).toBe(404);
  });
});

describe('the fields of a record', () => {
  it('are given a heading and a group by administrators, each by itself', async () => {
    const house = await openHouse(running, []);
    const change = async (body: Record<string, unknown>, visitor = house.administrator) =>
      visitor.call<Problem>('PATCH', `/fields/${house.pilotField.id}`, body);
    const field = async () =>
      (await house.reader.get<BuildView>('/build')).sheets
        .flatMap(({ registers }) => registers.flatMap(({ fields }) => fields))
        .find(({ id }) => id === house.pilotField.id)!;
    expect((await change({ group: '  On   board ' })).status).toBe(200);
    expect((await change({ title: 'Pilot on board' })).status).toBe(200);
    expect(await field()).toMatchObject({ heading: 'Pilot on board', group: 'On board' });
    expect((await change({ group: ' ' })).status).toBe(200);
    expect((await field()).group).toBe('');
    expect((await change({ group: 'x'.repeat(81) })).body.code).toBe('not-valid');
    expect((await change({ title: ' ' })).body.code).toBe('name-unfit');
    expect((await change({ group: 'Mine' }, house.clerk)).body.code).toBe('not-allowed');
  });
});

describe('a sheet of a pasted table', () => {
  const table = [
    ['Ship', 'Pilot', 'Arrival', 'Share', 'Berth'],
    ['Tern', 'tam ossel', '24.11.2026', '7.5 %', '007'],
    ['Gull', 'Rook Tansy', '25.11.2026', '20%', '012'],
    ['Wren', 'Nobody', '', '', ''],
  ];

  it('is proposed by what stands in it, and made with its rows, bound where a catalog has most of its values', async () => {
    const house = await openHouse(running, []);
    const propose = async (rows: unknown) =>
      house.administrator.call<ProposedFieldView[] & Problem>('POST', '/sheets/from-rows/proposals', { rows });
    const { body: proposed } = await propose(table);
    expect(proposed.map(({ heading, kind, catalogId }) => [heading, kind, catalogId === house.catalog.id])).toEqual([
      ['Ship', 'text', false],
      ['Pilot', 'text', true],
      ['Arrival', 'date', false],
      ['Share', 'percent', false],
      ['Berth', 'text', false],
    ]);
    const fields = proposed.map(({ heading, kind, catalogId }) => ({ heading, kind, ...(catalogId && { catalogId }) }));
    const make = (over: Record<string, unknown> = {}) =>
      house.administrator.call<{ id: string } & Problem>('POST', '/sheets/from-rows', {
        title: 'Arrivals',
        note: '',
        fields,
        rows: table.slice(1),
        ...over,
      });
    const made = await make();
    expect(made.status).toBe(201);
    const register = (await house.administrator.get<BuildView>('/build')).sheets.find(({ id }) => id === made.body.id)!.registers[0]!;
    expect((await entriesOf(house.clerk, register)).map(({ cells }) => cells)).toEqual([
      { ship: 'Tern', pilot: 'Tam Ossel', arrival: '2026-11-24', share: '0.075', berth: '007' },
      { ship: 'Gull', pilot: 'Rook Tansy', arrival: '2026-11-25', share: '0.2', berth: '012' },
      { ship: 'Wren', pilot: 'Nobody' },
    ]);
    const counts = await house.clerk.get<FieldCount[]>(`/registers/${register.id}/counts`);
    expect(counts.find(({ fieldId }) => fieldId === register.fields[1]!.id)).toMatchObject({ held: 3, outside: 1 });
    expect((await make()).body.code).toBe('name-taken');
    expect((await make({ title: 'Other', fields: [fields[0], fields[0]] })).body.code).toBe('name-taken');
    expect((await make({ title: 'Other', fields: [{ ...fields[0], catalogId: house.visits.id }] })).body.code).toBe('not-found');
    expect((await make({ title: 'Other', rows: [['a\u0000b']] })).body.detail).toContain('cannot be stored');
    expect((await make({ title: 'Other', fields: [] })).body.code).toBe('not-valid');
    expect((await propose([['a'], 'b'])).body.code).toBe('not-valid');
  });
});
