// The shared sheet over 1,000,000 entries: a pasted block of 100,000 cells, and a person's own order.
import { asKept } from '@dellum/core';
import type { ArrangementView, EntryActView, EntryPage } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { sql } from 'kysely';
import { median, print } from './measure.js';
import { values, type Million } from './million.js';

const rows = 25_000;
const columns = 4;

/** What no other line of the bench looks at: distinct values in a field that a figure is grouped by would make it too large. */
const pastedInto = ({ register }: Million): string[] =>
  register.fields
    .flatMap(({ key, kind }) => (kind === 'text' && !['quay', 'status', 'field_0'].includes(key) ? [key] : []))
    .slice(0, columns);

/** Milliseconds from sending a block until all of it is stored, counted and in the ledger. */
export async function pasted(bench: Million, round: number): Promise<{ spent: number; texts: readonly (readonly string[])[] }> {
  const { register, administrator } = bench;
  const fields = pastedInto(bench);
  const { entries } = await administrator.call<EntryPage>('GET', `/registers/${register.id}/entries?from=0&count=1`);
  const texts = Array.from({ length: rows }, (_, row) =>
    fields.map((key, column) => (key === 'pilot' ? values[(row + round) % values.length]! : `round ${round} row ${row} column ${column}`)),
  );
  const started = performance.now();
  let act = await administrator.call<EntryActView>('POST', `/registers/${register.id}/entry-acts`, {
    does: 'paste',
    texts,
    block: { fields, first: entries[0]!.id, arranged: false },
  });
  while (act.state !== 'done') {
    await new Promise((resolve) => setTimeout(resolve, 20));
    act = await administrator.call<EntryActView>('GET', `/registers/${register.id}/entry-acts/${act.id}`);
  }
  const spent = performance.now() - started;
  if (act.outcome.taken !== rows * fields.length) throw new Error(`${act.outcome.refused} cells were refused`);
  return { spent, texts };
}

/** Cells a second of a pasted block. */
export async function paste100k(database: Database, bench: Million): Promise<void> {
  const { houseId, register } = bench;
  const fields = pastedInto(bench);
  const spent: { ours: number; bare: number }[] = [];
  for (let round = 0; round < 3; round++) {
    const { spent: ours, texts } = await pasted(bench, round);
    const ids = (
      await sql<{
        id: string;
      }>`select id from entries where house_id = ${houseId} and register_id = ${register.id} order by pos offset 100000 limit ${rows}`.execute(
        database.kysely,
      )
    ).rows;
    const changed = ids.map(({ id }, at) => ({ id, cells: Object.fromEntries(fields.map((key, column) => [key, texts[at]![column]])) }));
    const bareStarted = performance.now();
    await sql`
      update entries set cells = entries.cells || written.cells, version = version + 1
      from jsonb_to_recordset(${JSON.stringify(changed)}::jsonb) as written(id uuid, cells jsonb)
      where entries.house_id = ${houseId} and entries.register_id = ${register.id} and entries.id = written.id`.execute(database.kysely);
    spent.push({ ours, bare: performance.now() - bareStarted });
  }
  const ours = median(spent.map((one) => one.ours));
  print({
    name: 'paste.100k',
    value: Math.round((rows * fields.length * 1000) / ours),
    unit: 'cells/s',
    against: 'one multi-row UPDATE of the same cells',
    ratio: median(spent.map(({ bare }) => bare)) / ours,
  });
}

/** From asking for an order of one's own until its first page is there; and a page in its middle. */
export async function arrange1m(database: Database, { houseId, register, administrator }: Million): Promise<void> {
  const spent: number[] = [];
  const pages: number[] = [];
  for (const direction of ['up', 'down', 'up'] as const) {
    const started = performance.now();
    const { version } = await administrator.call<ArrangementView>('PUT', `/registers/${register.id}/arrangement`, {
      ...asKept,
      sort: [{ field: 'pilot', direction }],
    });
    await administrator.call('GET', `/registers/${register.id}/entries?from=0&count=200&arranged=${version}`);
    spent.push(performance.now() - started);
    for (let at = 1; at < 8; at++) {
      const asked = performance.now();
      await administrator.call('GET', `/registers/${register.id}/entries?from=${at * 120_000}&count=200&arranged=${version}`);
      pages.push(performance.now() - asked);
    }
  }
  const bareStarted = performance.now();
  await sql`select max(place) from (select row_number() over (order by cells ->> 'pilot') as place from entries where house_id = ${houseId} and register_id = ${register.id}) sorted`.execute(
    database.kysely,
  );
  const bare = performance.now() - bareStarted;
  const ours = median(spent);
  print({
    name: 'sheet.arrange.1m',
    value: ours,
    unit: 'ms',
    against: 'a bare sort of the same entries by the same field',
    ratio: bare / ours,
  });
  print({
    name: 'sheet.arranged.page.1m',
    value: median(pages),
    unit: 'ms',
    against: 'limit 50 ms, 200 entries anywhere in the order',
    ratio: null,
  });
}
