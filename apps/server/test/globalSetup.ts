// One database for the server tests: the one that `npm test` started, or a throw-away cluster of its own.
import { mkdtempSync, rmSync } from 'node:fs';
import { Database, migrate } from '@dellum/server';
import type { TestProject } from 'vitest/node';
import { startCluster } from '../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

export default async function setup(project: TestProject): Promise<() => void> {
  const given = process.env['DELLUM_TEST_DATABASE'];
  const folder = given ? undefined : mkdtempSync('/tmp/dellum-test-');
  const cluster = folder ? await startCluster(folder, { fsync: 'off', synchronous_commit: 'off' }) : { url: given!, stop: () => undefined };
  const database = new Database(cluster.url, 2);
  await migrate(database.kysely);
  await database.kysely.destroy();
  project.provide('databaseUrl', cluster.url);
  return () => {
    cluster.stop();
    if (folder) rmSync(folder, { recursive: true, force: true });
  };
}
