// Requests: a clerk's request reaches whoever keeps the catalog, and every answer reaches the entries. Values that anybody may add.
import type {
  BuildView,
  CatalogItems,
  EntryPage,
  FieldCount,
  Problem,
  OwnRequest,
  RequestAtEntry,
  RequestCount,
  RequestGroup,
} from '@dellum/contract';
import { joinedValues } from '@dellum/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chain, makeEntrySheet, quayAndBerth, ruleDto } from './entrySheet.js';
import { entriesOf, openHouse, startServer, type House, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

/** A house whose Pilot field asks for new values, kept by the steward. */
async function askingHouse(
  others: 'request' | 'add' = 'request',
  visits: readonly Readonly<Record<string, string>>[] = [{ visit: 'V1' }, { visit: 'V2' }, { visit: 'V3' }],
): Promise<House> {
  const house = await openHouse(running, visits);
  await house.administrator.call(
    'PUT',
    `/fields/${house.pilotField.id}/rule`,
    ruleDto({ kind: 'catalog', catalogId: house.catalog.id, others }),
  );
  const people = await house.administrator.get<{ id: string; role: string }[]>('/people');
  await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/stewards`, {
    people: [people.find(({ role }) => role === 'steward')!.id],
  });
  return house;
}
const types = async (house: House, row: number, text: string) => {
  const entry = (await entriesOf(house.clerk, house.visits))[row]!;
  return house.clerk.call<Problem & { verdict: { verdict: string; message: string } }>(
    'PATCH',
    `/registers/${house.visits.id}/entries/${entry.id}`,
    { field: 'pilot', text, version: entry.version },
  );
};
const pilotsOf = async (house: House) => (await entriesOf(house.clerk, house.visits)).map(({ cells }) => cells['pilot']);
const outside = async (house: House) =>
  (await house.clerk.get<FieldCount[]>(`/registers/${house.visits.id}/counts`)).find(({ fieldId }) => fieldId === house.pilotField.id)!
    .outside;
const offered = async (house: House) =>
  (await house.clerk.get<CatalogItems>(`/catalogs/${house.catalog.id}/items`)).items.map(({ value }) => value);
const answer = (house: House, more: Record<string, unknown>, visitor = house.steward) =>
  visitor.call<Problem & { entries: number }>('POST', '/requests/answers', { catalogId: house.catalog.id, path: [], ...more });

describe('a request', () => {
  it('is stored marked, and arrives with like ones together and what may be meant', async () => {
    const house = await askingHouse();
    expect((await types(house, 0, 'Nell Farrow')).body.verdict).toMatchObject({ verdict: 'requested' });
    await types(house, 1, 'Nell Farow');
    await types(house, 2, 'Bryn Callaway');
    expect([await pilotsOf(house), await outside(house)]).toEqual([['Nell Farrow', 'Nell Farow', 'Bryn Callaway'], 3]);
    expect((await house.steward.get<RequestCount>('/requests/count')).waiting).toBe(3);
    const groups = await house.steward.get<RequestGroup[]>('/requests');
    expect(groups.map(({ spellings, proposed, by }) => [spellings.map(({ value }) => value).sort(), proposed, by])).toEqual([
      [['Nell Farow', 'Nell Farrow'], null, ['The clerk']],
      [['Bryn Callaway'], 'Bryn Calloway', ['The clerk']],
    ]);
    const atEntries = await house.reader.get<RequestAtEntry[]>(`/registers/${house.visits.id}/requests`);
    expect(atEntries.map(({ value, state }) => [value, state])).toEqual([
      ['Nell Farrow', 'waiting'],
      ['Nell Farow', 'waiting'],
      ['Bryn Callaway', 'waiting'],
    ]);
    // A request that its entry does not hold any more waits for nothing.
    await types(house, 2, 'Rook Tansy');
    expect((await house.steward.get<RequestCount>('/requests/count')).waiting).toBe(2);
  });

  it('is accepted: written into the source, which grows, remembered in other spellings, and right in every entry', async () => {
    const house = await askingHouse();
    await types(house, 0, 'Nell Farrow');
    await types(house, 1, 'Nell Farow');
    expect((await answer(house, { values: ['Nell Farrow', 'Nell Farow'], answer: 'accepted', to: 'Nell Farrow' })).body.entries).toBe(2);
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell Farrow']);
    expect([await pilotsOf(house), await outside(house)]).toEqual([['Nell Farrow', 'Nell Farrow', undefined], 0]);
    expect((await types(house, 2, 'nell farow')).body.verdict).toMatchObject({ verdict: 'taken', value: 'Nell Farrow' });
    const list = await house.administrator.get<EntryPage>(`/registers/${house.pilots.id}/entries`);
    expect(list.entries.at(-1)!.cells).toEqual({ value: 'Nell Farrow' });
    expect(await house.steward.get<RequestGroup[]>('/requests')).toEqual([]);
  });

  it('is mapped to a value that is there, or declined with a word that stands at the entry', async () => {
    const house = await askingHouse();
    await types(house, 0, 'Calloway');
    await types(house, 1, 'Nobody');
    expect((await answer(house, { values: ['Calloway'], answer: 'mapped', to: 'Bryn Calloway' })).status).toBe(200);
    expect((await types(house, 2, 'calloway')).body.verdict).toMatchObject({ verdict: 'taken', value: 'Bryn Calloway' });
    expect((await answer(house, { values: ['Nobody'], answer: 'declined', word: 'He left in May.' })).status).toBe(200);
    expect([await pilotsOf(house), await outside(house)]).toEqual([['Bryn Calloway', 'Nobody', 'Bryn Calloway'], 1]);
    expect(await house.clerk.get<RequestAtEntry[]>(`/registers/${house.visits.id}/requests`)).toMatchObject([
      { value: 'Nobody', state: 'declined', word: 'He left in May.', by: 'The steward' },
    ]);
    // Whoever asked finds all of it in one place, what was mapped too; nobody else's stand there.
    expect(await house.clerk.get<OwnRequest[]>('/requests/own')).toMatchObject([
      { value: 'Nobody', state: 'declined', word: 'He left in May.' },
      { value: 'Calloway', state: 'mapped', answer: 'Bryn Calloway', registerId: house.visits.id },
    ]);
    expect(await house.administrator.get<OwnRequest[]>('/requests/own')).toEqual([]);
    // A word is kind, and not asked for.
    await types(house, 0, 'Somebody');
    expect((await answer(house, { values: ['Somebody'], answer: 'declined' })).status).toBe(200);
    expect((await house.clerk.get<OwnRequest[]>('/requests/own'))[0]).toMatchObject({ value: 'Somebody', state: 'declined', word: '' });
  });

  it('comes from a pasted block as well, and under the parents of its entry', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    const { quay, berth } = chain(made.berths, { others: 'request' });
    await made.rule('quay', { ...quay, others: 'request' });
    await made.rule('berth', berth);
    const [one, two] = [await made.entry({ quay: 'North' }), await made.entry()];
    const { body } = await made.house.clerk.call<{ outcomes: { verdict: { verdict: string; code?: string } }[] }>(
      'POST',
      `/registers/${made.register.id}/entries/block`,
      {
        cells: [
          { entry: one, field: 'berth', text: 'N7' },
          { entry: two, field: 'berth', text: 'N8' },
        ],
      },
    );
    expect(body.outcomes.map(({ verdict }) => [verdict.verdict, verdict.code])).toEqual([
      ['requested', 'outside'],
      ['refused', 'parent blank'],
    ]);
    const [group] = await made.house.administrator.get<RequestGroup[]>('/requests');
    expect(group).toMatchObject({ path: ['North'], spellings: [{ value: 'N7', entries: 1 }] });
    await made.house.administrator.call('POST', '/requests/answers', {
      catalogId: made.berths,
      path: ['North'],
      values: ['N7'],
      answer: 'accepted',
    });
    expect((await made.edit(two, 'quay', 'North')).status).toBe(200);
    expect((await made.edit(two, 'berth', 'n7')).body.verdict).toMatchObject({ verdict: 'taken', value: 'N7' });
  });

  it('may be one of several values: each new one is asked for, and only it follows the answer', async () => {
    const made = await makeEntrySheet(running, [['gear', 'several values']]);
    const catalog = await made.house.administrator.call<{ id: string }>('POST', '/catalogs', {
      title: 'Gear',
      note: '',
      definition: {
        parts: [{ kind: 'typed', join: 'or', values: ['Mooring', 'Fresh water', 'Waste'] }],
        filter: null,
        distinct: 'value',
        order: { by: 'kept' },
      },
    });
    const services = catalog.body.id;
    await made.rule('gear', { kind: 'catalog', catalogId: services, others: 'request' });
    const entry = await made.entry();
    expect((await made.edit(entry, 'gear', 'mooring; Shore pwr; Divers')).body.verdict).toMatchObject({
      verdict: 'requested',
      newValues: ['Shore pwr', 'Divers'],
      value: joinedValues(['Mooring', 'Shore pwr', 'Divers']),
    });
    expect((await made.edit(entry, 'gear', 'Mooring; Shore pwr; Divers; Waste')).body.verdict).toMatchObject({ verdict: 'marked' });
    const asked = async () =>
      (await made.house.administrator.get<RequestGroup[]>('/requests'))
        .flatMap(({ spellings }) => spellings.map(({ value }) => value))
        .sort();
    expect(await asked()).toEqual(['Divers', 'Shore pwr']);
    const answered = (values: string[], more: Record<string, unknown>) =>
      made.house.administrator.call('POST', '/requests/answers', { catalogId: services, path: [], values, ...more });
    await answered(['Shore pwr'], { answer: 'accepted', to: 'Shore power' });
    await answered(['Divers'], { answer: 'mapped', to: 'Waste' });
    expect((await made.cells(entry))['gear']).toBe(joinedValues(['Mooring', 'Shore power', 'Waste']));
    expect(await asked()).toEqual([]);
    await made.rule('gear', { kind: 'catalog', catalogId: services, others: 'add' });
    expect((await made.edit(entry, 'gear', 'Ice, Waste, Salt')).body.verdict).toMatchObject({
      verdict: 'taken',
      value: joinedValues(['Ice', 'Waste', 'Salt']),
    });
    expect((await made.edit(entry, 'gear', 'Divers, Ice, Mooring; x')).body.verdict).toMatchObject({ verdict: 'taken' });
  });

  it('is answered only by whoever keeps the catalog, and only while it waits', async () => {
    const house = await askingHouse();
    await types(house, 0, 'Nell Farrow');
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/stewards`, { people: [] });
    const others = await answer(house, { values: ['Nell Farrow'], answer: 'accepted' });
    expect([others.status, others.body.code]).toEqual([403, 'not-allowed']);
    expect(await house.steward.get<RequestGroup[]>('/requests')).toEqual([]);
    expect((await answer(house, { values: ['Somebody else'], answer: 'accepted' }, house.administrator)).body.code).toBe('not-found');
    expect((await answer(house, { values: ['Nell Farrow'], answer: 'mapped', to: 'No such pilot' }, house.administrator)).body.code).toBe(
      'not-found',
    );
    expect((await answer(house, { values: ['Nell Farrow'], answer: 'mapped' }, house.administrator)).body.code).toBe('not-valid');
    const [clerk] = (await house.administrator.get<{ id: string; role: string }[]>('/people')).filter(({ role }) => role === 'clerk');
    expect(
      (await house.administrator.call<Problem>('PUT', `/catalogs/${house.catalog.id}/stewards`, { people: [clerk!.id] })).body.code,
    ).toBe('not-found');
  });
});

