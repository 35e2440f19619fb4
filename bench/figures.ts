// A figure over 1,000,000 entries: two fields by month, against one plain GROUP BY over the same rows.
import type { FigureDefinition } from '@dellum/core';
import type { FigureLineView } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { sql } from 'kysely';
import { median, print } from './measure.js';
import { entries, type Million } from './million.js';

const rounds = 5;

export async function figures1m(database: Database, { houseId, register, server, administrator }: Million): Promise<void> {
  const own = (field: string) => ({ field, through: null });
  const definition: FigureDefinition = {
    registerId: register.id,
    by: [own('quay'), own('status')],
    time: { path: own('day'), step: 'month' },
    measure: 'count',
    of: null,
    only: [],
    chart: 'stacked',
  };
  const spent: { ours: number; plain: number }[] = [];
  for (let round = 0; round < rounds; round++) {
    const started = performance.now();
    const response = await fetch(`${server.base}/api/v1/figures/counted`, {
      method: 'POST',
      headers: { cookie: administrator.cookie, 'content-type': 'application/json' },
      body: JSON.stringify(definition),
    });
    const last = JSON.parse((await response.text()).trim().split('\n').at(-1)!) as FigureLineView;
    const ours = performance.now() - started;
    if ('problem' in last) throw new Error(`the figure was not counted: ${last.problem.code}, ${last.problem.detail}`);
    const counted = 'groups' in last ? last.groups.reduce((sum, group) => sum + group.entries, 0) : 0;
    if (counted !== entries) throw new Error(`${counted} entries were counted`);
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
