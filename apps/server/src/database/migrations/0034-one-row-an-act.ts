// An act on many cells costs few rows. What it writes into several fields of an entry is one row of the ledger, not one a field; and how it
// changes the numbers of many values of a field is one row, not one a value. Whoever reads them one by one reads the views.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    // The fields of such a row: what each held and what it holds, {"quay": ["North", "South"]}; null for blank.
    `alter table ledger add column fields jsonb`,
    `create view ledger_lines as
       select ledger.house_id, ledger.id, ledger.at, ledger.person_id, ledger.act, ledger.register_id, ledger.entry_id,
         coalesce(ledger.field_key, cell.key) as field_key, ledger.entry_version, coalesce(ledger.from_value, cell.value ->> 0) as from_value,
         coalesce(ledger.to_value, cell.value ->> 1) as to_value, ledger.detail, ledger.act_id
       from ledger left join lateral jsonb_each(ledger.fields) as cell on true`,
    // Rows that were sealed before are sealed as they were.
    `create or replace function ledger_row(l ledger) returns text language sql stable as $$
       select (jsonb_build_array(l.id, extract(epoch from l.at)::text, l.person_id, l.act, l.register_id, l.entry_id, l.field_key,
         l.entry_version, l.from_value, l.to_value, l.detail, l.act_id)
         || case when l.fields is null then '[]'::jsonb else jsonb_build_array(l.fields) end)::text
     $$`,
    // Nobody asks for one delta by its number.
    `alter table value_deltas drop column id`,
    // Deltas of many values of one field, until they are folded: held[n] is in numbers[n] more entries.
    `create table value_blocks (
       house_id uuid not null, field_id uuid not null, held text[] not null, numbers bigint[] not null)`,
    `create index value_blocks_field on value_blocks (house_id, field_id)`,
    `create view value_numbers as
       select house_id, field_id, value, entries from value_counts
       union all select house_id, field_id, value, entries from value_deltas
       union all select house_id, field_id, delta.value, delta.entries from value_blocks, unnest(held, numbers) as delta(value, entries)`,
    // How far an act is, is asked for all the time; all that it pastes, and the entries that it reaches, need not be read for it.
    `alter table entry_acts add column does text not null generated always as (what ->> 'does') stored,
       add column total int not null generated always as (cardinality(entries)) stored`,
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
