// Where data are kept, and the database over them.
import { join, resolve } from 'node:path';
import { root } from './packages.mjs';
import { startCluster } from './postgres.mjs';

/** The demo and a house of one's own live in different folders, so that neither disturbs the other. */
export const dataFolderOf = (own) => resolve(process.env.DELLUM_DATA ?? join(root, '.data'), own ? 'own' : 'demo');

/** Does something with the database of a folder; one that was not running is stopped again. */
export async function withDatabase(folder, act) {
  if (process.env.DATABASE_URL) return act({ url: process.env.DATABASE_URL });
  const cluster = await startCluster(folder);
  try {
    return await act(cluster);
  } finally {
    if (!cluster.wasRunning) cluster.stop();
  }
}
