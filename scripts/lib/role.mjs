// A database as a server needs it: brought to its newest form, with a role that can neither change tables nor take anything out of the ledger.
import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './packages.mjs';
import { Stop } from './say.mjs';

export const serverRole = 'dellum_server';

function prepare(script, args, env) {
  const done = spawnSync(process.execPath, [join(root, ...script), ...args], { env: { ...process.env, ...env }, encoding: 'utf8' });
  if (done.status === 0) return;
  throw new Stop(
    `The database could not be prepared (${done.stderr.trim().split('\n').at(-1)}). Check DATABASE_URL, or repair the data folder.`,
  );
}

/** Loads the demo where it is not there yet; `fresh`: in any case. */
export const loadDemo = (url, fresh) => prepare(['demo', 'dist', 'load.js'], fresh ? ['--fresh'] : [], { DATABASE_URL: url });

/** Brings the database to its newest form and makes the role of the servers; returns its password, which stands in the data folder. */
export function prepareRole(url, folder) {
  const file = join(folder, 'server.password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('base64url'), { mode: 0o600 });
  const password = readFileSync(file, 'utf8');
  prepare(['apps', 'server', 'dist', 'database', 'prepare.js'], [], {
    DATABASE_URL: url,
    DELLUM_ROLE: serverRole,
    DELLUM_ROLE_PASSWORD: password,
  });
  return password;
}

/** An address under the role of the servers. */
export function asServer(url, password, port = new URL(url).port) {
  const own = new URL(url);
  own.username = serverRole;
  own.password = password;
  own.port = String(port);
  return own.href;
}