describe('a steward', () => {
  it('changes the values of the catalogs in care, and nothing else', async () => {
    const house = await askingHouse();
    const keeps = async (id: string) =>
      (await house.steward.call('POST', `/catalogs/${id}/items`, { path: [], value: 'Nell Farrow' })).status;
    expect(await keeps(house.catalog.id)).toBe(200);
    expect(await offered(house)).toContain('Nell Farrow');
    const other = await house.administrator.call<{ id: string }>('POST', '/catalogs', {
      title: 'Others',
      note: '',
      definition: { parts: [{ kind: 'typed', join: 'or', values: ['a'] }], filter: null, distinct: 'value', order: { by: 'kept' } },
    });
    expect(await keeps(other.body.id)).toBe(403);
    // A correction that touches entries asks its own question, and is answered by its own author.
    await types(house, 0, 'Nell Farrow');
    const { body } = await house.steward.call<{ slip: { id: string } }>('POST', `/catalogs/${house.catalog.id}/items/acts`, {
      path: [],
      value: 'Nell Farrow',
      act: 'remove',
    });
    expect(body.slip).not.toBeNull();
    expect((await house.steward.get<unknown[]>('/slips')).length).toBe(1);
    await house.administrator.call('POST', `/catalogs/${house.catalog.id}/items/acts`, { path: [], value: 'Nell Farrow', act: 'retire' });
    expect((await house.steward.call('DELETE', `/slips/${body.slip.id}`)).status).toBe(204);
    const build = await house.steward.get<BuildView>('/build');
    expect([build.ranges, build.sheets.map(({ kind }) => kind)]).toEqual([[], ['entry']]);
  });
});

