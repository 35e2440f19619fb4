// Files that went out to be filled in, with what they held, and files that came back, with what is changed in them.
import { sql, type Kysely } from 'kysely';

const statements = [
  `alter table downloads add column sent_id uuid`,
  `create table sent_files (
     house_id uuid not null, id uuid not null, register_id uuid not null, at timestamptz not null default now(), key bytea not null, columns json,
     primary key (house_id, id), foreign key (house_id, register_id) references registers (house_id, id) on delete cascade)`,
  `create table sent_entries (
     house_id uuid not null, sent_id uuid not null, entry_id uuid not null, cells json not null, mark bytea not null, primary key (house_id, sent_id, entry_id),
     foreign key (house_id, sent_id) references sent_files (house_id, id) on delete cascade)`,
  `create table returned_files (
     house_id uuid not null references houses (id) on delete cascade, id bigint generated always as identity, person_id uuid not null,
     name text not null, at timestamptz not null default now(), digest bytea not null, bytes bigint not null, register_id uuid, sent_id uuid,
     state text not null default 'coming' check (state in ('coming', 'reading', 'unreadable', 'unclear', 'ready', 'applied')), run int not null default 0,
     done int not null default 0, why text, said json not null default '[]', headings json not null default '[]', columns json, act_id bigint,
     primary key (house_id, id), foreign key (house_id, person_id) references people (house_id, id) on delete cascade,
     foreign key (house_id, register_id) references registers (house_id, id) on delete cascade)`,
  `create table returned_parts (
     house_id uuid not null, file_id bigint not null, part int not null, bytes bytea not null, primary key (house_id, file_id, part),
     foreign key (house_id, file_id) references returned_files (house_id, id) on delete cascade)`,
  `create table returned_rows (
     house_id uuid not null, file_id bigint not null, ord int not null, row int, what text not null
       check (what in ('changed', 'new', 'missing', 'deleted')), entry_id uuid not null, cells jsonb not null, follows jsonb not null, about text not null, asked int not null, refused int not null,
     deletes boolean not null default false, mark bytea, primary key (house_id, file_id, ord),
     foreign key (house_id, file_id) references returned_files (house_id, id) on delete cascade)`,
  `create index returned_rows_entry on returned_rows (house_id, file_id, entry_id)`,
  `create table returned_shapes (
     house_id uuid not null, register_id uuid not null, shape bytea not null, columns json not null, primary key (house_id, register_id, shape),
     foreign key (house_id, register_id) references registers (house_id, id) on delete cascade)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
