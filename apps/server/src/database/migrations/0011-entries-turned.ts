// A slip says how many entries come outside whatever is answered.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table slips add column outside jsonb not null default '[]'`.execute(db);
}
