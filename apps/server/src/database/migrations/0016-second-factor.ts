// A second factor at the sign-in: codes by time (RFC 6238) from an app, and codes on paper for whoever has lost it.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table people add column factor_secret text, add column factor_pending text, add column factor_since timestamptz,
    add column factor_step bigint`.execute(db);
  await sql`create table recovery_codes (
    house_id uuid not null, person_id uuid not null, code_hash bytea not null,
    primary key (house_id, person_id, code_hash), foreign key (house_id, person_id) references people on delete cascade)`.execute(db);
  await sql`alter table houses add column factor_roles text[] not null default '{}'`.execute(db);
}
