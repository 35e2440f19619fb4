// An upgrade from the first thread's database: nothing of what was there is lost.
import { randomUUID } from 'node:crypto';
import { newRule } from '@dellum/core';
import type { BuildView, CatalogItems, Slip } from '@dellum/contract';
import { Database, hashPassword, migrate } from '@dellum/server';
import { sql } from 'kysely';
import { expect, it } from 'vitest';
import { emptyDatabase, startServer, Visitor } from './house.js';

it('brings ranges, catalogs, retired values and waiting changes along', async () => {
  const url = await emptyDatabase();
  const database = new Database(url, 1);
  const db = database.kysely;
  await migrate(db, '0002-write-cell');
  const [house, person, sheet, register, range, catalog, field, slip, log, visits, pilot] = Array.from({ length: 11 }, () => randomUUID());
  const entries = [randomUUID(), randomUUID()];
  const locale = JSON.stringify({ language: 'en-GB', decimalMark: '.', dateOrder: 'dmy', yearPivot: 68 });
  const statements = [
    sql`insert into houses (id, key, name, locale) values (${house}, 'old', 'Old', ${locale}::jsonb)`,
    sql`insert into house_counters values (${house}, 0)`,
    sql`insert into people values (${house}, ${person}, 'A', 'administrator', 'administrator', 'administrator', ${await hashPassword('correct-horse-1')})`,
    sql`insert into sheets (house_id, id, kind, title, note, ord) values (${house}, ${sheet}, 'source', 'Lists', '', 1)`,
    sql`insert into registers values (${house}, ${register}, ${sheet}, 'Pilots', 1)`,
    sql`insert into fields values (${house}, ${field}, ${register}, 'value', 'Pilots', 'text', 100, 1, null, null)`,
    ...entries.map(
      (id, at) =>
        sql`insert into entries (house_id, register_id, id, pos, cells) values (${house}, ${register}, ${id}, ${at + 1}, ${JSON.stringify({ value: ['Tam', 'Rook'][at] })}::jsonb)`,
    ),
    sql`insert into ranges values (${house}, ${range}, ${register}, 'value', 'Pilots', 'pilots', '{"at":"top"}', ${JSON.stringify({ ends: 'fixed', entry: entries[1] })}::jsonb)`,
    sql`insert into catalogs (house_id, id, key, title, note) values (${house}, ${catalog}, 'pilots', 'Pilots', '')`,
    sql`insert into sheets (house_id, id, kind, title, note, ord) values (${house}, ${log}, 'entry', 'Log', '', 2)`,
    sql`insert into registers values (${house}, ${visits}, ${log}, 'Log', 2)`,
    sql`insert into fields values (${house}, ${pilot}, ${visits}, 'pilot', 'Pilot', 'text', 100, 1, ${JSON.stringify({ kind: 'catalog', catalogId: catalog, mayBeBlank: false, others: 'refuse', hint: 'Who?', refusalText: '' })}::jsonb, ${catalog})`,
    sql`insert into catalog_parts values (${house}, ${catalog}, 0, ${range})`,
    sql`insert into kept_items values (${house}, ${catalog}, 'Odd')`,
    sql`insert into other_names values (${house}, ${catalog}, 'T.', 'Tam')`,
    sql`insert into slips (house_id, id, person_id, register_id, proposal, questions, inside, entries) values (${house}, ${slip}, ${person}, ${register}, ${JSON.stringify({ registerId: register, what: 'act', act: { act: 'delete', entries: [entries[0]] } })}::jsonb, '[]', 0, '[]')`,
  ];
  for (const statement of statements) await statement.execute(db);
  await db.destroy();

  const running = await startServer(url);
  const visitor = new Visitor(running.base, { house: 'old', role: 'administrator' });
  const build = await visitor.get<BuildView>('/build');
  expect(build.ranges).toMatchObject([
    {
      name: 'Pilots',
      shape: 'list',
      stretches: [{ registerId: register, fields: ['value'], start: { at: 'top' }, end: { ends: 'fixed', entry: entries[1] } }],
    },
  ]);
  const { items } = await visitor.get<CatalogItems>(`/catalogs/${catalog}/items`);
  expect(items.map(({ value, state, otherNames }) => [value, state, otherNames])).toEqual([
    ['Tam', 'offered', ['T.']],
    ['Rook', 'offered', []],
    ['Odd', 'retired', []],
  ]);
  expect(build.sheets.find(({ id }) => id === log)!.registers[0]!.fields[0]!.rule).toEqual({
    ...newRule('catalog'),
    catalogId: catalog,
    mayBeBlank: false,
    hint: 'Who?',
  });
  const { body } = await visitor.call<{ entries: string[] }>('POST', `/registers/${visits}/entries`, { count: 1 });
  expect(
    (await visitor.call('PATCH', `/registers/${visits}/entries/${body.entries[0]!}`, { field: 'pilot', text: 'T.', version: 1 })).status,
  ).toBe(200);
  expect((await visitor.get<Slip[]>('/slips'))[0]!.proposal.steps).toEqual([
    { what: 'act', registerId: register, act: { act: 'delete', entries: [entries[0]] } },
  ]);
  await running.close();
});
