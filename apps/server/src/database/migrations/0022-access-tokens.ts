// Other programs: access tokens, of which only the hash is kept, and the answers that are given again to a request sent twice.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table access_tokens (
     house_id uuid not null references houses (id) on delete cascade, id uuid not null, name text not null, name_key text not null,
     token_hash bytea not null, writes boolean not null, catalogs uuid[] not null, registers uuid[] not null, until date not null,
     made_by uuid, made_at timestamptz not null default now(), ended_at timestamptz, last_used_at timestamptz,
     minute timestamptz not null default now(), asked int not null default 0, primary key (house_id, id),
     unique (house_id, token_hash))`,
  `create table program_answers (
     house_id uuid not null, token_id uuid not null, key text not null, asked bytea not null, answer json, at timestamptz not null default now(),
     primary key (house_id, token_id, key),
     foreign key (house_id, token_id) references access_tokens (house_id, id) on delete cascade)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
