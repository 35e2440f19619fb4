// Two databases: one is written to, the other follows it and has each change before it is acknowledged. Which is which, and whether they
// are together, stands in a file, so that a standby that may miss something is never taken for one that has everything.
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder, postgresTool, runAsAccount, startCluster } from '../postgres.mjs';
import { Stop, say } from '../say.mjs';
import { checkRole } from './proxy.mjs';

const names = ['north', 'south'];
const follower = 'dellum_follower';
/** The name by which the one that follows is known to the other, and under which what it has not read yet is kept for it. */
const standing = 'standby';

/** Milliseconds. */
const looksEvery = 300;
/** So long entries wait for a standby that has gone, before the other goes on without it. */
const waitsForStandby = 3000;

const settings = {
  hot_standby_feedback: 'on',
  // One that hangs, or cannot be reached, is told from one that is slow.
  wal_sender_timeout: '4s',
  wal_receiver_timeout: '4s',
  // Whoever follows comes back soon after the other was away.
  wal_retrieve_retry_interval: '300ms',
  // What a standby that is away has not read is kept for so long; beyond it is made anew.
  max_slot_wal_keep_size: '2GB',
  wal_keep_size: '256MB',
};

const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

export class Nodes {
  /** `folder`: where they stand; `ports`: where each of them listens. */
  constructor(folder, ports) {
    this.folder = folder;
    this.ports = ports;
    this.file = join(folder, 'nodes.json');
    this.state = existsSync(this.file) ? JSON.parse(readFileSync(this.file, 'utf8')) : { primary: names[0], together: false };
    this.running = new Map();
    this.busy = Promise.resolve();
    this.stopping = false;
    this.goneSince = undefined;
  }

  get primary() {
    return this.state.primary;
  }
  get standby() {
    return names.find((name) => name !== this.primary);
  }
  /** The address of the one that is written to, past everything. */
  get url() {
    return this.running.get(this.primary).url;
  }

  pidOf(name) {
    const file = join(this.folder, name, 'postgres', 'postmaster.pid');
    return existsSync(file) ? Number(readFileSync(file, 'utf8').split('\n')[0]) : undefined;
  }

  remember(state) {
    this.state = { ...this.state, ...state };
    writeFileSync(`${this.file}.new`, JSON.stringify(this.state));
    renameSync(`${this.file}.new`, this.file);
  }

  /** Starts both, and keeps them running and together from then on. */
  async start() {
    makeFolder(this.folder);
    await this.startNode(this.primary);
    await this.writes();
    await this.prepare();
    await this.follow();
    this.kept = this.keep();
  }

  async startNode(name) {
    this.running.set(name, await startCluster(join(this.folder, name), { port: this.ports[name], ...settings }));
  }

  async ask(name, question) {
    // What it needs may have been installed only now.
    const { default: pg } = await import('pg');
    const client = new pg.Client({ connectionString: this.running.get(name).url, connectionTimeoutMillis: 3000, query_timeout: 10_000 });
    client.on('error', () => undefined);
    try {
      await client.connect();
      return (await client.query(question)).rows;
    } finally {
      await client.end().catch(() => undefined);
    }
  }

  /** The roles of the two that look: the proxy, and the database that follows. Later starts write nothing: nobody has followed yet. */
  async prepare() {
    const passwordFile = join(this.folder, 'follower.password');
    if (!existsSync(passwordFile)) writeFileSync(passwordFile, randomBytes(24).toString('hex'), { mode: 0o600 });
    this.password = readFileSync(passwordFile, 'utf8');
    const known = new Set((await this.ask(this.primary, 'select rolname from pg_roles')).map(({ rolname }) => rolname));
    if (!known.has(checkRole)) await this.ask(this.primary, `create role ${checkRole} login`);
    if (!known.has(follower)) await this.ask(this.primary, `create role ${follower} login replication password '${this.password}'`);
    const hba = join(this.folder, this.primary, 'postgres', 'pg_hba.conf');
    const trusted = `host postgres ${checkRole} 127.0.0.1/32 trust\n`;
    const lines = readFileSync(hba, 'utf8');
    if (lines.startsWith(trusted)) return;
    writeFileSync(hba, trusted + lines);
    await this.ask(this.primary, 'select pg_reload_conf()');
  }

  /** Lets the one that is to be written to take that over, where it has followed until now. */
  async writes() {
    const [{ follows }] = await this.ask(this.primary, 'select pg_is_in_recovery() as follows');
    if (!follows) return;
    await this.waitForStandby('');
    const [{ done }] = await this.ask(this.primary, 'select pg_promote() as done');
    if (!done) throw new Error(`${this.primary} does not take over within a minute; the last lines of its log say why.`);
  }

