// Change rows: what the live stream tells. Their numbers come from the house's counter, taken last in the
// transaction, so that no number is seen before a smaller one has committed.
import { Injectable } from '@nestjs/common';
import type { Audience, Change } from '@dellum/contract';
import { sql } from 'kysely';
import { amongIds } from '../database/among.js';
import { afterCommit, type Reader, type Trx } from '../database/database.js';
import { AnnouncerService } from './announcer.service.js';

export interface Told {
  readonly audience: Audience;
  readonly body: Change;
}
export interface NumberedChange extends Told {
  readonly seq: number;
}

@Injectable()
export class ChangesStore {
  constructor(private readonly announcer: AnnouncerService) {}

  /** Appends changes, which are announced once the transaction is committed. Call it last: the counter row stays locked until the transaction ends. */
  async append(trx: Trx, houseId: string, told: readonly Told[]): Promise<void> {
    if (told.length === 0) return;
    const { rows } = await sql<{ seq: number }>`
      with taken as (
        update house_counters set seq = seq + ${told.length} where house_id = ${houseId} returning seq
      ), appended as (
        insert into changes (house_id, seq, audience, body)
        select ${houseId}, taken.seq - ${told.length} + row.ord, row.audience, row.body
        from taken, jsonb_to_recordset(${JSON.stringify(told.map((row, index) => ({ ...row, ord: index + 1 })))}::jsonb)
          as row(ord int, audience text, body jsonb)
      )
      select seq from taken`.execute(trx);
    afterCommit(trx, () => rows.forEach(({ seq }) => this.announcer.announce(houseId, seq)));
  }

  /** The newest numbers of some houses. */
  async newest(db: Reader, houseIds: readonly string[]): Promise<{ houseId: string; seq: number }[]> {
    return db.selectFrom('house_counters').select(['house_id as houseId', 'seq']).where('house_id', '=', amongIds(houseIds)).execute();
  }

  async after(db: Reader, houseId: string, seq: number, limit: number): Promise<NumberedChange[]> {
    return db
      .selectFrom('changes')
      .select(['seq', 'audience', 'body'])
      .where('house_id', '=', houseId)
      .where('seq', '>', seq)
      .orderBy('seq')
      .limit(limit)
      .execute();
  }

  /** The newest number of the house, and the oldest that can still be asked for. */
  async horizon(db: Reader, houseId: string): Promise<{ newest: number; oldest: number }> {
    const { newest, oldest } = await db
      .selectFrom('house_counters')
      .select('seq as newest')
      .select((eb) =>
        eb
          .selectFrom('changes')
          .select((sub) => sub.fn.min('changes.seq').as('oldest'))
          .where('changes.house_id', '=', houseId)
          .as('oldest'),
      )
      .where('house_id', '=', houseId)
      .executeTakeFirstOrThrow();
    return { newest, oldest: oldest ?? newest + 1 };
  }

  /** Forgets changes older than an hour; whoever was away longer fetches everything anew. */
  async forgetOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('changes')
      .where('at', '<', sql<Date>`now() - interval '1 hour'`)
      .execute();
  }
}
