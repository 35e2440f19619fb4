// A second database with a registry of vessel classes, and an account that can only read it.
import { randomBytes } from 'node:crypto';
import pg from 'pg';

const classes = [
  ['TUG', 'Tug', 45],
  ['CST', 'Coaster', 90],
  ['BLK', 'Bulk carrier', 190],
  ['FSH', 'Fishing boat', 35],
  ['FRY', 'Ferry', 160],
  ['TNK', 'Tanker', 180],
  ['BRG', 'Barge', 80],
  ['PLT', 'Pilot boat', 20],
];

/**
 * Lays the registry out beside the database of `url` (whose account must be allowed to); returns the address for the
 * account that can only read. What is there already stays; the reader gets a new password each time.
 */
export async function layOutVesselRegistry(url, name = 'vessel_registry') {
  const password = randomBytes(18).toString('base64url');
  const reader = `${name}_reader`;
  const administer = async (address, ...statements) => {
    const client = new pg.Client({ connectionString: address });
    await client.connect();
    try {
      for (const statement of statements) await client.query(statement);
      return client;
    } finally {
      await client.end();
    }
  };
  const own = new URL(url);
  own.pathname = `/${name}`;
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const there = await client.query('select (select count(*) from pg_database where datname = $1) as databases, (select count(*) from pg_roles where rolname = $2) as roles', [name, reader]);
  await client.end();
  if (there.rows[0].databases === '0') await administer(url, `create database ${name}`);
  if (there.rows[0].roles === '0') await administer(url, `create role ${reader} login`);
  const rows = classes.map(([code, title, length]) => `('${code}', '${title}', ${length})`).join(', ');
  await administer(url, `alter role ${reader} password '${password}'`);
  await administer(
    own.href,
    'create schema if not exists registry',
    'create table if not exists registry.vessel_classes (code text primary key, title text not null, greatest_length int not null)',
    `insert into registry.vessel_classes values ${rows} on conflict do nothing`,
    `grant usage on schema registry to ${reader}`,
    `grant select on registry.vessel_classes to ${reader}`,
  );
  own.username = reader;
  own.password = password;
  return own.href;
}
