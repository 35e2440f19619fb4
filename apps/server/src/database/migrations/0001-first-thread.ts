// The tables of the first thread: houses, people, sheets, entries, ranges, catalogs, carries, ledger, changes.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table instance (id text primary key)`,
  `create table houses (
     id uuid primary key, key text not null unique, name text not null, locale jsonb not null,
     demo boolean not null default false, build bigint not null default 1)`,
  `create table house_counters (
     house_id uuid primary key references houses on delete cascade, seq bigint not null) with (fillfactor = 50)`,
  `create table people (
     house_id uuid not null references houses on delete cascade, id uuid not null, name text not null,
     sign_in text not null, sign_in_key text not null, role text not null, password_hash text not null,
     primary key (house_id, id), unique (house_id, sign_in_key))`,
  `create table sessions (
     house_id uuid not null, token_hash bytea not null, person_id uuid not null,
     last_seen_at timestamptz not null default now(), expires_at timestamptz not null,
     primary key (house_id, token_hash),
     foreign key (house_id, person_id) references people on delete cascade)`,
  `create index sessions_person on sessions (house_id, person_id)`,
  `create table sign_in_tries (
     house_id uuid not null references houses on delete cascade, id bigint generated always as identity,
     sign_in_key text not null, address text not null, at timestamptz not null default now(),
     primary key (house_id, id))`,
  `create index sign_in_tries_at on sign_in_tries (house_id, at)`,
  `create table sheets (
     house_id uuid not null references houses on delete cascade, id uuid not null, kind text not null,
     title text not null, note text not null, ord int not null, primary key (house_id, id))`,
  `create table registers (
     house_id uuid not null, id uuid not null, sheet_id uuid not null, title text not null, ord int not null,
     primary key (house_id, id), foreign key (house_id, sheet_id) references sheets on delete cascade)`,
  `create table catalogs (
     house_id uuid not null references houses on delete cascade, id uuid not null, key text not null,
     title text not null, note text not null, version bigint not null default 1,
     primary key (house_id, id), unique (house_id, key))`,
  `create table fields (
     house_id uuid not null, id uuid not null, register_id uuid not null, key text not null, heading text not null,
     kind text not null, width int not null, ord int not null, rule jsonb, catalog_id uuid,
     primary key (house_id, id), unique (house_id, register_id, key),
     foreign key (house_id, register_id) references registers on delete cascade,
     foreign key (house_id, catalog_id) references catalogs)`,
  `create table entries (
     house_id uuid not null, register_id uuid not null, id uuid not null, pos bigint not null,
     version int not null default 1, cells jsonb not null,
     primary key (house_id, register_id, id),
     foreign key (house_id, register_id) references registers on delete cascade) with (fillfactor = 85)`,
  `create index entries_pos on entries (house_id, register_id, pos)`,
  `create table chunks (
     house_id uuid not null, register_id uuid not null, from_pos bigint not null, entries int not null,
     primary key (house_id, register_id, from_pos),
     foreign key (house_id, register_id) references registers on delete cascade)`,
  `create table value_counts (
     house_id uuid not null, field_id uuid not null, value text not null, entries bigint not null,
     primary key (house_id, field_id, value),
     foreign key (house_id, field_id) references fields on delete cascade)`,
  `create table value_deltas (
     house_id uuid not null, id bigint generated always as identity, field_id uuid not null, value text not null,
     entries bigint not null, primary key (house_id, id))`,
  `create index value_deltas_value on value_deltas (house_id, field_id, value)`,
  `create table ranges (
     house_id uuid not null, id uuid not null, register_id uuid not null, field_key text not null, name text not null,
     name_key text not null, range_start jsonb not null, range_end jsonb not null,
     primary key (house_id, id), unique (house_id, name_key),
     foreign key (house_id, register_id) references registers)`,
  `create table catalog_parts (
     house_id uuid not null, catalog_id uuid not null, ord int not null, range_id uuid not null,
     primary key (house_id, catalog_id, ord),
     foreign key (house_id, catalog_id) references catalogs on delete cascade,
     foreign key (house_id, range_id) references ranges)`,
  `create table kept_items (
     house_id uuid not null, catalog_id uuid not null, value text not null, primary key (house_id, catalog_id, value),
     foreign key (house_id, catalog_id) references catalogs on delete cascade)`,
  `create table other_names (
     house_id uuid not null, catalog_id uuid not null, name text not null, value text not null,
     primary key (house_id, catalog_id, name),
     foreign key (house_id, catalog_id) references catalogs on delete cascade)`,
  `create table slips (
     house_id uuid not null, id uuid not null, person_id uuid not null, register_id uuid not null,
     proposal jsonb not null, questions jsonb not null, inside int not null, entries jsonb not null,
     at timestamptz not null default now(), primary key (house_id, id),
     foreign key (house_id, register_id) references registers on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  `create table carries (
     house_id uuid not null, id uuid not null, field_id uuid not null, from_value text not null, to_value text not null,
     reached uuid, done bigint not null, total bigint not null, finished_at timestamptz,
     primary key (house_id, id), foreign key (house_id, field_id) references fields on delete cascade)`,
  `create index carries_open on carries (house_id) where finished_at is null`,
  `create table ledger (
     house_id uuid not null references houses on delete cascade, id bigint generated always as identity,
     at timestamptz not null default now(), person_id uuid, act text not null, register_id uuid, entry_id uuid,
     field_key text, entry_version int, from_value text, to_value text, detail jsonb, primary key (house_id, id))`,
  `create index ledger_entry on ledger (house_id, entry_id, field_key) where entry_id is not null`,
  `create table changes (
     house_id uuid not null references houses on delete cascade, seq bigint not null, audience text not null,
     body jsonb not null, at timestamptz not null default now(), primary key (house_id, seq))`,
  `insert into instance select substr(md5(gen_random_uuid()::text), 1, 8)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
