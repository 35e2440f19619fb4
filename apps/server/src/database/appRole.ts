// The role under which the server works: it reads and writes what people enter, changes no table, and takes nothing out of the ledger.
import { sql, type Kysely } from 'kysely';
import type { Tables } from './tables.js';

/** What the server adds to and never changes. */
const appendOnly = ['ledger', 'ledger_seals'];
/** What only the owner of the database writes. */
const ownersOnly = ['kysely_migration', 'kysely_migration_lock'];

export interface AppRole {
  readonly name: string;
  readonly password: string;
}

/**
 * Makes the role, or brings it to what it may do in the database as it is now. Ask as the owner of the database, after each migration.
 * The queue lays out its own tables, so that it has a schema to itself.
 */
export async function prepareAppRole(db: Kysely<Tables>, { name, password }: AppRole): Promise<void> {
  const role = sql.id(name);
  await db.transaction().execute(async (trx) => {
    const run = (statement: ReturnType<typeof sql>) => statement.execute(trx);
    const { rows } = await sql<{ database: string; known: boolean }>`
      select current_database() as database, exists (select from pg_roles where rolname = ${name}) as known`.execute(trx);
    const [{ database, known }] = rows as [{ database: string; known: boolean }];
    if (!known) await run(sql`create role ${role}`);
    await run(
      sql`alter role ${role} with login nosuperuser nocreatedb nocreaterole noreplication nobypassrls password ${sql.lit(password)}`,
    );
    await run(sql`grant connect, create on database ${sql.id(database)} to ${role}`);
    await run(sql`revoke create on schema public from public`);
    await run(sql`grant usage on schema public to ${role}`);
    await run(sql`grant select, insert, update, delete on all tables in schema public to ${role}`);
    await run(sql`revoke update, delete, truncate on table ${sql.join(appendOnly.map((table) => sql.table(table)))} from ${role}`);
    await run(sql`revoke insert, update, delete on table ${sql.join(ownersOnly.map((table) => sql.table(table)))} from ${role}`);
    await run(sql`create schema if not exists jobs`);
    await run(sql`alter schema jobs owner to ${role}`);
    const { rows: owned } = await sql<{ statement: string }>`
      select format('alter table jobs.%I owner to %I', relname, ${name}::text) as statement
        from pg_class where relnamespace = 'jobs'::regnamespace and relkind in ('r', 'p', 'v')
      union all
      select format('alter type jobs.%I owner to %I', typname, ${name}::text) from pg_type where typnamespace = 'jobs'::regnamespace and typtype = 'e'
      union all
      select format('alter function %s owner to %I', oid::regprocedure, ${name}::text) from pg_proc where pronamespace = 'jobs'::regnamespace`.execute(
      trx,
    );
    for (const { statement } of owned) await run(sql.raw(statement));
  });
}