describe('a value that anybody may add', () => {
  it('is written into the source and taken, once, however it comes', async () => {
    const house = await askingHouse('add');
    expect((await types(house, 0, ' Nell  Farrow')).body.verdict).toMatchObject({ verdict: 'taken', value: 'Nell Farrow' });
    const [, second, third] = await entriesOf(house.clerk, house.visits);
    const block = await house.clerk.call<{ outcomes: { verdict: { verdict: string } }[] }>(
      'POST',
      `/registers/${house.visits.id}/entries/block`,
      {
        cells: [
          { entry: second!.id, field: 'pilot', text: 'Odd Harrow' },
          { entry: third!.id, field: 'pilot', text: 'odd harrow' },
        ],
      },
    );
    expect(block.status).toBe(200);
    expect(await offered(house)).toEqual(['Tam Ossel', 'Bryn Calloway', 'Rook Tansy', 'Nell Farrow', 'Odd Harrow']);
    expect([await pilotsOf(house), await outside(house)]).toEqual([['Nell Farrow', 'Odd Harrow', 'Odd Harrow'], 0]);
    expect((await types(house, 0, 'a\u0000b')).body.code).toBe('value-refused');
  });
  it('takes several new values of one block, wherever their catalog keeps them', async () => {
    const house = await askingHouse('add');
    // Kept among typed values, each addition changes the same definition.
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/definition`, {
      ...house.catalog.definition,
      parts: [{ kind: 'typed', join: 'or', values: ['Tam Ossel'] }],
    });
    const entries = await entriesOf(house.clerk, house.visits);
    const texts = ['Nell Farrow', 'Odd Harrow', 'Wenna Hallet'];
    const block = await house.clerk.call<{ outcomes: { verdict: { verdict: string } }[] }>(
      'POST',
      `/registers/${house.visits.id}/entries/block`,
      { cells: entries.map(({ id }, at) => ({ entry: id, field: 'pilot', text: texts[at] })) },
    );
    expect(block.body.outcomes.map(({ verdict }) => verdict.verdict)).toEqual(['taken', 'taken', 'taken']);
    expect(await offered(house)).toEqual(['Tam Ossel', ...texts]);
  });
  it('is not taken in where the rule does not say under what it belongs', async () => {
    const made = await makeEntrySheet(running, quayAndBerth);
    await made.rule('berth', { kind: 'catalog', catalogId: made.berths, level: 1, others: 'add' });
    const entry = await made.entry();
    expect((await made.edit(entry, 'berth', 'N9')).body).toMatchObject({
      code: 'value-refused',
      detail: expect.stringContaining('under what it would belong'),
    });
  });
  it('says so where the catalog leaves it out all the same', async () => {
    const house = await askingHouse('add');
    const definition = { ...house.catalog.definition, filter: { all: true, conditions: [{ field: 'value', is: 'contains', value: 'a' }] } };
    await house.administrator.call('PUT', `/catalogs/${house.catalog.id}/definition`, definition);
    const { body } = await types(house, 0, 'Nell Crowe');
    expect([body.code, body.detail]).toEqual(['in-use', expect.stringContaining('“Nell Crowe” was added')]);
    expect(await pilotsOf(house)).toEqual([undefined, undefined, undefined]);
  });
  it('is offered by rules over catalogs only', async () => {
    const house = await askingHouse();
    const { body } = await house.administrator.call<Problem>(
      'PUT',
      `/fields/${house.pilotField.id}/rule`,
      ruleDto({ kind: 'typed', values: ['a'], others: 'add' }),
    );
    expect([body.status, body.detail]).toEqual([422, expect.stringContaining('catalog')]);
  });
});
