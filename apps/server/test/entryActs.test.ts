// Acts on blocks that reach further than what is on screen: one act, one job, one taking back; counts stay true.
import { asKept } from '@dellum/core';
import type { EntryActDto, EntryActView, EntryPage, FieldCount, Problem } from '@dellum/contract';
import { CountsStore, Database } from '@dellum/server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeEntrySheet, type Made } from './entrySheet.js';
import { startServer, until, type Running } from './house.js';

let running: Running;
beforeAll(async () => {
  running = await startServer();
});
afterAll(() => running.close());

const rows = 6000;

/** A sheet with `rows` blank entries of a code (a, b or c) and a number. */
async function longSheet(length = rows): Promise<{ made: Made; ids: string[] }> {
  const made = await makeEntrySheet(running, [
    ['Code', 'text'],
    ['Number', 'number'],
    ['Note', 'text'],
  ]);
  await made.rule('code', { kind: 'typed', values: ['a', 'b', 'c'] });
  for (let at = 0; at < length / 1000; at++) await made.house.clerk.call('POST', `/registers/${made.register.id}/entries`, { count: 1000 });
  return { made, ids: (await all(made)).map(({ id }) => id) };
}
async function all(made: Made) {
  const pages = await Promise.all(
    [0, 5000].map((from) => made.house.clerk.get<EntryPage>(`/registers/${made.register.id}/entries?from=${from}&count=5000`)),
  );
  return pages.flatMap(({ entries }) => entries);
}
const column = async (made: Made, key: string) => (await all(made)).map(({ cells }) => cells[key] ?? '');

async function does(
  made: Made,
  act: Partial<EntryActDto> & { does: EntryActDto['does'] },
  visitor = made.house.clerk,
): Promise<EntryActView> {
  const begun = await visitor.call<EntryActView & Problem>('POST', `/registers/${made.register.id}/entry-acts`, act);
  expect([begun.status, begun.body.detail]).toEqual([202, undefined]);
  let view: EntryActView = begun.body;
  await until(async () => {
    view = await visitor.get<EntryActView>(`/registers/${made.register.id}/entry-acts/${begun.body.id}`);
    return view.state === 'done';
  });
  return view;
}

async function countsAreTrue(made: Made): Promise<void> {
  const database = new Database(running.database.url, 1);
  const counts = new CountsStore(database);
  for (const { id, key } of made.register.fields) {
    const kept = (await counts.ofFields(database.kysely, made.house.id, [id])).get(id) ?? new Map<string, number>();
    expect([key, kept]).toEqual([key, await counts.recount(database.kysely, made.house.id, made.register.id, key)]);
  }
  await database.kysely.destroy();
}

