// What is outside in a cascade of three steps over 1,000,000 entries, after a change of its list.
import { newRule, type CatalogRule } from '@dellum/core';
import type { BuildView, EntryPage, FieldCount, FieldView, Outcome } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { sql } from 'kysely';
import { median, print } from './measure.js';
import { areKept, type Million } from './million.js';

const rounds = 5;
const levels = ['quay', 'status', 'field_0'] as const;

/** The rows of a list of all that entries hold in the three fields. */
const rowsOf = (from: number, count: number): string[][] =>
  Array.from({ length: count }, (_, at) => from + at).map((n) => [
    `Quay ${n % 20}`,
    `Status ${Math.floor(n / 20) % 6}`,
    `text ${(n * 3) % 5000}`,
  ]);

/** A list of three levels, its catalog, and the rules that tie three fields of the register to it. Returns the list. */
async function makeCascade({ administrator, register }: Million): Promise<string> {
  const build = () => administrator.call<BuildView>('GET', '/build');
  const sheetId = (await build()).sheets.find(({ kind }) => kind === 'source')!.id;
  const { id } = await administrator.call<{ id: string }>('POST', '/tables', {
    sheetId,
    heading: 'Stock',
    fields: levels.map((heading) => ({ heading, kind: 'text' })),
  });
  // Entries repeat after 15,000: what their numbers come to modulo 20, 6 and 5,000.
  for (const from of [1, 5001, 10_001])
    await administrator.call('POST', `/registers/${id}/acts`, { acts: [{ act: 'insert', fields: levels, rows: rowsOf(from, 5000) }] });
  const { entries } = await administrator.call<EntryPage>('GET', `/registers/${id}/entries?from=0&count=1`);
  await administrator.call('POST', '/ranges', {
    name: 'Stock',
    shape: 'levels',
    inherits: false,
    ends: 'last',
    place: { registerIds: [id], fields: levels, entries: [entries[0]!.id] },
  });
  const rangeId = (await build()).ranges.find(({ name }) => name === 'Stock')!.id;
  const catalog = await administrator.call<{ id: string }>('POST', '/catalogs', {
    title: 'Stock',
    note: '',
    definition: {
      parts: [{ kind: 'range', join: 'or', rangeId, label: null, companions: [] }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    },
  });
  for (const [level, key] of levels.entries()) {
    const field = register.fields.find((known: FieldView) => known.key === key)!;
    const rule: CatalogRule = { ...newRule('catalog'), catalogId: catalog.id, level, parents: levels.slice(0, level) };
    await administrator.call('PUT', `/fields/${field.id}/rule`, rule);
  }
  return id;
}

export async function outsideCascade1m(database: Database, bench: Million): Promise<void> {
  const { administrator, register, houseId } = bench;
  const db = database.kysely;
  const list = await makeCascade(bench);
  const fields = register.fields.filter(({ key }) => levels.some((level) => level === key));
  const outside = async () =>
    (await administrator.call<FieldCount[]>('GET', `/registers/${register.id}/counts`))
      .filter(({ fieldId }) => fields.some(({ id }) => id === fieldId))
      .reduce((sum, count) => sum + count.outside, 0);
  if ((await outside()) !== 0) throw new Error('something was outside at first');
  await areKept(database, houseId, levels.slice(0, 2));
  await areKept(database, houseId, levels);
  const spent: { ours: number; scan: number }[] = [];
  let expected = 0;
  for (let round = 0; round < rounds; round++) {
    const { entries } = await administrator.call<EntryPage>('GET', `/registers/${list}/entries?from=0&count=1`);
    const { slip } = await administrator.call<Outcome>('POST', `/registers/${list}/acts`, {
      acts: [{ act: 'delete', entries: [entries[0]!.id] }],
    });
    if (slip)
      await administrator.call('POST', `/slips/${slip.id}/answers`, {
        answers: slip.questions.map(({ catalogId, value, path }) => ({ catalogId, value, ...(path && { path }), answer: 'gone' })),
      });
    // Each row of the list stands in every 15,000th entry.
    expected += Array.from({ length: 67 }, (_, at) => round + 1 + at * 15_000).filter((n) => n <= 1_000_000).length;
    const started = performance.now();
    const found = await outside();
    const ours = performance.now() - started;
    if (found !== expected) throw new Error(`${found} entries were outside, not ${expected}`);
    const scanStarted = performance.now();
    await sql`select cells ->> 'quay', cells ->> 'status', cells ->> 'field_0', count(*) from entries
      where house_id = ${houseId} and register_id = ${register.id} group by 1, 2, 3`.execute(db);
    spent.push({ ours, scan: performance.now() - scanStarted });
  }
  for (const { id } of fields) await administrator.call('DELETE', `/fields/${id}/rule`);
  const ours = median(spent.map((one) => one.ours));
  print({
    name: 'outside.cascade.1m',
    value: ours,
    unit: 'ms',
    against: 'one scan of the three fields',
    ratio: median(spent.map(({ scan }) => scan)) / ours,
  });
}
