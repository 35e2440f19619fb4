// docs/api.md against the demo: every command of it is run, and answers what the page says.
import { execFile } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { loadHouse, quillhaven } from '@dellum/demo';
import type { BuildView, IntakeView, MadeToken, MadeWebhook } from '@dellum/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startReceiver, type Receiver } from '../../../stand-ins/receiver.mjs';
import { reachableFrom } from '../src/linked/reachable.js';
import { freshDatabase, startServer, Visitor, type Running } from './house.js';

const page = readFileSync(join(import.meta.dirname, '../../../docs/api.md'), 'utf8');
/** Each command with the answer that the page shows, if it does. */
const commands = [...page.matchAll(/```sh\n([\s\S]*?)```(?:\s*```json\n([\s\S]*?)```)?/gu)].map(([, command, answer]) => ({
  command: command!.trim(),
  answer: answer === undefined ? undefined : (JSON.parse(answer) as unknown),
}));

let running: Running;
let receiver: Receiver;
let shell: Record<string, string>;
beforeAll(async () => {
  const house = quillhaven(new Date());
  receiver = await startReceiver();
  running = await startServer(await freshDatabase(), reachableFrom({ DELLUM_WEBHOOKS: `${house.key}: Board=${receiver.base}/messages` }));
  await loadHouse(running.database.kysely, house);
  const ines = new Visitor(running.base);
  await ines.call('POST', '/session', { house: house.key, signIn: 'ines', password: 'lantern-basin' });
  const build = await ines.get<BuildView>('/build');
  const catalog = (key: string) => build.catalogs.find((known) => known.key === key)!.id;
  const sheet = build.sheets.find(({ title }) => title === 'Crane hours')!.registers[0]!.id;
  const { body } = await ines.call<MadeToken>('POST', '/access-tokens', {
    name: 'Crane log',
    writes: true,
    catalogs: [catalog('pilots'), catalog('quays')],
    registers: [sheet],
    until: '2099-12-31',
  });
  const webhook = { name: 'Harbour board', receiver: 'Board', catalogs: [catalog('pilots')], registers: [] };
  const { body: told } = await ines.call<MadeWebhook>('POST', '/webhooks', webhook);
  receiver.secret = told.secret;
  await ines.call('POST', `/webhooks/${told.id}/tests`, {});
  const intake = { name: 'Crane company', registerId: sheet, folder: null, pattern: '', holdsAll: false };
  const { body: made } = await ines.call<IntakeView>('POST', '/intakes', intake);
  shell = {
    PATH: process.env['PATH']!,
    DELLUM: `${running.base}/api/v1/programs`,
    TOKEN: body.token,
    SHEET: sheet,
    INTAKE: made.id,
    RECEIVER: `${receiver.base}/messages`,
  };
}, 120_000);
afterAll(async () => {
  receiver.stop();
  await running.close();
});

describe('the page about the interface for programs', () => {
  it('has commands to run', () => expect(commands.length).toBeGreaterThan(8));
  it.each(commands)('$command', async ({ command, answer }) => {
    const { stdout: said } = await promisify(execFile)('/bin/sh', ['-c', command], { env: shell, timeout: 20_000 });
    if (answer === undefined) expect(said.length).toBeGreaterThan(100);
    else expect(JSON.parse(said)).toMatchObject(answer as object);
  });
});
