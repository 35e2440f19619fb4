// Sheets that stay in the house: nobody but administrators downloads them.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table sheets add column downloads boolean not null default true`.execute(db);
}
