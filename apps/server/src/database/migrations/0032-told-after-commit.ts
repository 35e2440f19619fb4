// An edit says its number instead of announcing it: an announcement within a transaction makes all such transactions of the database, those
// of every house, commit one after the other. Servers announce what is committed.
import { sql, type Kysely } from 'kysely';

const writeCell = `
create function write_cell(
  house uuid, register uuid, entry uuid, known_version int, known_build bigint, new_cells jsonb, deltas jsonb,
  person uuid, field text, old_value text, new_value text, change jsonb
) returns bigint language plpgsql as $$
declare number bigint;
begin
  -- The build stays as it is until the commit; what was judged against an older one is judged anew by the caller.
  perform pg_advisory_xact_lock_shared(hashtextextended(house::text, 0));
  perform 1 from houses where id = house and build = known_build;
  if not found then return null; end if;
  update entries set cells = new_cells, version = version + 1
    where house_id = house and register_id = register and id = entry and version = known_version;
  if not found then return null; end if;
  insert into value_deltas (house_id, field_id, value, entries)
    select house, delta."fieldId", delta.value, delta.entries
    from jsonb_to_recordset(deltas) as delta("fieldId" uuid, value text, entries bigint);
  insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, entry_version, from_value, to_value)
    values (house, person, 'cell.written', register, entry, field, known_version + 1, old_value, new_value);
  update house_counters set seq = seq + 1 where house_id = house returning seq into number;
  insert into changes (house_id, seq, audience, body) values (house, number, 'everyone', change);
  return number;
end $$`;

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`drop function write_cell(uuid, uuid, uuid, int, bigint, jsonb, jsonb, uuid, text, text, text, jsonb, text)`.execute(db);
  await sql.raw(writeCell).execute(db);
}
