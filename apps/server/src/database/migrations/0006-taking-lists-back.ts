// Amounts, which need the currency of the house. Carries that belong to an act: what they rewrite is in the ledger entry by entry, so that the act can be taken back.
import { sql, type Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table carries add column act_id bigint`.execute(db);
  await sql`update houses set locale = locale || '{"currency": "EUR"}'::jsonb where not locale ? 'currency'`.execute(db);
  await sql`create index ledger_gathered on ledger (house_id, register_id, field_key) where act in ('column.gathered', 'column.ungathered')`.execute(
    db,
  );
}
