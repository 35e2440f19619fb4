// Queries for webhooks, and for the messages that they send.
import { Injectable } from '@nestjs/common';
import { matchKey } from '@dellum/core';
import type { WebhookDto, WebhookMessageKind, WebhookMessageView, WebhookView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import type { Sent } from './sending.js';

export interface NewWebhook extends WebhookDto {
  readonly id: string;
  readonly secret: Buffer;
  readonly seq: number;
  readonly madeBy: string;
}
export interface NewMessage {
  readonly webhookId: string;
  readonly id: string;
  readonly kind: WebhookMessageKind;
  readonly body: string;
}
/** A message that is sent now. */
export interface DueMessage extends NewMessage {
  readonly name: string;
  readonly receiver: string;
  readonly secret: Buffer;
  readonly tries: number;
}
/** What came of sending a message. */
export interface Tried extends Sent {
  readonly webhookId: string;
  readonly id: string;
  readonly kind: WebhookMessageKind;
}

/** While a message is under way nobody else sends it; longer than an answer is waited for (seconds). */
const lease = 25;
const mostListed = 50;
/** So many messages of a webhook are kept. */
const mostKept = 500;

@Injectable()
export class WebhooksStore {
  async add(trx: Trx, houseId: string, { name, madeBy, catalogs, registers, ...webhook }: NewWebhook): Promise<void> {
    await trx
      .insertInto('webhooks')
      .values({
        house_id: houseId,
        ...webhook,
        name,
        name_key: matchKey(name),
        catalogs: [...catalogs],
        registers: [...registers],
        made_by: madeBy,
      })
      .execute();
  }

  async all(db: Reader, houseId: string): Promise<WebhookView[]> {
    const rows = await db
      .selectFrom('webhooks as webhook')
      .leftJoin('people', (join) => join.onRef('people.house_id', '=', 'webhook.house_id').onRef('people.id', '=', 'webhook.made_by'))
      .select(['webhook.id', 'webhook.name', 'receiver', 'catalogs', 'registers', 'people.name as by', 'made_at', 'failing_since', 'said'])
      .select(['off_at', 'last_told_at'])
      .where('webhook.house_id', '=', houseId)
      .orderBy('made_at', 'desc')
      .orderBy('webhook.id')
      .execute();
    return rows.map(({ made_at, failing_since, said, off_at, last_told_at, ...row }) => ({
      ...row,
      at: made_at.toISOString(),
      failing: failing_since && { since: failing_since.toISOString(), said: said ?? '' },
      off: off_at?.toISOString() ?? null,
      lastTold: last_told_at?.toISOString() ?? null,
    }));
  }

  /** Its name, where there was one. */
  async remove(trx: Trx, houseId: string, id: string): Promise<string | undefined> {
    const removed = await trx
      .deleteFrom('webhooks')
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .returning('name')
      .executeTakeFirst();
    return removed?.name;
  }

  /** Sends again; what waits is sent at once. Its name, where there is one. */
  async turnOn(trx: Trx, houseId: string, id: string): Promise<string | undefined> {
    const on = await trx
      .updateTable('webhooks')
      .set({ off_at: null, failing_since: null, said: null })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .returning('name')
      .executeTakeFirst();
    if (on) await this.hurry(trx, houseId, [id]);
    return on?.name;
  }

  /** The newest messages. */
  async messages(db: Reader, houseId: string, id: string): Promise<WebhookMessageView[]> {
    const rows = await db
      .selectFrom('webhook_messages as message')
      .innerJoin('webhooks as webhook', (join) =>
        join.onRef('webhook.house_id', '=', 'message.house_id').onRef('webhook.id', '=', 'message.webhook_id'),
      )
      .select(['message.id', 'kind', 'at', 'tries', 'state', 'next_at', 'message.said', 'webhook.off_at'])
      .where('message.house_id', '=', houseId)
      .where('webhook_id', '=', id)
      .orderBy('at', 'desc')
      .orderBy('message.id')
      .limit(mostListed)
      .execute();
    return rows.map(({ at, next_at, off_at, ...row }) => ({
      ...row,
      at: at.toISOString(),
      next: row.state === 'waits' && !off_at ? next_at.toISOString() : null,
    }));
  }

  /**
   * Those that may have something new to tell: they are on, what happened last is not told, and no message waits. They are held to the end
   * of the transaction, so that what one server tells another does not tell once more.
   */
  quiet(trx: Trx, houseId: string): Promise<{ id: string; catalogs: string[]; registers: string[]; seq: number }[]> {
    return trx
      .selectFrom('webhooks')
      .innerJoin('house_counters', 'house_counters.house_id', 'webhooks.house_id')
      .select(['id', 'catalogs', 'registers', 'webhooks.seq'])
      .where('webhooks.house_id', '=', houseId)
      .where('off_at', 'is', null)
      .whereRef('webhooks.seq', '<', 'house_counters.seq')
      .where(({ not, exists, selectFrom }) =>
        not(
          exists(
            selectFrom('webhook_messages as message')
              .select('message.id')
              .whereRef('message.house_id', '=', 'webhooks.house_id')
              .whereRef('message.webhook_id', '=', 'webhooks.id')
              .where('message.state', '=', 'waits')
              .where('message.kind', '=', 'changes'),
          ),
        ),
      )
      .orderBy('id')
      .forNoKeyUpdate('webhooks')
      .execute();
  }

  /** Puts messages into the row of those that wait; the webhooks into which one came. */
  async put(trx: Trx, houseId: string, messages: readonly NewMessage[]): Promise<string[]> {
    if (messages.length === 0) return [];
    const added = await trx
      .insertInto('webhook_messages')
      .values(messages.map(({ webhookId, ...message }) => ({ house_id: houseId, webhook_id: webhookId, ...message })))
      .onConflict((conflict) =>
        conflict.columns(['house_id', 'webhook_id']).where('state', '=', 'waits').where('kind', '=', 'changes').doNothing(),
      )
      .returning('webhook_id')
      .execute();
    return added.map(({ webhook_id }) => webhook_id);
  }

  /** Notes that all up to this number is told, or is none of theirs. */
  async toldUpTo(trx: Trx, houseId: string, ids: readonly string[], seq: number): Promise<void> {
    if (ids.length === 0) return;
    await trx.updateTable('webhooks').set({ seq }).where('house_id', '=', houseId).where('id', 'in', ids).where('seq', '<', seq).execute();
  }

  /** Takes the messages that are due, of webhooks that are on, or one of any; for a while nobody else does. */
  claim(trx: Trx, houseId: string, only?: string): Promise<DueMessage[]> {
    return trx
      .updateTable('webhook_messages as message')
      .from('webhooks as webhook')
      .set((eb) => ({ next_at: sql<Date>`now() + make_interval(secs => ${lease})`, tries: eb('message.tries', '+', 1) }))
      .where('message.house_id', '=', houseId)
      .whereRef('webhook.house_id', '=', 'message.house_id')
      .whereRef('webhook.id', '=', 'message.webhook_id')
      .where('message.state', '=', 'waits')
      .where('message.next_at', '<=', sql<Date>`now()`)
      .$if(only === undefined, (query) => query.where('webhook.off_at', 'is', null))
      .$if(only !== undefined, (query) => query.where('message.id', '=', only!))
      .returning(['message.id', 'message.webhook_id as webhookId', 'message.kind', 'message.body', 'message.tries'])
      .returning(['webhook.name', 'webhook.receiver', 'webhook.secret'])
      .execute();
  }

  /**
   * Notes what came of some messages. A webhook whose receiver wants no more, or of which none was taken for `patience` seconds, is
   * switched off; those come back. What it was to tell waits until it is turned on.
   */
  async note(trx: Trx, houseId: string, all: readonly Tried[], patience: number): Promise<{ id: string; name: string }[]> {
    if (all.length === 0) return [];
    // In the order in which they are held to be told, so that neither waits for the other.
    const ids = all.map(({ webhookId }) => webhookId);
    await trx
      .selectFrom('webhooks')
      .select('id')
      .where('house_id', '=', houseId)
      .where('id', 'in', ids)
      .orderBy('id')
      .forNoKeyUpdate()
      .execute();
    const tried = sql`jsonb_to_recordset(${JSON.stringify(all)}::jsonb)
      as tried("webhookId" uuid, id uuid, kind text, taken boolean, gone boolean, said text, again int)`;
    await sql`
      update webhook_messages as message
      set state = case when tried.taken then 'taken' when tried.kind = 'test' then 'not taken' else 'waits' end, said = tried.said,
        next_at = now() + make_interval(secs => tried.again)
      from ${tried}
      where message.house_id = ${houseId} and message.webhook_id = tried."webhookId" and message.id = tried.id`.execute(trx);
    const { rows } = await sql<{ id: string; name: string; taken: boolean; off: boolean }>`
      update webhooks as webhook
      set failing_since = case when not tried.taken then coalesce(webhook.failing_since, now()) end,
        said = case when not tried.taken then tried.said end,
        last_told_at = case when tried.taken then now() else webhook.last_told_at end,
        off_at = case when tried.gone or (not tried.taken and webhook.failing_since < now() - make_interval(secs => ${patience})) then now() end
      from ${tried}
      where webhook.house_id = ${houseId} and webhook.id = tried."webhookId" and webhook.off_at is null
        and (tried.taken or tried.kind = 'changes')
      returning webhook.id, webhook.name, tried.taken, webhook.off_at is not null as off`.execute(trx);
    await this.hurry(
      trx,
      houseId,
      rows.filter(({ taken }) => taken).map(({ id }) => id),
    );
    return rows.flatMap(({ id, name, off }) => (off ? [{ id, name }] : []));
  }

  /** What waits for its next try is sent now; what is under way is not. */
  private async hurry(trx: Trx, houseId: string, ids: readonly string[]): Promise<void> {
    if (ids.length === 0) return;
    await trx
      .updateTable('webhook_messages')
      .set({ next_at: sql<Date>`now()` })
      .where('house_id', '=', houseId)
      .where('webhook_id', 'in', ids)
      .where('state', '=', 'waits')
      .where('next_at', '>', sql<Date>`now() + make_interval(secs => ${lease})`)
      .execute();
  }

  /** Whether anybody of the house is to be told of changes. */
  async areThere(db: Reader, houseId: string): Promise<boolean> {
    const one = await db.selectFrom('webhooks').select('id').where('house_id', '=', houseId).where('off_at', 'is', null).limit(1).execute();
    return one.length > 0;
  }

  /** The houses in which something may be to tell, or to send again. */
  async due(db: Reader): Promise<{ houseId: string }[]> {
    return db
      .selectFrom('webhooks')
      .innerJoin('house_counters', 'house_counters.house_id', 'webhooks.house_id')
      .select('webhooks.house_id as houseId')
      .distinct()
      .where('off_at', 'is', null)
      .where(({ or, eb, exists, selectFrom }) =>
        or([
          eb('webhooks.seq', '<', eb.ref('house_counters.seq')),
          exists(
            selectFrom('webhook_messages as message')
              .select('message.id')
              .whereRef('message.house_id', '=', 'webhooks.house_id')
              .whereRef('message.webhook_id', '=', 'webhooks.id')
              .where('message.state', '=', 'waits')
              .where('message.next_at', '<=', sql<Date>`now()`),
          ),
        ]),
      )
      .execute();
  }

  /** Forgets messages of more than a month ago, and all but the newest of each webhook. */
  async forgetOld(db: Reader): Promise<void> {
    await sql`
      delete from webhook_messages as message
      using (select house_id, webhook_id, id, row_number() over (partition by house_id, webhook_id order by at desc) as nth from webhook_messages) as known
      where (known.house_id, known.webhook_id, known.id) = (message.house_id, message.webhook_id, message.id)
        and message.state <> 'waits' and (known.nth > ${mostKept} or message.at < now() - interval '30 days')`.execute(db);
  }
}
