// How many entries hold each combination of some fields, kept by the database itself: whatever changes entries is noted by its statement, as
// numbers that a job adds up. Counted by a scan, they cost a look at every entry after each change.
import { sql, type Kysely } from 'kysely';

const tables = [
  `create table kept_combinations (
     house_id uuid not null, id uuid not null default gen_random_uuid(), register_id uuid not null, keys text[] not null,
     state text not null check (state in ('counting', 'counted', 'many')), asked_on date not null default current_date,
     primary key (house_id, id), unique (house_id, register_id, keys),
     foreign key (house_id, register_id) references registers (house_id, id) on delete cascade)`,
  `create table combination_counts (
     house_id uuid not null, kept_id uuid not null, digest uuid not null, texts text[] not null, entries bigint not null,
     primary key (house_id, kept_id, digest),
     foreign key (house_id, kept_id) references kept_combinations (house_id, id) on delete cascade)`,
  `create table combination_deltas (
     house_id uuid not null, id bigint generated always as identity primary key, kept_id uuid not null, texts text[] not null,
     entries bigint not null)`,
  `create index combination_deltas_kept on combination_deltas (house_id, kept_id)`,
];

/**
 * What a statement has changed. The shared lock ends with the transaction: whoever begins to keep combinations of the register waits for
 * it, so that each change is either in the entries that are counted or in the numbers that are noted after.
 */
const noted = (name: string, of: string, changed: string) => `
create function ${name}() returns trigger language plpgsql as $$
begin
  perform pg_advisory_xact_lock_shared(hashtextextended('combinations of ' || register_id::text, 0))
    from (select distinct register_id from ${of}) as touched;
  if exists (
    select from kept_combinations
    where (house_id, register_id) in (select distinct house_id, register_id from ${of}) and state <> 'many'
  ) then
    insert into combination_deltas (house_id, kept_id, texts, entries)
      select kept.house_id, kept.id, combined(changed.cells, kept.keys), sum(changed.entries)
      from (${changed}) as changed
      join kept_combinations as kept on kept.house_id = changed.house_id and kept.register_id = changed.register_id and kept.state <> 'many'
      group by 1, 2, 3 having sum(changed.entries) <> 0;
  end if;
  return null;
end $$`;

const came = `select house_id, register_id, cells, 1 as entries from came`;
const gone = `select house_id, register_id, cells, -1 as entries from gone`;

const statements = [
  ...tables,
  `create function combined(cells jsonb, keys text[]) returns text[] language sql immutable parallel safe as
     $$ select array(select cells ->> key from unnest(keys) with ordinality as one(key, nth) order by nth) $$`,
  noted('note_come', 'came', came),
  noted('note_gone', 'gone', gone),
  noted('note_changed', 'came', `${came} union all ${gone}`),
  `create trigger entries_come after insert on entries referencing new table as came for each statement execute function note_come()`,
  `create trigger entries_gone after delete on entries referencing old table as gone for each statement execute function note_gone()`,
  `create trigger entries_changed after update on entries referencing old table as gone new table as came
     for each statement execute function note_changed()`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
