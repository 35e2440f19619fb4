// Queries for linked sources.
import { Injectable } from '@nestjs/common';
import { matchKey, type LinkedRow } from '@dellum/core';
import type { LinkedSettings, LinkedView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

export interface LinkedSource {
  readonly id: string;
  readonly name: string;
  readonly settings: LinkedSettings;
  readonly rows: readonly LinkedRow[];
  readonly mark: string | null;
  /** Who set it up; refreshes on a schedule are done in this name. */
  readonly madeBy: string | null;
  /** When this was read, by the clock of the database, which is one for all servers. */
  readonly now: Date;
}

@Injectable()
export class LinkedStore {
  /** The key by which things from outside are given to a house. */
  async houseKey(db: Reader, houseId: string): Promise<string> {
    return (await db.selectFrom('houses').select('key').where('id', '=', houseId).executeTakeFirstOrThrow()).key;
  }

  async all(db: Reader, houseId: string): Promise<LinkedView[]> {
    const rows = await db
      .selectFrom('linked_sources')
      .select(['id', 'name', 'settings', 'every', 'last_good_at', 'last_tried_at', 'failure'])
      .select(sql<number>`jsonb_array_length(rows)`.as('values'))
      .select(
        sql<boolean>`exists (select 1 from slips where slips.house_id = linked_sources.house_id and slips.proposal @> jsonb_build_object('steps', jsonb_build_array(jsonb_build_object('sourceId', linked_sources.id::text))))`.as(
          'waiting',
        ),
      )
      .where('house_id', '=', houseId)
      .orderBy('name_key')
      .execute();
    return rows.map(({ last_good_at, last_tried_at, ...row }) => ({
      ...row,
      lastGood: last_good_at?.toISOString() ?? null,
      lastTried: last_tried_at?.toISOString() ?? null,
    }));
  }

  async find(db: Reader, houseId: string, id: string): Promise<LinkedSource | undefined> {
    return db
      .selectFrom('linked_sources')
      .select(['id', 'name', 'settings', 'rows', 'mark', 'made_by as madeBy'])
      .select(sql<Date>`date_trunc('milliseconds', clock_timestamp())`.as('now'))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirst();
  }

  async add(
    trx: Trx,
    houseId: string,
    source: { id: string; name: string; settings: LinkedSettings; every: number; madeBy: string },
  ): Promise<void> {
    const { id, name, settings, every, madeBy } = source;
    await trx
      .insertInto('linked_sources')
      .values({
        house_id: houseId,
        id,
        name,
        name_key: matchKey(name),
        settings: JSON.stringify(settings),
        every,
        made_by: madeBy,
        mark: null,
        last_good_at: null,
        last_tried_at: null,
        failure: null,
      })
      .execute();
  }

  async change(
    trx: Trx,
    houseId: string,
    id: string,
    { name, settings, every }: { name: string; settings: LinkedSettings; every: number },
  ): Promise<void> {
    await trx
      .updateTable('linked_sources')
      .set({ name, name_key: matchKey(name), settings: JSON.stringify(settings), every, mark: null })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('linked_sources').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /**
   * Notes how a refresh went, unless one that began later has ended already; the last good values stay when it failed.
   * False when it is out of date.
   */
  async went(
    db: Reader,
    houseId: string,
    id: string,
    { began, failure, mark }: { began: Date; failure: string | null; mark: string | null },
  ): Promise<boolean> {
    const noted = await db
      .updateTable('linked_sources')
      .set({ last_tried_at: began, failure, ...(failure === null && { last_good_at: began, mark }) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where((eb) => eb.or([eb('last_tried_at', 'is', null), eb('last_tried_at', '<=', began)]))
      .executeTakeFirst();
    return noted.numUpdatedRows > 0n;
  }

  /** Drops the slips on which an earlier refresh of the source waits: the newest values are asked about instead. */
  async dropWaiting(db: Reader, houseId: string, id: string): Promise<void> {
    await sql`delete from slips where house_id = ${houseId} and proposal @> ${JSON.stringify({ steps: [{ what: 'linked read', sourceId: id }] })}::jsonb`.execute(
      db,
    );
  }

  /** Sources of any house whose time has come. */
  due(db: Reader): Promise<{ houseId: string; sourceId: string }[]> {
    return db
      .selectFrom('linked_sources')
      .select(['house_id as houseId', 'id as sourceId'])
      .where('every', '>', 0)
      .where((eb) => eb.or([eb('last_tried_at', 'is', null), eb('last_tried_at', '<', sql<Date>`now() - make_interval(mins => every)`)]))
      .limit(200)
      .execute();
  }
}
