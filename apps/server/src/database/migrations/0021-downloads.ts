// Files that go out: what is in them was settled when they were asked for; a job writes them part by part.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table downloads (
     house_id uuid not null references houses (id) on delete cascade, id bigint generated always as identity, person_id uuid not null,
     register_id uuid not null, at timestamptz not null default now(), name text not null, wanted jsonb not null, fields jsonb not null,
     entries uuid[] not null, done int not null default 0, state text not null default 'under way', written jsonb, parts int not null default 0,
     bytes bigint not null default 0, primary key (house_id, id),
     foreign key (house_id, person_id) references people (house_id, id) on delete cascade,
     foreign key (house_id, register_id) references registers (house_id, id) on delete cascade)`,
  `create table download_parts (
     house_id uuid not null, download_id bigint not null, part int not null, bytes bytea not null, primary key (house_id, download_id, part),
     foreign key (house_id, download_id) references downloads (house_id, id) on delete cascade)`,
  `alter table download_parts alter column bytes set storage external`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
