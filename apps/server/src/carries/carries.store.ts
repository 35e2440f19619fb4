// Queries for carries: which rows still hold an old spelling, and rewriting a batch of them.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import { partsOf } from '../entries/holds.js';
import type { Reader, Trx } from '../database/database.js';

export interface CarryRow {
  readonly id: string;
  readonly fieldId: string;
  readonly registerId: string;
  readonly key: string;
  readonly from: string;
  readonly to: string;
  readonly reached: string | null;
  readonly done: number;
  readonly total: number;
  readonly actId: number | null;
  /** Who decided it. */
  readonly personId: string | null;
}

/** What an entry holds after it was rewritten. */
interface Rewritten {
  readonly entryId: string;
  readonly to: string;
}

@Injectable()
export class CarriesStore {
  async add(
    trx: Trx,
    houseId: string,
    carries: readonly { id: string; fieldId: string; from: string; to: string; total: number }[],
    actId: number | null,
    personId: string,
  ): Promise<void> {
    const rows = carries.map(({ id, fieldId, from, to, total }) => ({
      house_id: houseId,
      id,
      field_id: fieldId,
      from_value: from,
      to_value: to,
      reached: null,
      done: 0,
      total,
      finished_at: null,
      act_id: actId,
      person_id: personId,
    }));
    await trx.insertInto('carries').values(rows).execute();
  }

  /** Carries whose target is corrected itself lead to the newest spelling. */
  async redirect(trx: Trx, houseId: string, fieldId: string, pairs: readonly { from: string; to: string }[]): Promise<void> {
    await sql`
      update carries set to_value = moved."to" from jsonb_to_recordset(${JSON.stringify(pairs)}::jsonb) as moved("from" text, "to" text)
      where house_id = ${houseId} and field_id = ${fieldId} and to_value = moved."from" and finished_at is null`.execute(trx);
  }

  /** How many entries of a field of several values hold both of two values: they come to hold one of them. */
  async holdingBoth(
    trx: Trx,
    houseId: string,
    registerId: string,
    key: string,
    pairs: readonly { from: string; to: string }[],
  ): Promise<Map<string, number>> {
    const { rows } = await sql<{ from: string; entries: number }>`
      select pair."from", count(*) as entries from jsonb_to_recordset(${JSON.stringify(pairs)}::jsonb) as pair("from" text, "to" text)
      join entries on house_id = ${houseId} and register_id = ${registerId} and ${partsOf(sql`cells ->> ${key}`)} @> array[pair."from", pair."to"]
      group by pair."from"`.execute(trx);
    return new Map(rows.map(({ from, entries }) => [from, entries]));
  }

  /** The carry, locked; undefined when it is finished. Two workers at one carry take turns, batch by batch. */
  async claim(trx: Trx, houseId: string, id: string): Promise<CarryRow | undefined> {
    return trx
      .selectFrom('carries')
      .innerJoin('fields', (join) => join.onRef('fields.house_id', '=', 'carries.house_id').onRef('fields.id', '=', 'carries.field_id'))
      .select([
        'carries.id',
        'carries.field_id as fieldId',
        'fields.register_id as registerId',
        'fields.key',
        'carries.from_value as from',
        'carries.to_value as to',
        'carries.reached',
        'carries.done',
        'carries.total',
        'carries.act_id as actId',
        'carries.person_id as personId',
      ])
      .where('carries.house_id', '=', houseId)
      .where('carries.id', '=', id)
      .where('carries.finished_at', 'is', null)
      .forUpdate('carries')
      .executeTakeFirst();
  }

  /**
   * Rewrites the next rows in the order of their ids; undefined when none was left. Two statements with a literal list
   * of ids between them: joined to a subquery, a table without fresh statistics was scanned once for every row.
   */
  async rewriteBatch(
    trx: Trx,
    houseId: string,
    carry: CarryRow,
    size: number,
  ): Promise<{ rows: number; reached: string; rewritten: (Rewritten & { from: string })[] } | undefined> {
    const batch = await trx
      .selectFrom('entries')
      .select(['id', sql<string>`cells ->> ${carry.key}`.as('held')])
      .where('house_id', '=', houseId)
      .where('register_id', '=', carry.registerId)
      .where(sql<boolean>`(cells ->> ${carry.key} = ${carry.from} or ${carry.from} = any(${partsOf(sql`cells ->> ${carry.key}`)}))`)
      .$if(carry.reached !== null, (query) => query.where('id', '>', carry.reached!))
      .orderBy('id')
      .limit(size)
      .forUpdate()
      .execute();
    const ids = batch.map(({ id }) => id);
    if (ids.length === 0) return undefined;
    const { rows } = await sql<Rewritten>`
      update entries set cells = jsonb_set(cells, array[${carry.key}]::text[], to_jsonb(case
        when ${carry.to} = any(${partsOf(sql`cells ->> ${carry.key}`)}) then array_to_string(array_remove(${partsOf(sql`cells ->> ${carry.key}`)}, ${carry.from}), ${'\u001F'})
        else array_to_string(array_replace(${partsOf(sql`cells ->> ${carry.key}`)}, ${carry.from}, ${carry.to}), ${'\u001F'}) end))
      where house_id = ${houseId} and register_id = ${carry.registerId} and id = any(${ids}::uuid[])
      returning id as "entryId", cells ->> ${carry.key} as "to"`.execute(trx);
    const before = new Map(batch.map(({ id, held }) => [id, held]));
    return {
      rows: ids.length,
      reached: ids.at(-1)!,
      rewritten: rows.map((row) => ({ ...row, from: before.get(row.entryId) ?? carry.from })),
    };
  }

  /** Whether carries of an act are under way. */
  async following(db: Reader, houseId: string, actId: number): Promise<boolean> {
    return (
      (await db
        .selectFrom('carries')
        .select('id')
        .where('house_id', '=', houseId)
        .where('act_id', '=', actId)
        .where('finished_at', 'is', null)
        .limit(1)
        .executeTakeFirst()) !== undefined
    );
  }

  async progress(trx: Trx, houseId: string, id: string, reached: string, rows: number): Promise<void> {
    await trx
      .updateTable('carries')
      .set((eb) => ({ reached, done: eb('done', '+', rows) }))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async finish(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx
      .updateTable('carries')
      .set({ finished_at: sql`now()` })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  unfinished(db: Reader): Promise<{ houseId: string; carryId: string }[]> {
    return db.selectFrom('carries').select(['house_id as houseId', 'id as carryId']).where('finished_at', 'is', null).execute();
  }

  underWay(db: Reader, houseId: string) {
    return db
      .selectFrom('carries')
      .select(['id', 'field_id as fieldId', 'from_value as from', 'to_value as to', 'done', 'total'])
      .where('house_id', '=', houseId)
      .where('finished_at', 'is', null)
      .execute();
  }
}
