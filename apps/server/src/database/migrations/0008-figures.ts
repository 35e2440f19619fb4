// Figures that are kept under a name; fields of a record in groups.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create table figures (
    house_id uuid not null, id uuid not null, register_id uuid not null, title text not null, definition jsonb not null, person_id uuid not null,
    primary key (house_id, id),
    foreign key (house_id, register_id) references registers on delete cascade,
    foreign key (house_id, person_id) references people on delete cascade)`.execute(db);
  await sql`alter table fields add column grouped text not null default ''`.execute(db);
}
