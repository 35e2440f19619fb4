// Sheets for some: groups of people, and which of them look at a sheet or enter data in it.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create table people_groups (
    house_id uuid not null references houses on delete cascade, id uuid not null, name text not null, name_key text not null,
    primary key (house_id, id), unique (house_id, name_key))`.execute(db);
  await sql`create table group_members (
    house_id uuid not null, group_id uuid not null, person_id uuid not null,
    primary key (house_id, group_id, person_id),
    foreign key (house_id, group_id) references people_groups on delete cascade,
    foreign key (house_id, person_id) references people on delete cascade)`.execute(db);
  // A sheet that is limited to groups stays so when its last group is deleted: it is then there for administrators alone.
  await sql`alter table sheets add column limited boolean not null default false`.execute(db);
  await sql`create table sheet_groups (
    house_id uuid not null, sheet_id uuid not null, group_id uuid not null, enters boolean not null,
    primary key (house_id, sheet_id, group_id),
    foreign key (house_id, sheet_id) references sheets on delete cascade,
    foreign key (house_id, group_id) references people_groups on delete cascade)`.execute(db);
}
