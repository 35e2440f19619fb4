// Parts of files are packed in a way that costs a tenth of the time; whether a file is UTF-8 is known from when it came.
import { sql, type Kysely } from 'kysely';

const statements = [
  ...['download_parts', 'returned_parts', 'looked_archive_parts', 'adopted_parts'].map(
    (table) => `alter table ${table} alter bytes set compression lz4`,
  ),
  `alter table adopted_files add column is_utf8 boolean`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
