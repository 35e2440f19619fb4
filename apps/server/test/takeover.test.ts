// What a server that is killed was working on is taken over by another that lives, within half a minute.
import { randomUUID } from 'node:crypto';
import { loadHouse } from '@dellum/demo';
import type { AdoptionView, BuildView, DownloadView, EntryActView } from '@dellum/contract';
import { expect, it } from 'vitest';
import { smallHouse, until, Visitor } from './house.js';
import { startTrial } from './trial/cluster.js';

const sheets = 4;
const entries = 15_000;

it('goes on with every act and every file of a server that was killed', async () => {
  const trial = await startTrial();
  try {
    const small = smallHouse([]);
    const rows = Array.from({ length: entries }, (_, at) => ({ visit: `V${at}`, pilot: 'Tam Ossel' }));
    const [sheet] = small.entrySheets;
    const blueprint = {
      ...small,
      key: `house-${randomUUID()}`,
      entrySheets: Array.from({ length: sheets }, (_, at) => ({ ...sheet!, title: `Visits ${at}`, entries: rows })),
    };
    await loadHouse(trial.database.kysely, blueprint);
    const clerks = trial.bases.map((base) => new Visitor(base, { house: blueprint.key, role: 'clerk' })) as [Visitor, Visitor];
    const registers = (await clerks[1].get<BuildView>('/build')).sheets.map(({ registers: [register] }) => register!.id);
    const acts = await Promise.all(
      registers.map(async (id) => {
        const block = { fields: ['pilot', 'visit'], arranged: false };
        const { body } = await clerks[1].call<EntryActView>('POST', `/registers/${id}/entry-acts`, { does: 'clear', block });
        return { register: id, act: body.id };
      }),
    );
    const views = () =>
      Promise.all(acts.map(({ register, act }) => clerks[1].get<EntryActView>(`/registers/${register}/entry-acts/${act}`)));
    // Both servers are at work: each does one act at a time.
    await until(async () => (await views()).filter(({ done, total }) => done > 0 && done < total).length === 2);
    const wanted = { format: 'csv', arranged: false, labels: false };
    const files = await Promise.all(registers.map((id) => clerks[1].call<DownloadView>('POST', `/registers/${id}/downloads`, wanted)));
    await trial.endServer(0);
    await until(async () => (await views()).every(({ state }) => state === 'done'), 90);
    expect((await views()).map(({ outcome }) => outcome.taken)).toEqual(acts.map(() => entries * 2));
    for (const { body } of files) {
      await until(async () => (await clerks[1].get<DownloadView>(`/downloads/${body.id}`)).state === 'done');
      const file = await fetch(`${clerks[1].base}/api/v1/downloads/${body.id}/file`, { headers: { cookie: await clerks[1].signedIn() } });
      // The heading, and one line an entry, however often it was begun.
      expect((await file.text()).split('\r\n').length).toBe(1 + entries + 1);
    }
  } finally {
    await trial.stop();
  }
}, 240_000);

it('reads and applies a proposal once, whatever the server that began it was doing when it was killed', async () => {
  const trial = await startTrial();
  try {
    const blueprint = { ...smallHouse([]), key: `house-${randomUUID()}`, entrySheets: [], sourceSheets: [], catalogs: [] };
    await loadHouse(trial.database.kysely, blueprint);
    const [first, second] = trial.bases.map((base) => new Visitor(base, { house: blueprint.key, role: 'administrator' })) as [
      Visitor,
      Visitor,
    ];
    const rows = 20_000;
    const lines = Array.from({ length: rows }, (_, at) => `V${at},${['North', 'South', 'West'][at % 3]!},${at}`);
    const bring = async (visitor: Visitor) => {
      const response = await fetch(`${visitor.base}/api/v1/adoption-files?name=visits.csv`, {
        method: 'POST',
        headers: { cookie: await visitor.signedIn(), 'content-type': 'application/octet-stream' },
        body: ['Visit,Quay,Length', ...lines].join('\n'),
      });
      return ((await response.json()) as AdoptionView).id;
    };
    const state = async (id: string) => (await second.get<AdoptionView>(`/adoptions/${id}`)).state;
    const applying = await bring(first);
    await until(async () => (await state(applying)) === 'ready');
    const reading = await bring(first);
    expect((await first.call('POST', `/adoptions/${applying}/applied`, {})).status).toBe(202);
    await trial.endServer(0);
    await until(async () => (await state(applying)) === 'applied' && (await state(reading)) === 'ready', 120);
    const { sheets } = await second.get<BuildView>('/build');
    const [sheet] = sheets.filter(({ kind }) => kind === 'entry');
    expect(sheets.map(({ kind }) => kind).sort()).toEqual(['entry', 'source']);
    const page = await second.get<{ total: number }>(`/registers/${sheet!.registers[0]!.id}/entries?from=0&count=1`);
    expect(page.total).toBe(rows);
  } finally {
    await trial.stop();
  }
}, 240_000);