describe('an act on a block', () => {
  it('pastes thousands of rows, makes the entries that are missing, keeps what is refused, and is taken back as one', async () => {
    const { made, ids } = await longSheet();
    const texts = Array.from({ length: rows + 500 }, (_, at) => [at % 1000 === 7 ? 'nothing of it' : at % 2 === 0 ? 'A' : 'b', String(at)]);
    const act = await does(made, { does: 'paste', texts, block: { fields: ['code', 'number'], first: ids[0]!, arranged: false } });
    expect(act.outcome).toMatchObject({ taken: 2 * (rows + 500) - 7, refused: 7, corrected: (rows + 500) / 2 });
    expect(act.outcome.refusals[0]).toMatchObject({ entry: ids[7], field: 'code', text: 'nothing of it' });
    const codes = await column(made, 'code');
    expect([codes.length, codes[0], codes[1], codes[7], codes.at(-2)]).toEqual([rows + 500, 'a', 'b', '', 'a']);
    await countsAreTrue(made);
    const back = await does(made, { does: 'back', of: act.id });
    expect((await all(made)).map(({ cells }) => Object.keys(cells).length)).toEqual(Array.from({ length: rows }, () => 0));
    await countsAreTrue(made);
    await does(made, { does: 'back', of: back.id });
    expect(await column(made, 'number')).toEqual(texts.map(([, number]) => number));
    await countsAreTrue(made);
  });

  it('carries a series down to the last entry, replaces in it, and takes back only what nobody changed since', async () => {
    const { made, ids } = await longSheet();
    await made.edit(ids[0]!, 'note', 'Gate 1');
    await made.edit(ids[1]!, 'note', 'Gate 2');
    const carried = await does(made, { does: 'fill', how: 'series', block: { fields: ['note'], arranged: false } });
    expect(carried.outcome.taken).toBe(rows - 2);
    expect((await column(made, 'note')).at(-1)).toBe(`Gate ${rows}`);
    const replaced = await does(made, {
      does: 'replace',
      search: { find: 'GATE 1', whole: false, exact: false },
      by: 'Door 1',
      fields: ['note'],
    });
    expect(replaced.outcome.taken).toBe((await column(made, 'note')).filter((note) => note.startsWith('Door 1')).length);
    await made.house.administrator.call('PATCH', `/registers/${made.register.id}/entries/${ids[0]!}`, {
      field: 'note',
      text: 'mine',
      version: 9,
    });
    const back = await does(made, { does: 'back', of: replaced.id });
    expect(back.outcome.passedOver).toBe(1);
    expect((await column(made, 'note')).slice(0, 3)).toEqual(['mine', 'Gate 2', 'Gate 3']);
  });

  it('works on a block as one has arranged it, and deletes and brings back where entries stood', async () => {
    const { made, ids } = await longSheet();
    await does(made, { does: 'paste', texts: ids.map((_, at) => [String(rows - at)]), block: { fields: ['number'], arranged: false } });
    await made.house.clerk.call('PUT', `/registers/${made.register.id}/arrangement`, {
      ...asKept,
      sort: [{ field: 'number', direction: 'up' }],
      only: [{ only: 'within', field: 'number', from: '1', until: '3000' }],
    });
    const gone = await does(made, { does: 'delete', block: { fields: [], arranged: true } });
    expect(gone.outcome.taken).toBe(3000);
    expect((await column(made, 'number')).at(-1)).toBe('3001');
    await countsAreTrue(made);
    await does(made, { does: 'back', of: gone.id });
    expect((await all(made)).map(({ id }) => id)).toEqual(ids);
    const counts = await made.house.clerk.get<FieldCount[]>(`/registers/${made.register.id}/counts`);
    expect(counts[1]!.held).toBe(rows);
    await countsAreTrue(made);
  });

  it('is one’s own, and says plainly what it cannot do', async () => {
    const { made, ids } = await longSheet(1000);
    const begin = async (act: unknown, visitor = made.house.clerk) =>
      (await visitor.call<Problem>('POST', `/registers/${made.register.id}/entry-acts`, act)).body;
    const act = await does(made, { does: 'clear', block: { fields: ['note'], arranged: false } });
    expect((await begin({ does: 'back', of: act.id }, made.house.administrator)).code).toBe('not-found');
    expect((await made.house.administrator.call('GET', `/registers/${made.register.id}/entry-acts/${act.id}`)).status).toBe(404);
    expect((await begin({ does: 'clear', block: { fields: ['nowhere'], arranged: false } })).code).toBe('not-found');
    expect((await begin({ does: 'clear', block: { fields: ['note'], first: made.register.id, arranged: false } })).code).toBe('not-found');
    expect((await begin({ does: 'replace', fields: ['note'] })).code).toBe('not-valid');
    expect((await begin({ does: 'paste', texts: [['a'], 'b'], block: { fields: ['note'], arranged: false } })).code).toBe('not-valid');
    const wide = await begin({
      does: 'paste',
      texts: Array.from({ length: 500_001 }, () => ['', '']),
      block: { fields: ['code', 'note'], first: ids[0], arranged: false },
    });
    expect([wide.code, wide.detail]).toEqual(['too-large', expect.stringContaining('1,000,000')]);
  });
});
