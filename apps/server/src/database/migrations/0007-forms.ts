// Forms: layouts, published versions, links for people without an account, and which entry came through which.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table forms (
     house_id uuid not null, id uuid not null, register_id uuid not null, title text not null, layout jsonb not null,
     edition int not null default 1, published int, primary key (house_id, id),
     foreign key (house_id, register_id) references registers on delete cascade)`,
  `create table form_versions (
     house_id uuid not null, form_id uuid not null, version int not null, title text not null, layout jsonb not null,
     at timestamptz not null default now(), person_id uuid not null, primary key (house_id, form_id, version),
     foreign key (house_id, form_id) references forms on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  `create table form_links (
     house_id uuid not null, id uuid not null, form_id uuid not null, token_hash bytea not null unique, expires_at timestamptz not null,
     per_hour int not null, person_id uuid not null, at timestamptz not null default now(), closed_at timestamptz,
     primary key (house_id, id),
     foreign key (house_id, form_id) references forms on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  // One row an entry that came through a form; the submission is made by whoever fills it, so that it is stored once.
  `create table form_fillings (
     house_id uuid not null, form_id uuid not null, submission uuid not null, version int not null, entry_id uuid not null,
     link_id uuid, at timestamptz not null default now(), primary key (house_id, form_id, submission),
     foreign key (house_id, form_id) references forms on delete cascade)`,
  `create index form_fillings_entry on form_fillings (house_id, entry_id)`,
  `create index form_fillings_link on form_fillings (house_id, link_id, at) where link_id is not null`,
  // Whoever fills a form by a link has no account.
  `alter table requests alter column person_id drop not null`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
