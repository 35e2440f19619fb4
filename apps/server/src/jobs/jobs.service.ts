// Long work, kept in the database by pg-boss: sent in the transaction that decides it, taken up by any server.
import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { CompiledQuery, sql } from 'kysely';
import PgBoss from 'pg-boss';
import { Database, type Trx } from '../database/database.js';
import { UnderWay } from './underWay.js';

export interface JobData {
  readonly carry: { readonly houseId: string; readonly carryId: string };
  /** An act on a block that reaches further than what is on screen. */
  readonly entryAct: { readonly houseId: string; readonly actId: number };
  /** Writes the file of a download. */
  readonly download: { readonly houseId: string; readonly downloadId: number };
  /** Reads a file that came back, and compares it. */
  readonly compare: { readonly houseId: string; readonly fileId: number };
  /** Reads the files of a proposal, or applies it. */
  readonly adopt: { readonly houseId: string; readonly adoptionId: string };
  /** Takes in what is new in the folder of an intake. */
  readonly intake: { readonly houseId: string; readonly intakeId: string };
  /** Counts how many entries hold each combination of some fields, and keeps that from then on. */
  readonly combine: { readonly houseId: string; readonly registerId: string; readonly keys: readonly string[] };
  readonly fold: object;
  readonly forget: object;
  readonly refresh: { readonly houseId: string; readonly sourceId: string };
  /** Counts anew what is used most in the catalogs of a house that are ordered by it. */
  readonly recount: { readonly houseId: string };
  /** Sends a recount for every house that needs one. */
  readonly recounts: object;
  /** Seals what was added to the ledger. */
  readonly seal: object;
  /** Tells programs what is new in a house, and sends again what they did not take. */
  readonly tell: { readonly houseId: string };
  /** Sends a refresh for every linked source whose time has come, looks at the folders of intakes, and tells what is to be told. */
  readonly due: object;
}
export type JobName = keyof JobData;

const names: readonly JobName[] = [
  'carry',
  'entryAct',
  'download',
  'compare',
  'adopt',
  'intake',
  'combine',
  'fold',
  'forget',
  'refresh',
  'due',
  'recount',
  'recounts',
  'seal',
  'tell',
];
/**
 * A job has a lease of this many seconds: when it is over, another server takes the job up, since the first was killed. Work that may take
 * longer is done in slices (`slice`), so that no lease runs out under a server that lives; the queue looks for leases every ten seconds. A
 * file that came back is read from its beginning whenever it is: whoever begins last goes on; of those who read a proposal whoever is done
 * first. The server that is late itself goes on, and does not begin it beside itself.
 */
const lease = { carry: 15, entryAct: 15, download: 15, compare: 120, adopt: 30 } as const;
const leaseOfOthers = 60;
/** What comes by the clock is looked for less often than what somebody waits for: each look is a question to the database. Seconds. */
const looks = { fold: 10, forget: 10, due: 10, recounts: 10, seal: 10 } as const;
const looksForOthers = 0.5;
/** So long a job works on what may take long before it leaves the rest to another job; milliseconds. */
export const slice = 8_000;

const looksOf = (name: JobName): number => (name in looks ? looks[name as keyof typeof looks] : looksForOthers);

@Injectable()
export class JobsService implements OnApplicationShutdown {
  private readonly boss: PgBoss;
  private readonly logger = new Logger('jobs');
  private readonly underWay = new UnderWay();
  private started = false;
  stopping = false;

  constructor(private readonly database: Database) {
    this.boss = new PgBoss({
      connectionString: database.url,
      max: 4,
      schema: 'jobs',
      maintenanceIntervalSeconds: 10,
      monitorStateIntervalSeconds: 60,
    });
    this.boss.on('error', (error) => this.logger.warn(`The job queue could not reach the database: ${error.message}`));
  }

  /** Starts the queue; `workers` do the jobs of this server. */
  async start(workers: { readonly [Name in JobName]: (data: JobData[Name]) => Promise<void> }): Promise<void> {
    await this.prepare();
    this.started = true;
    for (const name of names) {
      const worker = workers[name] as (data: unknown) => Promise<void>;
      const id = await this.boss.work(name, { batchSize: 1, pollingIntervalSeconds: looksOf(name) }, async ([job]) => {
        if (!job) return;
        try {
          await this.underWay.join(job.id, () => worker(job.data));
          // Where one was, others may wait: a hundred of them do not wait for a hundred looks at the clock.
          this.boss.notifyWorker(id);
        } catch (error) {
          // The queue tries it again; whoever runs the server sees that it did not go by itself.
          this.logger.error(
            `The job “${name}” failed (${error instanceof Error ? error.message : String(error)}) and is tried again later. Job: ${JSON.stringify(job.data)}`,
          );
          throw error;
        }
      });
    }
    await this.boss.schedule('fold', '* * * * *');
    await this.boss.schedule('forget', '*/10 * * * *');
    await this.boss.schedule('due', '* * * * *');
    await this.boss.schedule('recounts', '17 * * * *');
    await this.boss.schedule('seal', '* * * * *');
  }

  /** Lays out the queues; servers that start at the same time take turns, since pg-boss's own steps deadlock. */
  private prepare(): Promise<void> {
    return this.database.transaction(async (trx) => {
      await sql`select pg_advisory_xact_lock(hashtext('dellum.jobs'))`.execute(trx);
      await this.boss.start();
      for (const name of names) await this.boss.createQueue(name);
    });
  }

  /** Sends some jobs in one statement: as part of a transaction, or at once when none is given. */
  async send<Name extends JobName>(trx: Trx | undefined, name: Name, all: readonly JobData[Name][]): Promise<void> {
    if (all.length === 0) return;
    const jobs = all.map((data) => ({
      name,
      data,
      expireInSeconds: name in lease ? lease[name as keyof typeof lease] : leaseOfOthers,
      retryLimit: name in lease ? 1000 : 2,
      retryDelay: 1,
    }));
    await this.boss.insert(jobs, trx ? { db: within(trx) } : {});
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    if (this.started) await this.boss.stop({ graceful: true, wait: true, timeout: 5000 });
  }
}

/** Runs the statements of the queue within a transaction of ours. */
const within = (trx: Trx) => ({
  executeSql: async (text: string, values: unknown[]) => {
    const { rows } = await trx.executeQuery(CompiledQuery.raw(text, values));
    return { rows };
  },
});
