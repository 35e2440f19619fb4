// Fields of several values: each value is counted, found, followed and judged by itself.
import { asKept, joinedValues } from '@dellum/core';
import { CountsStore, Database } from '@dellum/server';
import type { ArrangementView, CatalogItems, EntryPage, FieldCount, Lineage, Outcome } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, until, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

/** A sheet whose crew is chosen from a typed catalog of four, with these crews. */
async function crews(...texts: readonly string[]): Promise<{ made: Made; entries: string[]; catalog: string }> {
  const made = await makeEntrySheet(running, [['Crew', 'several values']]);
  const definition = {
    parts: [{ kind: 'typed', join: 'or', values: ['Ann', 'Bo', 'Cy', 'Di'] }],
    filter: null,
    distinct: 'value',
    order: { by: 'kept' },
  };
  const catalog = (await made.house.administrator.call<{ id: string }>('POST', '/catalogs', { title: 'Crew', note: '', definition })).body
    .id;
  await made.rule('crew', { kind: 'catalog', catalogId: catalog });
  const entries: string[] = [];
  for (const text of texts) entries.push(await made.entry({ crew: text }));
  return { made, entries, catalog };
}
const held = async (made: Made) => {
  const page = await made.house.clerk.get<EntryPage>(`/registers/${made.register.id}/entries`);
  return page.entries.map(({ cells }) => cells['crew']?.split('\u001F'));
};
async function countsAreTrue(made: Made): Promise<Map<string, number>> {
  const database = new Database(running.database.url, 1);
  const counts = new CountsStore(database);
  const [{ id, key } = { id: '', key: '' }] = made.register.fields;
  const kept = (await counts.ofFields(database.kysely, made.house.id, [id])).get(id)!;
  expect(kept).toEqual(await counts.recount(database.kysely, made.house.id, made.register.id, key));
  await database.kysely.destroy();
  return kept;
}

describe('several values', () => {
  it('are stored each once in their order, counted by themselves, and refused together when one is wrong', async () => {
    const { made, entries } = await crews('bo, Ann; Bo', 'Cy');
    expect(await held(made)).toEqual([['Bo', 'Ann'], ['Cy']]);
    expect((await made.edit(entries[1]!, 'crew', 'Cy, Ed')).body).toMatchObject({ code: 'value-refused', verdict: 'outside' });
    expect(await countsAreTrue(made)).toEqual(
      new Map([
        ['Ann', 1],
        ['Bo', 1],
        ['Cy', 1],
      ]),
    );
    expect(await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`)).toMatchObject([{ held: 2, outside: 0 }]);
  });

  it('are found and shown by any one of them, and outside when any one is', async () => {
    const { made, catalog } = await crews('Ann, Bo', 'Cy', 'Bo, Di');
    const { clerk, administrator } = made.house;
    const page = await clerk.get<EntryPage>(`/registers/${made.register.id}/entries?field=crew&value=Bo`);
    expect(page.total).toBe(2);
    const { body } = await clerk.call<ArrangementView>('PUT', `/registers/${made.register.id}/arrangement`, {
      ...asKept,
      only: [{ only: 'values', field: 'crew', values: ['Di', 'Cy'] }],
    });
    expect((await clerk.get<EntryPage>(`/registers/${made.register.id}/entries?arranged=${body.version}`)).total).toBe(2);
    // Removed in the source, the value waits for an answer; gone, its entries are outside.
    const removed = await administrator.call<Outcome>('POST', `/catalogs/${catalog}/items/acts`, { path: [], value: 'Di', act: 'remove' });
    const [question] = removed.body.slip!.questions;
    expect(Object.values(question!.holds)).toEqual([1]);
    await administrator.call('POST', `/slips/${removed.body.slip!.id}/answers`, {
      answers: [{ catalogId: catalog, value: 'Di', answer: 'gone' }],
    });
    expect((await clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`))[0]!.outside).toBe(1);
    expect(
      (await clerk.get<EntryPage>(`/registers/${made.register.id}/entries?outside=crew`)).entries.map(({ cells }) => cells['crew']),
    ).toEqual([joinedValues(['Bo', 'Di'])]);
  });

  it('follow a correction and a merge in their place, and never hold one value twice', async () => {
    const { made, catalog } = await crews('Ann, Bo', 'Bo, Cy, Ann', 'Bo');
    const { administrator } = made.house;
    const act = async (more: Record<string, unknown>) => {
      const { body } = await administrator.call<Outcome>('POST', `/catalogs/${catalog}/items/acts`, { path: [], value: 'Bo', ...more });
      if (body.slip)
        await administrator.call('POST', `/slips/${body.slip.id}/answers`, {
          answers: body.slip.questions.map(({ value }) => ({ catalogId: catalog, value, answer: 'corrected' })),
        });
      await until(async () => (await administrator.get<Lineage>(`/catalogs/${catalog}/lineage`)).carries.length === 0);
    };
    await act({ act: 'merge', to: 'Ann' });
    expect(await held(made)).toEqual([['Ann'], ['Cy', 'Ann'], ['Ann']]);
    expect(await countsAreTrue(made)).toEqual(
      new Map([
        ['Ann', 3],
        ['Cy', 1],
      ]),
    );
    await act({ value: 'Cy', act: 'correct', to: 'Cyd' });
    expect((await held(made))[1]).toEqual(['Cyd', 'Ann']);
    const { items } = await administrator.get<CatalogItems>(`/catalogs/${catalog}/items`);
    expect(items.find(({ value }) => value === 'Cyd')!.otherNames).toEqual(['Cy']);
    await countsAreTrue(made);
  });
});
