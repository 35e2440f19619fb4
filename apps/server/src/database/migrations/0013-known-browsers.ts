// A browser in which somebody has signed in before is known: whoever guesses elsewhere cannot lock that person out of it.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create table known_browsers (
    house_id uuid not null, person_id uuid not null, token_hash bytea not null, at timestamptz not null default now(),
    primary key (house_id, person_id, token_hash), foreign key (house_id, person_id) references people on delete cascade)`.execute(db);
  await sql`create index sign_in_tries_key on sign_in_tries (house_id, sign_in_key, at)`.execute(db);
}
