// Webhooks: what is told to which address, and the messages with what was answered to them.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table webhooks (
     house_id uuid not null references houses (id) on delete cascade, id uuid not null, name text not null, name_key text not null,
     receiver text not null, secret bytea not null, catalogs uuid[] not null, registers uuid[] not null, seq bigint not null,
     made_by uuid, made_at timestamptz not null default now(), failing_since timestamptz, said text, off_at timestamptz,
     last_told_at timestamptz, primary key (house_id, id), unique (house_id, name_key))`,
  `create table webhook_messages (
     house_id uuid not null, webhook_id uuid not null, id uuid not null, kind text not null check (kind in ('changes', 'test')), body text not null,
     at timestamptz not null default now(), tries int not null default 0,
     state text not null default 'waits' check (state in ('waits', 'taken', 'not taken')), next_at timestamptz not null default now(), said text,
     primary key (house_id, webhook_id, id),
     foreign key (house_id, webhook_id) references webhooks (house_id, id) on delete cascade)`,
  // While one waits, what changes meanwhile is told by the next.
  `create unique index webhook_messages_waiting on webhook_messages (house_id, webhook_id) where state = 'waits' and kind = 'changes'`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
