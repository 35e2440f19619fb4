// npm start: installs what is missing, starts a private PostgreSQL, migrates, loads the demo, serves the application.
// Options: --fresh loads the demo anew; --empty starts without it. Environment: PORT, DATABASE_URL, DELLUM_DATA,
// what linked sources may reach (DELLUM_FILES, DELLUM_DATABASES, DELLUM_SERVICES), and docs/operating.md for the rest.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { backUp, isOlder, migrationsBuilt } from './lib/backups.mjs';
import { dataFolderOf } from './lib/dataFolder.mjs';
import { ensureBuilt, ensureModules, root } from './lib/packages.mjs';
import { lockFolder } from './lib/lock.mjs';
import { startCluster } from './lib/postgres.mjs';
import { checkPort } from './lib/port.mjs';
import { asServer, loadDemo, prepareRole } from './lib/role.mjs';
import { Stop, runScript, say } from './lib/say.mjs';
import { serverCommand, serverReady } from './lib/server.mjs';
import { standIns } from './lib/standIns.mjs';

const options = new Set(process.argv.slice(2));
const empty = options.has('--empty');
const fresh = options.has('--fresh');
const port = Number(process.env.PORT ?? 4170);

function checkRequest() {
  const unknown = [...options].find((option) => option !== '--empty' && option !== '--fresh');
  if (unknown) throw new Stop(`There is no option ${unknown}. Use --fresh or --empty, or none.`);
  if (fresh && process.env.DATABASE_URL)
    throw new Stop(
      'The demo has accounts whose passwords everybody knows. It is loaded into its own data folder only: leave DATABASE_URL or --fresh out.',
    );
  if (empty && fresh) throw new Stop('--fresh loads the demo and --empty leaves it out; use one of them.');
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`PORT is “${process.env.PORT}”, which is no port. Choose a number from 1 to 65535.`);
  const [major] = process.versions.node.split('.');
  if (Number(major) < 20)
    throw new Stop(`Dellum needs Node 20 or newer; this is ${process.versions.node}. Install a newer one and start again.`);
}

const dataFolder = () => dataFolderOf(empty);
const backups = () => join(dataFolder(), 'backups');

/** Before a database is brought to a newer form, it is backed up as it was. */
function backUpBefore(url) {
  const migrations = migrationsBuilt();
  if (process.env.DATABASE_URL || !isOlder(url, migrations)) return;
  say('Backing up before the database is brought to its newer form …');
  backUp(url, backups(), `before-${new Date().toISOString().slice(0, 10)}-${migrations}`);
}

/** Of a house of one's own: looks once an hour whether the backup of the night is due. */
async function keepBackups(url, stopping) {
  if (!empty || process.env.DATABASE_URL) return;
  for (let next = Date.now() + aMinute; !stopping(); await wait(lookEvery)) {
    if (Date.now() < next) continue;
    next = Date.now() + anHour;
    await once(spawn(process.execPath, [join(root, 'scripts', 'lib', 'nightly.mjs'), url, backups()], { stdio: 'inherit' }), 'exit');
  }
}

async function database() {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, stop: () => undefined, isRunning: () => true };
  return startCluster(dataFolder());
}

/** Pauses between starting a server again that died; milliseconds. They begin anew when one has run for a while. */
const pauses = [1000, 2000, 5000, 10_000, 30_000];
const ranWell = 60_000;
const lookEvery = 1000;
const aMinute = 60_000;
const anHour = 3_600_000;

const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Starts the server once; `listening` is called when it is ready. Resolves to its exit code. */
async function run(url, env, lock, began, listening) {
  const server = spawn(...serverCommand(url, port, env));
  lock.note(server.pid);
  began(server);
  void serverReady(server).then(listening);
  const [code, signal] = await once(server, 'exit');
  return code ?? signal;
}

/** Starts the database again where it has died, under the address that it had. */
async function keepDatabase(cluster, stopping) {
  while (!stopping()) {
    await wait(lookEvery);
    if (stopping() || cluster.isRunning()) continue;
    say('The database stopped by itself; starting it again …');
    await startCluster(dataFolder(), { port: cluster.port }).then(
      () => say('The database is back.'),
      (error) => say(`${error.message} Trying again.`),
    );
  }
}

/** Serves until one is told to stop; a server that dies is started again. */
async function serve(cluster, serverUrl, env, lock) {
  let server;
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    server?.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  // Under npm a signal may end npm alone: who has lost it stops, too.
  const parent = process.ppid;
  const watch = process.env.npm_lifecycle_event && setInterval(() => process.ppid !== parent && stop(), lookEvery);
  const kept = Promise.all([keepDatabase(cluster, () => stopping), keepBackups(cluster.url, () => stopping)]);
  let tries = 0;
  let wasReady = false;
  try {
    while (!stopping) {
      const began = Date.now();
      const code = await run(
        serverUrl,
        env,
        lock,
        (started) => (server = started),
        () => {
          say(`Dellum is ready${wasReady ? ' again' : ''} at http://127.0.0.1:${port}`);
          wasReady = true;
        },
      );
      if (stopping) break;
      if (!wasReady) throw new Stop(`The server stopped by itself (code ${code}). The lines above say why; start it again with: npm start`);
      if (Date.now() - began > ranWell) tries = 0;
      const pause = pauses[Math.min(tries++, pauses.length - 1)];
      say(`The server stopped by itself (${code}); it is started again in ${pause / 1000} s. The lines above say why.`);
      for (let waited = 0; waited < pause && !stopping; waited += 100) await wait(100);
    }
    say('Dellum has stopped.');
  } finally {
    stopping = true;
    clearInterval(watch);
    await kept;
  }
}

await runScript(async () => {
  checkRequest();
  const lock = await lockFolder(dataFolder());
  let cluster;
  let outside;
  try {
    await checkPort(port, 'npm start');
    ensureModules();
    ensureBuilt();
    cluster = await database();
    backUpBefore(cluster.url);
    // Another PostgreSQL is its owner's: nothing is loaded there, and the server works under the role that one was given.
    const own = !process.env.DATABASE_URL;
    if (!empty && own) {
      loadDemo(cluster.url, fresh);
      outside = await standIns(cluster.url);
    }
    const serverUrl = own ? asServer(cluster.url, prepareRole(cluster.url, dataFolder())) : cluster.url;
    if (outside) say(`A stand-in that webhooks tell shows what it was told at ${outside.told}`);
    await serve(cluster, serverUrl, { ...outside?.env, ...(own && { DELLUM_MIGRATED: 'yes' }) }, lock);
  } finally {
    outside?.stop();
    cluster?.stop();
    lock.free();
  }
});
