// Entries that are closed to all but administrators: when, said by the register.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table registers add column closing jsonb`.execute(db);
}
