// npm run cluster: what a larger office needs, on loopback. A proxy (HAProxy) before three servers, a pooler (PgBouncer), a database, and one
// that follows it and has each entry before it is acknowledged.
//   npm run cluster [-- --empty] [--servers N]   starts it and keeps it running; PORT and DELLUM_DATA as under npm start
//   npm run cluster -- status                    says what runs, as JSON
//   npm run cluster -- take-over [--even-so]     lets the database that follows take over, for ever
import { chmodSync, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer, request } from 'node:http';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { keep } from './lib/cluster/keeper.mjs';
import { Nodes } from './lib/cluster/nodes.mjs';
import { ensurePooler, startPooler } from './lib/cluster/pooler.mjs';
import { ensureProxy, startProxy } from './lib/cluster/proxy.mjs';
import { dataFolderOf } from './lib/dataFolder.mjs';
import { lockFolder } from './lib/lock.mjs';
import { ensureBuilt, ensureModules } from './lib/packages.mjs';
import { ensurePostgres, freePort } from './lib/postgres.mjs';
import { checkPort } from './lib/port.mjs';
import { asServer, loadDemo, prepareRole, serverRole } from './lib/role.mjs';
import { Stop, runScript, say } from './lib/say.mjs';
import { serverCommand, serverReady } from './lib/server.mjs';

const mostServers = 16;

function readCall() {
  try {
    const { positionals, values } = parseArgs({
      allowPositionals: true,
      options: {
        empty: { type: 'boolean', default: false },
        servers: { type: 'string', default: '3' },
        'even-so': { type: 'boolean', default: false },
      },
    });
    const [act = 'start', ...more] = positionals;
    const [port, servers] = [Number(process.env.PORT ?? 4170), Number(values.servers)];
    if (!['start', 'status', 'take-over'].includes(act) || more.length > 0)
      throw new Stop('Say nothing to start, status, or take-over [--even-so].');
    if (!Number.isInteger(servers) || servers < 1 || servers > mostServers)
      throw new Stop(`Say how many servers there are: --servers 1 to ${mostServers}.`);
    if (!Number.isInteger(port) || port < 1 || port > 65535) throw new Stop(`PORT is “${process.env.PORT}”, which is no port.`);
    return { act, port, servers, empty: values.empty, evenSo: values['even-so'] };
  } catch (error) {
    throw error instanceof Stop ? error : new Stop(error.message);
  }
}

/** The ports of what nobody but the cluster speaks to: those of before, since the databases know each other by them. */
async function portsIn(folder, names) {
  const file = join(folder, 'ports.json');
  const ports = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {};
  for (const name of names) {
    while (ports[name] === undefined) {
      const port = await freePort();
      if (!Object.values(ports).includes(port)) ports[name] = port;
    }
  }
  writeFileSync(file, JSON.stringify(ports));
  return ports;
}

const socketIn = (folder) => join(folder, 'control.sock');

/** Asks the cluster that runs from a folder to do something; returns what it says. */
function tell(folder, path) {
  return new Promise((resolve, failed) => {
    const asked = request({ socketPath: socketIn(folder), path, method: 'POST' }, (response) => {
      let said = '';
      response.on('data', (chunk) => (said += chunk));
      response.on('end', () => (response.statusCode === 200 ? resolve(said) : failed(new Stop(said))));
    });
    asked.on('error', () => failed(new Stop(`No cluster runs from ${folder}. Start it with: npm run cluster`)));
    asked.end();
  });
}

/** Takes commands from whoever may read the data folder. */
async function control(folder, acts) {
  rmSync(socketIn(folder), { force: true });
  const server = createServer((asked, response) => {
    const act = acts[asked.url];
    const done = act ? act() : Promise.reject(new Stop('This is not known here.'));
    done.then(
      (said) => response.end(said),
      (error) => response.writeHead(error instanceof Stop ? 409 : 500).end(error.message),
    );
  });
  server.listen(socketIn(folder));
  await once(server, 'listening');
  chmodSync(socketIn(folder), 0o600);
  return server;
}

