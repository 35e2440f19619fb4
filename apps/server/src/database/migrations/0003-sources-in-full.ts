// Ranges of several stretches, composed catalogs, what catalogs keep of their items, acts that can be taken back,
// the history of catalogs, linked sources.
import { sql, type Kysely } from 'kysely';

const statements = [
  `alter table sheets add column shown boolean not null default false`,
  `alter table ranges add column shape text not null default 'list', add column inherits boolean not null default false`,
  `create table range_stretches (
     house_id uuid not null, range_id uuid not null, ord int not null, register_id uuid not null, fields jsonb not null,
     range_start jsonb not null, range_end jsonb not null, primary key (house_id, range_id, ord),
     foreign key (house_id, range_id) references ranges on delete cascade,
     foreign key (house_id, register_id) references registers)`,
  `insert into range_stretches (house_id, range_id, ord, register_id, fields, range_start, range_end)
     select house_id, id, 0, register_id, jsonb_build_array(field_key), range_start, range_end from ranges`,
  `alter table ranges drop column register_id, drop column field_key, drop column range_start, drop column range_end`,

  `alter table catalogs add column definition jsonb`,
  `update catalogs set definition = jsonb_build_object(
     'parts', coalesce((
       select jsonb_agg(jsonb_build_object('kind', 'range', 'join', 'or', 'rangeId', range_id, 'label', null, 'companions', '[]'::jsonb) order by ord)
       from catalog_parts where catalog_parts.house_id = catalogs.house_id and catalog_id = catalogs.id), '[]'::jsonb),
     'filter', null, 'distinct', 'value', 'order', '{"by":"kept"}'::jsonb)`,
  `alter table catalogs alter column definition set not null`,
  `drop table catalog_parts`,

  // Until now a kept item was a retired one.
  `alter table kept_items add column key text, add column path jsonb not null default '[]', add column retired boolean not null default true,
     add column label text, add column note text, add column colour text, add column valid_from text, add column valid_until text`,
  `update kept_items set key = value`,
  `alter table kept_items drop constraint kept_items_pkey, alter column key set not null, alter column retired drop default`,
  `alter table kept_items add primary key (house_id, catalog_id, key)`,

  // A waiting act is one step of its proposal; a waiting change of a range has another form now and is asked for anew.
  `delete from slips where proposal ->> 'what' <> 'act'`,
  `update slips set proposal = jsonb_build_object('steps', jsonb_build_array(proposal))`,
  `alter table slips drop column register_id`,

  `create table acts (
     house_id uuid not null references houses on delete cascade, id bigint generated always as identity, person_id uuid,
     at timestamptz not null default now(), registers jsonb not null, proposal jsonb not null, back jsonb not null,
     state text not null default 'done', primary key (house_id, id))`,
  `create table catalog_changes (
     house_id uuid not null, id bigint generated always as identity, catalog_id uuid not null, at timestamptz not null default now(),
     person_id uuid, act_id bigint, version bigint not null, items jsonb not null, order_before jsonb, definition_before jsonb,
     primary key (house_id, id), foreign key (house_id, catalog_id) references catalogs on delete cascade)`,
  `create index catalog_changes_catalog on catalog_changes (house_id, catalog_id, id)`,
  `create table linked_sources (
     house_id uuid not null references houses on delete cascade, id uuid not null, name text not null, name_key text not null,
     settings jsonb not null, every int not null, made_by uuid, rows jsonb not null default '[]', mark text,
     last_good_at timestamptz, last_tried_at timestamptz, failure text,
     primary key (house_id, id), unique (house_id, name_key))`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
