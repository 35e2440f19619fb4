// The ledger is sealed: a digest chained over its rows, so that whoever changes or takes out one of them is found out. And people are looked
// for in it.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    // Whoever writes holds this lock until the end of the transaction, from before the rows get their numbers: who has it alone knows that no
    // row of a number up to the newest one is still to come.
    `create function ledger_begun() returns trigger language plpgsql as $$
       begin
         perform pg_advisory_xact_lock_shared(hashtext('dellum.ledger'));
         return null;
       end $$`,
    `create trigger ledger_begun before insert on ledger for each statement execute function ledger_begun()`,
    `create table ledger_seals (
       house_id uuid not null references houses on delete cascade, ord int not null, upto bigint not null, rows bigint not null,
       digest text not null, at timestamptz not null default now(), primary key (house_id, ord))`,
    // What is sealed of a row: each member as a text that every version of PostgreSQL writes in one way.
    `create function ledger_row(l ledger) returns text language sql stable as $$
       select jsonb_build_array(l.id, extract(epoch from l.at)::text, l.person_id, l.act, l.register_id, l.entry_id, l.field_key,
         l.entry_version, l.from_value, l.to_value, l.detail, l.act_id)::text
     $$`,
    `create index ledger_person on ledger (house_id, person_id, id)`,
    // All but what people enter, which is most of it: an act of another sort is found without reading through that.
    `create index ledger_seldom on ledger (house_id, id) where act not like 'cell.%' and act not like 'entry.%'`,
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
