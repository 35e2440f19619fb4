// Starts what all browser tests share: a database, two servers over it, and a third over an empty database.
import { mkdtempSync, rmSync } from 'node:fs';
import { startCluster } from '../scripts/lib/postgres.mjs';
import { newDatabase, serve } from './servers.js';

export default async function setup(): Promise<() => Promise<void>> {
  const given = process.env['DELLUM_TEST_DATABASE'];
  const folder = given ? undefined : mkdtempSync('/tmp/dellum-e2e-');
  const cluster = folder ? await startCluster(folder, { fsync: 'off', synchronous_commit: 'off' }) : { url: given!, stop: () => undefined };
  const shared = await newDatabase(cluster.url, 'browser');
  const first = await serve(shared);
  const [second, empty] = await Promise.all([serve(shared), serve(await newDatabase(cluster.url, 'browser_empty'))]);
  Object.assign(process.env, { DELLUM_DATABASE: shared, DELLUM_ONE: first.base, DELLUM_TWO: second.base, DELLUM_EMPTY: empty.base });
  return async () => {
    await Promise.all([first.stop(), second.stop(), empty.stop()]);
    cluster.stop();
    if (folder) rmSync(folder, { recursive: true, force: true });
  };
}
