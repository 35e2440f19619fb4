// Rules of every kind: what they all say besides what they take, and what a rule over a catalog says of its level and parents.
import { sql, type Kysely } from 'kysely';

const statements = [
  `update fields set rule = '{"begins":{"with":"empty","value":""},"noRepeats":false,"where":null,"level":null,"parents":[],"blankParent":"nothing","misfit":"clear","fillsSingle":false,"day":null,"fitting":[],"brings":[],"picking":{"list":true,"search":"anywhere","lines":8}}'::jsonb || rule
     where rule is not null`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
