// A source sheet with a list of 100,000: how long until its rows are there and one can type in them, and how long Upkeep of such a house
// takes in a server that has just started.
import { loadHouse, type HouseBlueprint } from '@dellum/demo';
import type { BuildView, Upkeep } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { launch, pageOf } from './browser.js';
import { median, print } from './measure.js';
import type { Million } from './million.js';
import { serve, signIn, type Caller } from './server.js';

const size = 100_000;
const rounds = 5;

const blueprint = (key: string): HouseBlueprint => ({
  key,
  name: 'Lists',
  demo: false,
  people: [{ name: 'Bench', signIn: 'bench', role: 'administrator', password: 'bench-password' }],
  sourceSheets: [
    {
      title: 'Lists',
      note: '',
      lists: [
        {
          heading: 'Long list',
          texts: Array.from({ length: size }, (_, at) => `amber bolt ${at}`),
          ranges: [{ name: 'Long list', from: 0, ends: 'last' }],
        },
      ],
    },
  ],
  catalogs: [{ title: 'Long list', note: '', ranges: ['Long list'] }],
  entrySheets: [],
  forms: [],
});

async function houseWithList(database: Database, name: string): Promise<string> {
  const key = `${name}-${process.pid}`;
  await loadHouse(database.kysely, blueprint(key));
  return key;
}

export async function listOpen(database: Database, _bench: Million): Promise<void> {
  const key = await houseWithList(database, 'list-open');
  const server = await serve(process.env['DATABASE_URL']!);
  const browser = await launch();
  try {
    const administrator = await signIn(server.base, key);
    const sheet = (await administrator.call<BuildView>('GET', '/build')).sheets[0]!;
    const spent: number[] = [];
    for (let round = 0; round < rounds; round++) {
      const page = await pageOf(browser, server.base, administrator, '/sources');
      const link = page.getByRole('link', { name: sheet.title }).first();
      await link.waitFor();
      const started = performance.now();
      await link.click();
      await page.getByRole('gridcell', { name: 'amber bolt 0' }).waitFor();
      spent.push(performance.now() - started);
      await page.context().close();
    }
    print({ name: 'list.open.100k', value: median(spent), unit: 'ms from the link to its rows', against: 'limit 1,000 ms', ratio: null });
  } finally {
    await browser.close();
    await server.stop();
  }
}

/** Milliseconds of Upkeep in a server that has just started. */
async function cold(work: (administrator: Caller) => Promise<unknown>, key: string): Promise<number> {
  const server = await serve(process.env['DATABASE_URL']!);
  try {
    const administrator = await signIn(server.base, key);
    const started = performance.now();
    await work(administrator);
    return performance.now() - started;
  } finally {
    await server.stop();
  }
}

export async function upkeepCold(database: Database, _bench: Million): Promise<void> {
  const key = await houseWithList(database, 'upkeep');
  const look = (administrator: Caller) => administrator.call<Upkeep>('GET', '/upkeep');
  const first = await cold(look, key);
  const kept: number[] = [];
  for (let round = 0; round < rounds; round++) kept.push(await cold(look, key));
  print({
    name: 'upkeep.cold.100k',
    value: median(kept),
    unit: 'ms in a server that has just started',
    against: 'looking through it anew; limit 2,000 ms',
    ratio: first / median(kept),
  });
}
