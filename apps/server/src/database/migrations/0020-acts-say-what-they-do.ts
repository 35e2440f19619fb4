// Acts on blocks are called acts, and filling down is called filling: to carry is what corrections do.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table entry_acts rename column deed to what`.execute(db);
  await sql`
    update entry_acts
    set what = (what - 'deed') || jsonb_build_object('does', case what ->> 'deed' when 'carry' then 'fill' else what ->> 'deed' end)
  `.execute(db);
}