async function start(folder, { port, servers: count, empty }) {
  const serverNames = Array.from({ length: count }, (_, at) => `server-${at + 1}`);
  const lock = await lockFolder(folder, 'cluster.mjs');
  const running = [];
  let nodes;
  let listener;
  try {
    await checkPort(port, 'npm run cluster');
    ensureModules();
    ensurePostgres();
    ensureProxy();
    ensurePooler();
    ensureBuilt();
    const ports = await portsIn(folder, ['north', 'south', 'primary', 'standby', 'pooler', ...serverNames]);
    nodes = new Nodes(join(folder, 'databases'), { north: ports.north, south: ports.south });
    await nodes.start();
    const password = prepareRole(nodes.url, folder);
    if (!empty) loadDemo(nodes.url, false);
    const [{ id: instance }] = await nodes.ask(nodes.primary, 'select id from instance');
    const run = async (starting) => {
      running.push(await starting);
      lock.note(...running.map(({ pid }) => pid()));
    };
    const servers = serverNames.map((name) => [name, ports[name]]);
    await run(
      startProxy(folder, {
        port,
        instance,
        servers,
        primary: ports.primary,
        standby: ports.standby,
        nodes: ['north', 'south'].map((name) => [name, ports[name]]),
      }),
    );
    await run(startPooler(folder, { port: ports.pooler, database: ports.primary, role: serverRole, password }));
    const at = (place) => asServer(nodes.url, password, ports[place]);
    const env = {
      DELLUM_MIGRATED: 'yes',
      DELLUM_PROXIES: 'loopback',
      DELLUM_DATABASE_DIRECT: at('primary'),
      DELLUM_DATABASE_STANDBY: at('standby'),
    };
    for (const [name, own] of servers) await run(keep(name, serverCommand(at('pooler'), own, env), serverReady));
    listener = await control(folder, {
      '/status': () => Promise.resolve(JSON.stringify(statusOf(nodes, running, ports))),
      '/take-over': () => nodes.takeOver(false).then(() => `${nodes.primary} has taken over.`),
      '/take-over-even-so': () => nodes.takeOver(true).then(() => `${nodes.primary} has taken over.`),
    });
    say(`Dellum is ready at http://127.0.0.1:${port}`);
    await told();
  } finally {
    listener?.close();
    // From the outside in: nobody is let in while what is behind goes.
    for (const process of [...running].reverse()) await process.stop();
    await nodes?.stop();
    lock.free();
  }
  say('Dellum has stopped.');
}

const statusOf = (nodes, running, ports) => ({
  processes: Object.fromEntries(running.map(({ name, pid }) => [name, { pid: pid(), ...(ports[name] && { port: ports[name] }) }])),
  databases: {
    writes: nodes.primary,
    follows: nodes.standby,
    together: nodes.state.together,
    pids: { [nodes.primary]: nodes.pidOf(nodes.primary), [nodes.standby]: nodes.pidOf(nodes.standby) },
  },
});

/** Resolves when one is told to stop; under npm a signal may end npm alone. */
function told() {
  return new Promise((resolve) => {
    process.once('SIGINT', resolve);
    process.once('SIGTERM', resolve);
    const parent = process.ppid;
    const watch = process.env.npm_lifecycle_event && setInterval(() => process.ppid !== parent && resolve(clearInterval(watch)), 1000);
  });
}

await runScript(async () => {
  const call = readCall();
  const folder = join(dataFolderOf(call.empty), 'cluster');
  if (call.act === 'start') await start(folder, call);
  else if (call.act === 'status') say(await tell(folder, '/status'));
  else say(await tell(folder, call.evenSo ? '/take-over-even-so' : '/take-over'));
});
// Looks that are repeated would keep the process.
process.exit();
