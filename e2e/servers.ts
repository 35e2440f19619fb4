// Servers as processes of their own, over a given database.
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { Database } from '@dellum/server';
import { sql } from 'kysely';
import { freePort } from '../scripts/lib/postgres.mjs';
import { root } from '../scripts/lib/packages.mjs';

/** A database of this name without anything in it, beside the one at `url`. */
export async function newDatabase(url: string, name: string): Promise<string> {
  const database = new Database(url, 1);
  await sql`drop database if exists ${sql.id(name)}`.execute(database.kysely);
  await sql`create database ${sql.id(name)}`.execute(database.kysely);
  await database.kysely.destroy();
  const own = new URL(url);
  own.pathname = `/${name}`;
  return own.href;
}

export interface Serving {
  readonly base: string;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

/**
 * Starts a server, on a given port where it is to come back at the same address; a house may be given a folder of linked files, and an
 * address that webhooks tell.
 */
export async function serve(
  databaseUrl: string,
  { given, house, files = `${root}/stand-ins/files`, told }: { given?: string; house?: string; files?: string; told?: string } = {},
): Promise<Serving> {
  const port = given ? Number(new URL(given).port) : await freePort();
  const child: ChildProcess = spawn(process.execPath, [`${root}/apps/server/dist/main.js`], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      DELLUM_WEB: `${root}/apps/web/dist`,
      DELLUM_TEMPLATES: `${root}/demo/templates`,
      ...(house && { DELLUM_FILES: `${house}: ${files}` }),
      ...(house && told && { DELLUM_WEBHOOKS: `${house}: Board in the yard=${told}` }),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let listens = false;
  for await (const line of createInterface({ input: child.stdout! })) if ((listens = line.startsWith('listening'))) break;
  if (!listens) throw new Error(`The server that was to listen on port ${port} has ended.`);
  return {
    base: `http://127.0.0.1:${port}`,
    stop: async (signal = 'SIGTERM') => {
      child.kill(signal);
      if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
    },
  };
}
