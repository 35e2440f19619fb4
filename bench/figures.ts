// A figure over 1,000,000 entries: two fields by month, against one plain GROUP BY over the same rows.
import type { FigureDefinition } from '@dellum/core';
import type { EntryPage, FigureLineView } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { sql } from 'kysely';
import { median, print } from './measure.js';
import { areKept, entries, type Million } from './million.js';

const rounds = 5;

const own = (field: string) => ({ field, through: null });
const figureOf = (registerId: string): FigureDefinition => ({
  registerId,
  by: [own('quay'), own('status')],
  time: { path: own('day'), step: 'month' },
  measure: 'count',
  of: null,
  only: [],
  chart: 'stacked',
});

/** Counts a figure; throws where not all entries are in it. Returns how many are in the group of some values. */
async function counted({ server, administrator }: Million, definition: FigureDefinition, values: readonly string[]): Promise<number> {
  const response = await fetch(`${server.base}/api/v1/figures/counted`, {
    method: 'POST',
    headers: { cookie: administrator.cookie, 'content-type': 'application/json' },
    body: JSON.stringify(definition),
  });
  const last = JSON.parse((await response.text()).trim().split('\n').at(-1)!) as FigureLineView;
  if ('problem' in last) throw new Error(`the figure was not counted: ${last.problem.code}, ${last.problem.detail}`);
  const groups = 'groups' in last ? last.groups : [];
  const sum = (all: typeof groups) => all.reduce((done, group) => done + group.entries, 0);
  if (sum(groups) !== entries) throw new Error(`${sum(groups)} entries were counted`);
  return sum(groups.filter((group) => group.values.join() === values.join()));
}

export async function figures1m(database: Database, bench: Million): Promise<void> {
  const { houseId, register } = bench;
  const spent: { ours: number; plain: number }[] = [];
  for (let round = 0; round < rounds; round++) {
    const started = performance.now();
    await counted(bench, figureOf(register.id), []);
    const ours = performance.now() - started;
    const plainStarted = performance.now();
    await sql`
      select cells ->> 'quay', cells ->> 'status', left(cells ->> 'day', 7), count(*) from entries
      where house_id = ${houseId} and register_id = ${register.id} group by 1, 2, 3`.execute(database.kysely);
    spent.push({ ours, plain: performance.now() - plainStarted });
  }
  const ours = median(spent.map((one) => one.ours));
  print({
    name: 'figures.1m',
    value: ours,
    unit: 'ms',
    against: 'one plain GROUP BY over the same rows',
    ratio: median(spent.map(({ plain }) => plain)) / ours,
  });
}

/** From an edit that is sent until a figure that is kept says its new numbers; against counting the figure anew. */
export async function figureKept1m(database: Database, bench: Million): Promise<void> {
  const { houseId, register, administrator } = bench;
  const definition = figureOf(register.id);
  const values = ['Quay 3', 'Status 2'];
  const anew: number[] = [];
  for (let round = 0; round < 3; round++) {
    const started = performance.now();
    await counted(bench, definition, values);
    anew.push(performance.now() - started);
  }
  await administrator.call('POST', '/figures', { title: 'Kept', definition });
  let before = await counted(bench, definition, values);
  await areKept(database, houseId, ['day', 'quay', 'status']);
  const page = await administrator.call<EntryPage>('GET', `/registers/${register.id}/entries?from=500000&count=1000`);
  const others = page.entries.filter(({ cells }) => cells['quay'] !== values[0] && cells['status'] === values[1]);
  const spent: number[] = [];
  for (const entry of others.slice(0, 20)) {
    const started = performance.now();
    await administrator.call('PATCH', `/registers/${register.id}/entries/${entry.id}`, {
      field: 'quay',
      text: values[0],
      version: entry.version,
    });
    const now = await counted(bench, definition, values);
    spent.push(performance.now() - started);
    if (now !== before + 1) throw new Error(`${now} entries are in the group, not ${before + 1}`);
    before = now;
  }
  const ours = median(spent);
  print({ name: 'figure.kept.1m', value: ours, unit: 'ms', against: 'counting the figure anew', ratio: median(anew) / ours });
}
