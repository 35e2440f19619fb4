// The connection to PostgreSQL and the shape of a transaction.
import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { Kysely, PostgresDialect, sql, type Transaction } from 'kysely';
import pg from 'pg';
import type { Tables } from './tables.js';

export type Trx = Transaction<Tables>;
/** A transaction, or the database itself for a single read. */
export type Reader = Kysely<Tables>;

const bigint = 20;
const types: pg.CustomTypesConfig = {
  getTypeParser(oid, format) {
    if (oid === bigint) return (text: string) => (Number.isSafeInteger(Number(text)) ? Number(text) : text);
    return pg.types.getTypeParser(oid, format) as (text: string) => unknown;
  },
};

const logger = new Logger('database');

/** What is done when a transaction is committed. */
const afterwards = new WeakMap<Trx, (() => void)[]>();

/** Does something once the transaction is committed, and not if it is rolled back. It must be one of `Database.transaction`. */
export function afterCommit(trx: Trx, act: () => void): void {
  afterwards.get(trx)!.push(act);
}

/** A pool of connections to a database: one that breaks, idle or in a transaction, is told and never ends the process. */
export function openPool(config: pg.PoolConfig): pg.Pool {
  const pool = new pg.Pool({ connectionTimeoutMillis: 5000, ...config });
  // The query under way, if there is one, fails by itself; between two queries nobody else would hear it.
  pool.on('connect', (client) =>
    client.on('error', ({ message }) => logger.warn(`A connection to the database broke (${message}); the next query opens another.`)),
  );
  // The pool repeats what an idle connection has said already.
  pool.on('error', () => undefined);
  return pool;
}

@Injectable()
export class Database implements OnApplicationShutdown {
  readonly kysely: Kysely<Tables>;
  private readonly pool: pg.Pool;

  /** `directUrl`: past a pooler, where there is one, behind which nobody hears what is announced. */
  constructor(
    readonly url: string,
    connections = 16,
    readonly directUrl = url,
  ) {
    this.pool = openPool({ connectionString: url, max: connections, types, keepAlive: true });
    this.kysely = new Kysely<Tables>({ dialect: new PostgresDialect({ pool: this.pool }) });
  }

  /** How many connections are in use and idle, and how many requests wait for one. */
  get connections(): { readonly used: number; readonly idle: number; readonly waiting: number } {
    const { totalCount, idleCount, waitingCount } = this.pool;
    return { used: totalCount - idleCount, idle: idleCount, waiting: waitingCount };
  }

  /** One act is one transaction. */
  async transaction<T>(act: (trx: Trx) => Promise<T>): Promise<T> {
    const then: (() => void)[] = [];
    const result = await this.kysely.transaction().execute((trx) => {
      afterwards.set(trx, then);
      return act(trx);
    });
    for (const one of then) one();
    return result;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.kysely.destroy();
  }
}

/** Taken by whoever enters data: the build and the catalogs stay as they are until the transaction ends. */
export async function holdBuild(trx: Trx, houseId: string): Promise<void> {
  await sql`select pg_advisory_xact_lock_shared(hashtextextended(${houseId}, 0))`.execute(trx);
}

/** Taken by whoever changes the build or a catalog: waits for the entries being written and lets none in between. */
export async function lockBuild(trx: Trx, houseId: string): Promise<void> {
  await sql`select pg_advisory_xact_lock(hashtextextended(${houseId}, 0))`.execute(trx);
}
