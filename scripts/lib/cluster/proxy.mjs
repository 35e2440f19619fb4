// HAProxy: before the servers it gives each request to one that is ready; before the databases it finds the one that writes, and the one
// that follows, by asking each of them.
import { spawnSync } from 'node:child_process';
import { existsSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { debianPackage } from '../packages.mjs';
import { Stop } from '../say.mjs';
import { keep } from './keeper.mjs';

const program = '/usr/sbin/haproxy';

/** The role that asks a database whether it follows. It may connect from loopback without a password, and do nothing. */
export const checkRole = 'dellum_check';

/** A message of PostgreSQL's protocol (version 3): its letter, if it has one, its length, and what it says. */
function message(letter, ...parts) {
  const body = Buffer.concat(parts.map((part) => (typeof part === 'string' ? Buffer.from(`${part}\0`) : part)));
  const length = Buffer.alloc(4);
  length.writeInt32BE(body.length + 4);
  return Buffer.concat([Buffer.from(letter), length, body]).toString('hex');
}

const startUp = message('', Buffer.from([0, 3, 0, 0]), 'user', checkRole, 'database', 'postgres', Buffer.from([0]));
const question = message('Q', 'select pg_is_in_recovery()');
const farewell = message('X');
const authenticated = message('R', Buffer.from([0, 0, 0, 0]));
/** A row of one column that says t or f. */
const row = (says) => message('D', Buffer.from([0, 1, 0, 0, 0, 1]), Buffer.from(says));

const databases = (name, port, nodes, says) => `
listen ${name}
  bind 127.0.0.1:${port}
  mode tcp
  timeout client 12h
  timeout server 12h
  option tcpka
  option tcp-check
  tcp-check connect
  tcp-check send-binary ${startUp}
  tcp-check expect binary ${authenticated}
  tcp-check send-binary ${question}
  tcp-check expect binary ${row(says)}
  tcp-check send-binary ${farewell}
  default-server inter 500ms fastinter 200ms fall 2 rise 1 on-marked-down shutdown-sessions
${nodes.map(([node, at]) => `  server ${node} 127.0.0.1:${at} check`).join('\n')}
`;

/** Its configuration, for servers and databases by their names and ports; `instance`: after which the cookies are called. */
const configuration = ({ port, instance, servers, primary, standby, nodes }) => `# Written at each start.
global
  maxconn 4000
${process.getuid() === 0 ? '  user haproxy\n  group haproxy\n' : ''}
defaults
  mode http
  timeout connect 2s
  timeout client 75s
  timeout server 75s
  timeout queue 10s
  timeout check 2s
  # A request that reached no server goes to another one. What may have reached one is repeated by whoever asked: a browser knows whether
  # it may.
  option redispatch
  retries 3

listen dellum
  bind 127.0.0.1:${port}
  # The people of a house come to the same server, which has what the house is made of in memory and reads its changes once for all of
  # them; a server that has half as much again as the others leaves what is new to the next.
  balance hash req.cook(dellum_${instance}),field(1,.)
  hash-type consistent
  hash-balance-factor 150
  # Who asks, and under which name, is what is seen here, whatever is said.
  http-request del-header X-Forwarded-For
  http-request del-header X-Forwarded-Host
  http-request del-header X-Forwarded-Proto
  option forwardfor
  option httpchk GET /readyz
  http-check expect status 200
  default-server inter 500ms fastinter 200ms fall 2 rise 1
${servers.map(([name, at]) => `  server ${name} 127.0.0.1:${at} check`).join('\n')}
${databases('primary', primary, nodes, 'f')}${databases('standby', standby, nodes, 't')}`;

const answers = (port) =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    const end = (does) => () => {
      socket.destroy();
      resolve(does);
    };
    socket.once('connect', end(true));
    socket.once('error', end(false));
  });

/** Waits until somebody listens on a port of loopback. */
export async function listening(port) {
  while (!(await answers(port))) await new Promise((resolve) => setTimeout(resolve, 50));
}

export const ensureProxy = () => debianPackage('haproxy', 'HAProxy', () => existsSync(program));

/** Starts HAProxy for what stands where; returns the kept process. */
export async function startProxy(folder, places) {
  const file = join(folder, 'haproxy.cfg');
  writeFileSync(file, configuration(places));
  const checked = spawnSync(program, ['-c', '-q', '-f', file], { encoding: 'utf8' });
  if (checked.status !== 0) throw new Stop(`HAProxy does not take ${file}: ${checked.stderr.trim().split('\n').at(-1)}`);
  return keep('The proxy', [program, ['-db', '-f', file], { stdio: ['ignore', 'ignore', 'ignore'] }], () => listening(places.port));
}
