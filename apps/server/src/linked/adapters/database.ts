// A table of another PostgreSQL. A read-only account is enough: nothing but reading is ever asked of it.
import { Kysely, PostgresDialect, sql } from 'kysely';
import type { DatabaseTables } from '@dellum/contract';
import { openPool } from '../../database/database.js';
import type { Granted } from '../reachable.js';
import { distinctRows, mostValues, needed, SourceFault, type LinkedAdapter, type ReadingContext } from './adapter.js';

const firstRows = 5;

const words: Readonly<Record<string, string>> = {
  '28P01': 'The database refuses the password. Ask whoever runs the server to set it right.',
  '28000': 'The database refuses the account. Ask whoever runs the server to set it right.',
  '3D000': 'The database has no such name. Ask whoever runs the server.',
  '42501': 'The account may not read this table. Ask for the right to read it.',
  '42P01': 'The table is not there any more. Choose another one.',
  '42703': 'A column is not there any more. Choose the columns again.',
  '57014': 'The database took longer than 10 seconds to answer.',
};

function faultOf(error: unknown): SourceFault {
  if (error instanceof SourceFault) return error;
  const code = error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : '';
  return new SourceFault(words[code] ?? 'The database does not answer. Try again later, or ask whoever runs the server.');
}

/** Runs a reading on the named connection, which is closed afterwards. */
async function within<T>(
  reachable: Granted,
  connection: string | undefined,
  work: (db: Kysely<Record<string, never>>) => Promise<T>,
): Promise<T> {
  const name = needed(connection, 'Choose the database.');
  const connectionString = reachable.databases.get(name);
  if (connectionString === undefined) throw new SourceFault(`There is no database “${name}” configured on the server.`);
  const pool = openPool({ connectionString, max: 1, statement_timeout: 10_000, options: '-c default_transaction_read_only=on' });
  const db = new Kysely<Record<string, never>>({ dialect: new PostgresDialect({ pool }) });
  try {
    return await work(db);
  } catch (error) {
    throw faultOf(error);
  } finally {
    await db.destroy();
  }
}

/** All tables that the account can read, with their columns. */
export function tablesOf(reachable: Granted, connection: string): Promise<DatabaseTables> {
  return within(reachable, connection, async (db) => {
    const { rows } = await sql<{ schema: string; table: string; columns: string[] }>`
      select table_schema as schema, table_name as "table", array_agg(column_name::text order by ordinal_position) as columns
      from information_schema.columns where table_schema not in ('pg_catalog', 'information_schema')
      group by 1, 2 order by 1, 2 limit 500`.execute(db);
    return { tables: rows };
  });
}

function select({ schema, table }: { schema?: string | undefined; table?: string | undefined }, columns: readonly string[], limit: number) {
  const from = sql.id(needed(schema, 'Choose the schema.'), needed(table, 'Choose the table.'));
  return sql<
    Record<string, string | null>
  >`select ${sql.join(columns.map((column) => sql`${sql.id(column)}::text as ${sql.id(column)}`))} from ${from} order by ${sql.id(columns[0]!)} limit ${limit}`;
}

export const database: LinkedAdapter<'database'> = {
  kind: 'database',
  read(settings, { reachable }) {
    const value = needed(settings.value, 'Choose the column of the value.');
    const { label, companions = [] } = settings;
    const columns = [...new Set([value, ...(label ? [label] : []), ...companions])];
    return within(reachable, settings.connection, async (db) => {
      const { rows } = await select(settings, columns, mostValues + 1).execute(db);
      return {
        rows: distinctRows(
          rows.map((row) => {
            const along = Object.fromEntries(companions.flatMap((column) => (row[column] ? [[column, row[column]]] : [])));
            return {
              value: row[value] ?? '',
              ...(label && row[label] && { label: row[label] }),
              ...(Object.keys(along).length > 0 && { companions: along }),
            };
          }),
        ),
      };
    });
  },
  async look(settings, { reachable }: ReadingContext) {
    const { tables } = await tablesOf(reachable, settings.connection ?? '');
    const found = tables.find(({ schema, table }) => schema === settings.schema && table === settings.table);
    if (!found) return { columns: [], rows: [] };
    const rows = await within(
      reachable,
      settings.connection,
      async (db) => (await select(settings, found.columns, firstRows).execute(db)).rows,
    );
    return { columns: found.columns, rows: rows.map((row) => found.columns.map((column) => row[column] ?? '')) };
  },
};
