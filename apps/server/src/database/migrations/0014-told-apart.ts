// Values that look alike and are two things, as somebody has said: they are not brought up again.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create table told_apart (
    house_id uuid not null references houses on delete cascade, id uuid not null, one text not null, other text not null,
    primary key (house_id, id))`.execute(db);
}
