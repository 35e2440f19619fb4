// A house out of files: a million rows to a proposal, and a proposal applied beside the same cells pasted.
import Papa from 'papaparse';
import type { AdoptionView } from '@dellum/contract';
import type { Database } from '@dellum/server';
import { print } from './measure.js';
import type { Million } from './million.js';
import { pasted } from './sheet.js';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A log as an office keeps it: 14 columns of codes, days, levels, names, numbers and remarks. */
function log(rows: number): string {
  const headings = 'Visit,Day,Quay,Berth,Pilot,Cargo,Tons,Paid,Rate,Flag,Agent,Remark,Out,Yes';
  const day = (at: number) => new Date(Date.UTC(2020, 0, 1 + (at % 2000))).toISOString().slice(0, 10);
  const lines = Array.from({ length: rows }, (_, at) => {
    const berth = (at * 31) % 48;
    const cells = [
      `V${String(at).padStart(7, '0')}`,
      day(at),
      `Quay ${berth % 8}`,
      `${berth % 8}-${Math.floor(berth / 8)}`,
      `Pilot ${(at * 7) % 23}`,
      `Cargo ${(at * 11) % 57}`,
      (at * 13) % 9000,
      `${(at * 3) % 1000}.50`,
      `${at % 40}%`,
      `F${(at * 17) % 90}`,
      `Agent ${(at * 19) % 300}`,
      at % 3 === 0 ? `remark ${at}` : '',
      day(at + 2),
      at % 2 === 0 ? 'yes' : 'no',
    ];
    return cells.join(',');
  });
  return [headings, ...lines].join('\r\n');
}

/** Milliseconds until a file is a proposal. */
async function propose({ administrator, server }: Million, file: Buffer<ArrayBuffer>): Promise<{ spent: number; view: AdoptionView }> {
  const started = performance.now();
  const response = await fetch(`${server.base}/api/v1/adoption-files?name=log.csv`, {
    method: 'POST',
    headers: { cookie: administrator.cookie, 'content-type': 'application/octet-stream' },
    body: file,
  });
  const { id } = (await response.json()) as AdoptionView;
  const view = await ended(administrator, id, 'reading');
  if (view.state !== 'ready') throw new Error(`${view.state}: ${view.why}`);
  return { spent: performance.now() - started, view };
}

async function ended(administrator: Million['administrator'], id: string, during: AdoptionView['state']): Promise<AdoptionView> {
  for (;;) {
    const view = await administrator.call<AdoptionView>('GET', `/adoptions/${id}`);
    if (view.state !== during) return view;
    // A page looks every 700 ms; who looks more often measures himself.
    await pause(200);
  }
}

export async function adopt1m(_database: Database, bench: Million): Promise<void> {
  const { administrator, server } = bench;
  const file = Buffer.from(log(1_000_000));
  const started = performance.now();
  let rows = 0;
  Papa.parse(file.toString(), { step: () => void rows++ });
  const bare = performance.now() - started;
  const idle = server.memory();
  let most = idle;
  const watching = setInterval(() => {
    most = Math.max(most, server.memory());
  }, 50);
  const { spent, view } = await propose(bench, file);
  clearInterval(watching);
  if (view.proposal!.tables[0]!.rows !== rows - 1) throw new Error(`${view.proposal!.tables[0]!.rows} of ${rows} rows were read`);
  await administrator.call('DELETE', `/adoptions/${view.id}`);
  print({
    name: 'adopt.1m',
    value: spent,
    unit: 'ms',
    against: 'one pass of the same CSV parser over the same bytes',
    ratio: bare / spent,
  });
  print({ name: 'adopt.memory.1m', value: most - idle, unit: 'MB', against: 'above idle; the file has 97 of them', ratio: null });
}

export async function adoptApply100k(_database: Database, bench: Million): Promise<void> {
  const { administrator } = bench;
  const { spent: bare, texts } = await pasted(bench, 0);
  const file = Buffer.from(Papa.unparse([texts[0]!.map((_, at) => `Column ${at + 1}`), ...texts]));
  const { view } = await propose(bench, file);
  const started = performance.now();
  await administrator.call('POST', `/adoptions/${view.id}/applied`, {});
  const { state, applied } = await ended(administrator, view.id, 'applying');
  const spent = performance.now() - started;
  if (state !== 'applied' || applied!.entries !== texts.length) throw new Error(`${state}: ${applied?.entries} entries`);
  await administrator.call('POST', `/adoptions/${view.id}/taken-back`, {});
  print({ name: 'adopt.apply.100k', value: spent, unit: 'ms', against: 'pasting the same 100,000 cells', ratio: bare / spent });
}
