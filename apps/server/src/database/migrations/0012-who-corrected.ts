// What follows a correction in an entry is told with who decided it.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table carries add column person_id uuid`.execute(db);
}
