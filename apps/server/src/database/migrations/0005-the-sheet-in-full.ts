// The shared sheet in full: arrangements of one's own, acts on blocks, requests, stewards.
import { sql, type Kysely } from 'kysely';

const statements = [
  // The order of words and numbers that people expect: "Berth 2" before "Berth 10", whatever the case.
  `create collation natural_order (provider = icu, locale = 'und-u-kn-true')`,
  `create table arrangements (
     house_id uuid not null, person_id uuid not null, register_id uuid not null, version int not null, body jsonb not null,
     shape bigint, entries int, primary key (house_id, person_id, register_id),
     foreign key (house_id, person_id) references people on delete cascade,
     foreign key (house_id, register_id) references registers on delete cascade)`,
  // The entries of an arrangement in its order, a thousand a row.
  `create table arranged_entries (
     house_id uuid not null, person_id uuid not null, register_id uuid not null, chunk int not null, entries uuid[] not null,
     primary key (house_id, person_id, register_id, chunk),
     foreign key (house_id, person_id, register_id) references arrangements on delete cascade)`,

  `create table entry_acts (
     house_id uuid not null, id bigint generated always as identity, person_id uuid not null, register_id uuid not null,
     at timestamptz not null default now(), deed jsonb not null, fields jsonb not null, entries uuid[] not null, done int not null default 0,
     state text not null default 'under way', outcome jsonb not null, primary key (house_id, id),
     foreign key (house_id, register_id) references registers on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  `alter table registers add column shape bigint not null default 0`,
  // Until now a field held one value at most.
  `update fields set rule = jsonb_set(rule, '{picking,most}', 'null') where rule ? 'picking'`,
  `alter table ledger add column act_id bigint`,
  `create index ledger_act on ledger (house_id, act_id, id) where act_id is not null`,

  `create index ledger_rules on ledger (house_id, id) where act in ('rule.set', 'rule.cleared')`,

  `create table stewards (
     house_id uuid not null, catalog_id uuid not null, person_id uuid not null, primary key (house_id, catalog_id, person_id),
     foreign key (house_id, catalog_id) references catalogs on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  `create table requests (
     house_id uuid not null, id uuid not null, catalog_id uuid not null, field_id uuid not null, entry_id uuid not null,
     path jsonb not null, value text not null, person_id uuid not null, at timestamptz not null default now(),
     state text not null default 'waiting', answer text, word text, answered_by uuid, answered_at timestamptz,
     primary key (house_id, id),
     foreign key (house_id, catalog_id) references catalogs on delete cascade,
     foreign key (house_id, field_id) references fields on delete cascade,
     foreign key (house_id, person_id) references people on delete cascade)`,
  `create index requests_waiting on requests (house_id, catalog_id) where state = 'waiting'`,
  `create index requests_entry on requests (house_id, field_id, entry_id)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