  /** Starts the one that follows; one that is not of the other's line is made anew. */
  async follow() {
    const { folder, standby, primary } = this;
    const data = join(folder, standby, 'postgres');
    if (!existsSync(join(data, 'standby.signal'))) {
      say(`Copying the database for the one that follows (${standby}) …`);
      rmSync(data, { recursive: true, force: true });
      makeFolder(join(folder, standby));
      await this.ask(
        primary,
        `select pg_drop_replication_slot(slot_name) from pg_replication_slots where slot_name = '${standing}' and not active`,
      );
      const copied = await runAsAccount(
        postgresTool('pg_basebackup'),
        [
          '-D',
          data,
          '-h',
          '127.0.0.1',
          '-p',
          String(this.ports[primary]),
          '-U',
          follower,
          '-c',
          'fast',
          '-X',
          'stream',
          '-C',
          '-S',
          standing,
          '-R',
        ],
        { PGPASSWORD: this.password, PGAPPNAME: standing },
        join(folder, standby),
      );
      if (copied.status !== 0) throw new Error(`The database could not be copied: ${copied.stderr.trim().split('\n').at(-1)}`);
      const password = readFileSync(join(folder, primary, 'postgres.password'));
      writeFileSync(join(folder, standby, 'postgres.password'), password, { mode: 0o600 });
    }
    await this.startNode(standby);
  }

  /** Looks again and again whether both run and are together, and does what is needed where they are not. */
  async keep() {
    while (!this.stopping) {
      await this.alone(() => this.look()).catch((error) => say(`The databases: ${error.message}`));
      await wait(looksEvery);
    }
  }

  /** One after the other: looking, and taking over. */
  alone(act) {
    const done = this.busy.then(() => act());
    this.busy = done.catch(() => undefined);
    return done;
  }

  async look() {
    if (this.stopping) return;
    if (!this.running.get(this.primary)?.isRunning()) {
      say(`The database ${this.primary} stopped by itself; it is started again.`);
      await this.startNode(this.primary);
      this.goneSince = undefined;
      say(`The database ${this.primary} is back.`);
    }
    await this.writes();
    if (!this.running.get(this.standby)?.isRunning()) await this.follow();
    const [seen] = await this.ask(
      this.primary,
      `select state, sync_state as sync, wal_status as kept from pg_replication_slots left join pg_stat_replication on pid = active_pid where slot_name = '${standing}'`,
    );
    if (seen?.state === 'streaming') return this.together(seen.sync);
    this.goneSince ??= Date.now();
    if (this.state.together && Date.now() - this.goneSince > waitsForStandby) await this.apart();
    if (!seen || seen.kept === 'lost') this.forgetStandby();
  }

  /** What it would have to read is not there any more: it is made anew by the next look. */
  forgetStandby() {
    say(`${this.standby} cannot follow any more.`);
    this.running.get(this.standby).stopAtOnce();
    rmSync(join(this.folder, this.standby, 'postgres', 'standby.signal'), { force: true });
  }

  async together(syncState) {
    this.goneSince = undefined;
    if (this.state.together) return;
    if (syncState !== 'sync') return this.waitForStandby(standing);
    this.remember({ together: true });
    say(`The databases are together: ${this.primary} writes, ${this.standby} has all of it before it is acknowledged.`);
  }

  /** The standby may miss something from now on: that is remembered before anybody goes on without it. */
  async apart() {
    this.remember({ together: false });
    await this.waitForStandby('');
    say(`The database that follows is away; ${this.primary} goes on alone. Until it is back, do not let it take over.`);
  }

  /** Whose word a transaction waits for before it is acknowledged; '' for nobody's. */
  async waitForStandby(name) {
    await this.ask(this.primary, `alter system set synchronous_standby_names = '${name}'`);
    await this.ask(this.primary, 'select pg_reload_conf()');
  }

  /**
   * The one that follows takes over. It has all that was acknowledged when both were together; otherwise it is refused, unless one says
   * that it should be `evenSo`.
   */
  takeOver(evenSo) {
    return this.alone(async () => {
      const { primary: before, standby: next } = this;
      if (!this.state.together && !evenSo)
        throw new Stop(
          `${next} does not have everything that ${before} has acknowledged. Bring ${before} back, or take over with --even-so and lose the rest.`,
        );
      await this.ask(next, 'select 1').catch(({ message }) => {
        throw new Stop(`${next} does not answer (${message}), so it cannot take over.`);
      });
      // Whoever wrote until now must not go on: nobody would have what it takes in.
      this.running.get(before)?.stopAtOnce();
      this.running.delete(before);
      // First, so that nobody who is interrupted now goes on with the other one.
      this.remember({ primary: next, together: false });
      await this.writes();
      if (evenSo) renameSync(join(this.folder, before, 'postgres'), join(this.folder, before, `postgres.before-${Date.now()}`));
      say(`${next} has taken over.`);
    });
  }

  async stop() {
    this.stopping = true;
    await this.kept;
    // The one that follows last: what the other writes while it stops is not waited for.
    for (const name of [this.primary, this.standby]) this.running.get(name)?.stop();
  }
}
