// People who are put out of the house and let in again; from where a session was begun.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table people add column out_since timestamptz`.execute(db);
  await sql`alter table sessions add column id uuid not null default gen_random_uuid(), add column begun_at timestamptz not null default now(), add column begun_from text not null default ''`.execute(
    db,
  );
}
