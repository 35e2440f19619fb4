// How the database is laid out, compared with how this version expects it. What is missing would end in faults far from their cause.
import { sql, type Kysely } from 'kysely';
import { expectedSchema } from './expectedSchema.js';
import type { Tables } from './tables.js';

/** The tables and views with their columns, the indexes and the functions of a database: a line each, in order. */
export async function schemaOf(db: Kysely<Tables>): Promise<string[]> {
  const { rows } = await sql<{ line: string }>`
    with own as (select oid, relname from pg_class where relnamespace = 'public'::regnamespace and relkind in ('r', 'v') and relname not like 'kysely_%')
    select line from (
      select 'table ' || relname || ': ' || string_agg(attname || ' ' || format_type(atttypid, atttypmod) || case when attnotnull then ' not null' else '' end, ', ' order by attname) as line
      from own join pg_attribute on attrelid = own.oid and attnum > 0 and not attisdropped group by relname
      union all
      select 'index ' || index.relname || ' of ' || own.relname from own join pg_index on indrelid = own.oid join pg_class as index on index.oid = indexrelid
      union all
      select 'function ' || proname from pg_proc where pronamespace = 'public'::regnamespace
    ) as lines order by line collate "C"`.execute(db);
  return rows.map(({ line }) => line);
}

/** Throws where the database lacks what this version cannot do without; what only makes it slow is told. */
export async function mustBeLaidOut(db: Kysely<Tables>, warn: (words: string) => void): Promise<void> {
  const missing = await missingIn(db);
  const [slow, needed] = [true, false].map((isIndex) => missing.filter((name) => name.startsWith('index ') === isIndex)) as [
    string[],
    string[],
  ];
  if (slow.length > 0)
    warn(`The database lacks ${slow.join(', ')}; it is slower without. Make a backup and restore it, which lays it out anew.`);
  if (needed.length > 0)
    throw new Error(
      `It lacks ${needed.slice(0, mostNamed).join(', ')}${needed.length > mostNamed ? ` and ${needed.length - mostNamed} more` : ''}, which this version of Dellum needs. Somebody has changed how it is laid out; restore the last backup.`,
    );
}
const mostNamed = 5;

/** What a database lacks of what this version works with, in words; nothing where it is whole. What it has besides does no harm. */
export async function missingIn(db: Kysely<Tables>): Promise<string[]> {
  const found = new Set(await schemaOf(db));
  const columns = new Map([...found].map((line) => [line.split(':')[0]!, new Set(columnsOf(line))]));
  return expectedSchema.flatMap((line) => {
    if (found.has(line)) return [];
    const [name] = line.split(':') as [string];
    const known = columns.get(name);
    if (!known || !name.startsWith('table ')) return [name.split(' of ')[0]!];
    return columnsOf(line).flatMap((column) => (known.has(column) ? [] : [`${name.slice('table '.length)}.${column.split(' ')[0]!}`]));
  });
}

const columnsOf = (line: string): string[] => (line.split(': ')[1] ?? '').split(', ').filter((column) => column !== '');
