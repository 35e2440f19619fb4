// Two servers over a database of their own, all of them processes that can be killed; whoever is killed is started again.
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { Database, migrate } from '@dellum/server';
import { sql } from 'kysely';
import { freePort, startCluster, type Cluster } from '../../../../scripts/lib/postgres.mjs';

export interface Trial {
  /** The addresses of the servers, which stay the same. */
  readonly bases: readonly string[];
  readonly database: Database;
  /** Kills a server for good. */
  endServer(at: number): Promise<void>;
  /** Kills a server, and starts it again. */
  killServer(at: number): Promise<void>;
  /** Kills the database with all its connections, and starts it again. */
  killDatabase(): Promise<void>;
  /** Breaks connections between servers and database: those that listen, or any. */
  breakConnections(listening: boolean): Promise<void>;
  stop(): Promise<void>;
}

async function serve(databaseUrl: string, port: number): Promise<ChildProcess> {
  for (;;) {
    const child = spawn(process.execPath, ['apps/server/dist/main.js'], {
      env: { ...process.env, DATABASE_URL: databaseUrl, PORT: String(port) },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    for await (const line of createInterface({ input: child.stdout })) if (line.startsWith('listening')) return child;
    // Its database was away: as the start command does, it is tried again.
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}

async function kill(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  child.kill(signal);
  if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
}

export async function startTrial(): Promise<Trial> {
  const folder = mkdtempSync('/tmp/dellum-trial-');
  // What a killed process has handed over is kept by the machine: nothing is lost without fsync, as long as commits are waited for.
  const settings = { fsync: 'off', full_page_writes: 'on', synchronous_commit: 'on' };
  const cluster = await startCluster(folder, settings);
  const ports = [await freePort(), await freePort()];
  const database = new Database(cluster.url, 2);
  await migrate(database.kysely);
  const servers = await Promise.all(ports.map((port) => serve(cluster.url, port)));
  let stopped = false;

  const startAgain = async (): Promise<Cluster> => {
    for (;;) {
      try {
        return await startCluster(folder, { ...settings, port: cluster.port });
      } catch {
        // Connections of before still hold its memory.
        await new Promise((resolve) => setTimeout(resolve, 200));
      }
    }
  };
  return {
    bases: ports.map((port) => `http://127.0.0.1:${port}`),
    database,
    endServer: (at) => kill(servers[at]!, 'SIGKILL'),
    async killServer(at) {
      await kill(servers[at]!, 'SIGKILL');
      if (!stopped) servers[at] = await serve(cluster.url, ports[at]!);
    },
    async killDatabase() {
      const pidFile = join(folder, 'postgres', 'postmaster.pid');
      if (!existsSync(pidFile)) return;
      process.kill(Number(readFileSync(pidFile, 'utf8').split('\n')[0]), 'SIGKILL');
      await startAgain();
    },
    async breakConnections(listening) {
      await sql`select pg_terminate_backend(pid) from pg_stat_activity
        where pid <> pg_backend_pid() and backend_type = 'client backend' and (${listening} = (query ilike 'listen%'))`
        .execute(database.kysely)
        .catch(() => undefined);
    },
    async stop() {
      stopped = true;
      await Promise.all(servers.map((server) => kill(server, 'SIGTERM')));
      await database.kysely.destroy();
      cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
