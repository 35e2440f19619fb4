// What takes long to find in the sources of a house is kept with the version of them in which it was found: a server that has just started,
// or has the next version before it, can say at once what was found last.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table kept_findings (
      house_id uuid not null references houses (id) on delete cascade, what text not null, version bigint not null, found jsonb not null,
      primary key (house_id, what))`.execute(db);
}
