// Some migrations were changed after they had run somewhere: what a database may lack because of that is brought here.
// Each statement does nothing where the migration had it already.
import { sql, type Kysely } from 'kysely';

const statements = [
  `alter table linked_sources add column if not exists made_by uuid`,
  `create index if not exists ledger_rules on ledger (house_id, id) where act in ('rule.set', 'rule.cleared')`,
  `update fields set rule = jsonb_set(rule, '{picking,most}', 'null') where rule ? 'picking' and not (rule -> 'picking') ? 'most'`,
  `update houses set locale = locale || '{"currency": "EUR"}'::jsonb where not locale ? 'currency'`,
  `alter table fields add column if not exists grouped text not null default ''`,
  `create index if not exists ledger_seldom on ledger (house_id, id) where act not like 'cell.%' and act not like 'entry.%'`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
