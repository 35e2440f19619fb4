// Intakes: files of one kind that come in by themselves, out of a folder or sent by a program.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table intakes (
     house_id uuid not null references houses (id) on delete cascade, id uuid not null, name text not null, name_key text not null,
     register_id uuid not null, folder text, pattern text not null, holds_all boolean not null, person_id uuid not null,
     made_at timestamptz not null default now(), off_since timestamptz, failure text, primary key (house_id, id), unique (house_id, name_key),
     foreign key (house_id, register_id) references registers (house_id, id) on delete cascade,
     foreign key (house_id, person_id) references people (house_id, id) on delete cascade)`,
  `create table intake_taken (
     house_id uuid not null, intake_id uuid not null, name text not null, size bigint not null, modified timestamptz not null,
     primary key (house_id, intake_id, name), foreign key (house_id, intake_id) references intakes (house_id, id) on delete cascade)`,
  `alter table returned_files add column intake_id uuid, add column way text not null default 'person' check (way in ('person', 'folder', 'program')),
     add column program text, add column part_of bigint,
     add foreign key (house_id, intake_id) references intakes (house_id, id) on delete set null (intake_id)`,
  `create index returned_rows_mark on returned_rows (house_id, mark) where mark is not null`,
  `create index returned_files_intake on returned_files (house_id, intake_id, id) where intake_id is not null`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
