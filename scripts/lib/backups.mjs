// Backups: the whole database as one file in PostgreSQL's own format, looked at by restoring it before it counts as one.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './packages.mjs';
import { postgresTool } from './postgres.mjs';
import { Stop } from './say.mjs';

const nightly = 'nightly-';
const keptNights = 7;
const aDay = 86_400_000;

function tool(name, args, what) {
  const done = spawnSync(postgresTool(name), args, { encoding: 'utf8', env: { ...process.env, LC_ALL: 'C.UTF-8' }, maxBuffer: 2 ** 26 });
  if (done.status !== 0) throw new Stop(`${what}: ${done.stderr?.trim().split('\n').at(-1) ?? done.error?.message}`);
  return done.stdout;
}

const query = (url, sql) =>
  tool('psql', ['-X', '-q', '-A', '-t', '-v', 'ON_ERROR_STOP=1', '-c', sql, url], 'The database does not answer').trim();

const hasHouse = (url) =>
  query(url, "select to_regclass('houses') is not null") === 't' && Number(query(url, 'select count(*) from houses')) > 0;

const stamp = () => new Date().toISOString().slice(0, 19).replaceAll(':', '-');

/** Restores a backup into an empty database, whole or not at all. */
const restoreInto = (url, file) =>
  tool(
    'pg_restore',
    ['--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction', '-d', url, file],
    `The backup ${file} cannot be restored`,
  );

/** Restores it into a database of its own beside the others, and drops that again. Returns how many entries it holds. */
function look(url, file) {
  const name = `backup_check_${process.pid}`;
  query(url, `create database ${name}`);
  try {
    const beside = new URL(url);
    beside.pathname = `/${name}`;
    restoreInto(beside.href, file);
    return Number(query(beside.href, 'select count(*) from entries'));
  } finally {
    query(url, `drop database ${name} with (force)`);
  }
}

/** Files that were downloaded can be made anew. */
const withoutFiles = ['downloads', 'download_parts'].map((table) => `--exclude-table-data=${table}`);

/** Writes a backup while people go on working, and looks at it. Returns its file and how many entries are in it. */
export function backUp(url, folder, name = `dellum-${stamp()}`) {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw new Stop(`The folder ${folder} cannot be written (${error.code}). Choose another.`);
  }
  const file = join(folder, `${name}.dump`);
  const part = `${file}.part`;
  try {
    tool('pg_dump', ['-Fc', ...withoutFiles, '-f', part, url], 'The backup could not be written');
    const entries = look(url, part);
    renameSync(part, file);
    return { file, entries };
  } finally {
    rmSync(part, { force: true });
  }
}

/** Brings a backup into a database without any house. */
export function restore(url, file) {
  if (!existsSync(file)) throw new Stop(`There is no file ${file}.`);
  tool('pg_restore', ['--list', file], `${file} is no backup of Dellum`);
  if (hasHouse(url))
    throw new Stop(
      'There is a house in this data folder already. Restore into an empty or a new one: DELLUM_DATA=FOLDER npm run restore -- FILE',
    );
  query(url, 'drop schema if exists jobs cascade; drop schema if exists public cascade; create schema public');
  restoreInto(url, file);
  return Number(query(url, 'select count(*) from entries'));
}

/** Makes the backup of the night when the last one is a day old; those of the last seven nights are kept. */
export function backUpNightly(url, folder) {
  const all = () =>
    existsSync(folder)
      ? readdirSync(folder)
          .filter((name) => name.startsWith(nightly) && name.endsWith('.dump'))
          .sort()
      : [];
  const newest = all().at(-1);
  if (newest && Date.now() - statSync(join(folder, newest)).mtimeMs < aDay) return undefined;
  if (!hasHouse(url)) return undefined;
  const made = backUp(url, folder, `${nightly}${stamp()}`);
  for (const old of all().slice(0, -keptNights)) rmSync(join(folder, old));
  return made;
}

/** How many migrations this version has. */
export const migrationsBuilt = () =>
  readdirSync(join(root, 'apps', 'server', 'dist', 'database', 'migrations')).filter((name) => name.endsWith('.js')).length;

/** True when the database is there but of an older form than the migrations of this version. */
export function isOlder(url, migrations) {
  if (query(url, "select to_regclass('kysely_migration') is not null") !== 't') return false;
  return Number(query(url, 'select count(*) from kysely_migration')) < migrations;
}
