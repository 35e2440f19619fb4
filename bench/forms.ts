// Opening a form: how long until its first field can be typed in while a list of 100,000 items is on its way, against the
// same form without lists.
import { loadHouse, type HouseBlueprint } from '@dellum/demo';
import type { BuildView } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { launch, pageOf } from './browser.js';
import { median, print } from './measure.js';
import type { Million } from './million.js';
import { serve, signIn } from './server.js';

const size = 100_000;
const rounds = 7;

function blueprint(key: string, listed: boolean): HouseBlueprint {
  const ask = (field: string, control: 'line' | 'picker') => ({ field, help: '', control, wide: false, begins: null, where: null });
  const rule = { catalog: 'Long list', mayBeBlank: true, others: 'refuse' as const, hint: '', refusalText: '' };
  return {
    key,
    name: 'Forms',
    demo: false,
    people: [{ name: 'Bench', signIn: 'bench', role: 'administrator', password: 'bench-password' }],
    sourceSheets: listed
      ? [
          {
            title: 'Lists',
            note: '',
            lists: [
              {
                heading: 'Long list',
                texts: Array.from({ length: size }, (_, at) => `item ${at}`),
                ranges: [{ name: 'Long list', from: 0, ends: 'last' }],
              },
            ],
          },
        ]
      : [],
    catalogs: listed ? [{ title: 'Long list', note: '', ranges: ['Long list'] }] : [],
    entrySheets: [
      {
        title: 'Filled',
        note: '',
        fields: [
          { key: 'name', heading: 'Name', kind: 'text', width: 160 },
          { key: 'item', heading: 'Item', kind: 'text', width: 160, ...(listed && { rule }) },
        ],
        entries: [],
      },
    ],
    forms: [
      {
        title: 'Form',
        sheet: 'Filled',
        layout: {
          intro: '',
          thanks: '',
          sections: [
            {
              id: 's',
              heading: '',
              help: '',
              columns: 1,
              where: null,
              fields: [ask('name', 'line'), ask('item', listed ? 'picker' : 'line')],
            },
          ],
        },
        filled: 0,
      },
    ],
  };
}

/** Milliseconds from going to the form until its first field has taken a text; the median of some openings. */
async function opening(database: Database, listed: boolean): Promise<number> {
  const key = `forms-${listed ? 'listed' : 'plain'}-${process.pid}`;
  await loadHouse(database.kysely, blueprint(key, listed));
  const server = await serve(process.env['DATABASE_URL']!);
  const browser = await launch();
  try {
    const administrator = await signIn(server.base, key);
    const [form] = (await administrator.call<BuildView>('GET', '/build')).forms;
    const spent: number[] = [];
    for (let round = 0; round < rounds; round++) {
      const page = await pageOf(browser, server.base, administrator, '/forms');
      await page.getByRole('link', { name: 'Fill Form' }).waitFor();
      const started = performance.now();
      await page.goto(`/forms/${form!.id}/fill`);
      await page.getByLabel('Name').fill('typed');
      spent.push(performance.now() - started);
      await page.context().close();
    }
    return median(spent);
  } finally {
    await browser.close();
    await server.stop();
  }
}

export async function formOpen(database: Database, _bench: Million): Promise<void> {
  const plain = await opening(database, false);
  const listed = await opening(database, true);
  print({ name: 'form.open', value: listed, unit: 'ms', against: 'the same form without lists', ratio: plain / listed });
}
