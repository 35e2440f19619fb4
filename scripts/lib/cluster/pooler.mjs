// PgBouncer: many connections of servers become few of the database, each lent for a transaction.
import { spawnSync } from 'node:child_process';
import { chownSync, existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { debianPackage } from '../packages.mjs';
import { keep } from './keeper.mjs';
import { listening } from './proxy.mjs';

const program = '/usr/sbin/pgbouncer';
/** Connections to the database: more than its cores can use at once, few enough that none waits for memory. */
const poolSize = 24;

/** `database`: the port where the one that writes is found. */
const configuration = ({ port, database, users }) => `; Written at each start.
[databases]
postgres = host=127.0.0.1 port=${database} dbname=postgres

[pgbouncer]
listen_addr = 127.0.0.1
listen_port = ${port}
unix_socket_dir =
auth_type = scram-sha-256
auth_file = ${users}
pool_mode = transaction
default_pool_size = ${poolSize}
max_client_conn = 2000
ignore_startup_parameters = extra_float_digits
; A database that was away is tried again soon, and nobody waits for it longer than a browser waits for its answer.
server_login_retry = 1
server_connect_timeout = 3
query_wait_timeout = 10
tcp_keepalive = 1
`;

export const ensurePooler = () => debianPackage('pgbouncer', 'PgBouncer', () => existsSync(program));

const idOf = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout);

/** Starts PgBouncer for one role; returns the kept process. It refuses root, so that root hands it to the account of the database. */
export async function startPooler(folder, { port, database, role, password }) {
  const [users, file] = [join(folder, 'pgbouncer.users'), join(folder, 'pgbouncer.ini')];
  writeFileSync(users, `"${role}" "${password}"\n`, { mode: 0o600 });
  writeFileSync(file, configuration({ port, database, users }));
  const account = process.getuid() === 0 ? { uid: idOf('-u'), gid: idOf('-g') } : {};
  if (account.uid !== undefined) for (const own of [users, file]) chownSync(own, account.uid, account.gid);
  const command = [program, ['-q', file], { stdio: ['ignore', 'ignore', 'ignore'], cwd: '/', ...account }];
  return keep('The pooler', command, () => listening(port));
}
