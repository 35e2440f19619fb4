// What went out to be filled in: of each file, what its columns showed and what each entry held, so that what comes back is compared with
// it.
import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { Cells } from '@dellum/core';
import { sentKept, type SentColumn } from '@dellum/contract';
import { sql, type SqlBool } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

export interface SentFile {
  readonly id: string;
  readonly registerId: string;
  readonly at: Date;
  readonly key: Buffer;
  readonly columns: readonly SentColumn[];
}

@Injectable()
export class SentStore {
  async add(trx: Trx, houseId: string, registerId: string): Promise<string> {
    const id = randomUUID();
    await trx
      .insertInto('sent_files')
      .values({ house_id: houseId, id, register_id: registerId, key: randomBytes(32), columns: null })
      .execute();
    return id;
  }

  async one(db: Reader, houseId: string, id: string): Promise<SentFile | undefined> {
    const row = await db.selectFrom('sent_files').selectAll().where('house_id', '=', houseId).where('id', '=', id).executeTakeFirst();
    return row && { id: row.id, registerId: row.register_id, at: row.at, key: row.key, columns: row.columns ?? [] };
  }

  /** What its columns show; what was written of it before is written anew. */
  async begin(trx: Trx, houseId: string, id: string, columns: readonly SentColumn[]): Promise<void> {
    await trx.deleteFrom('sent_entries').where('house_id', '=', houseId).where('sent_id', '=', id).execute();
    await trx
      .updateTable('sent_files')
      .set({ columns: JSON.stringify(columns) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async addEntries(trx: Trx, houseId: string, id: string, entries: readonly { id: string; cells: Cells; mark: Buffer }[]): Promise<void> {
    if (entries.length === 0) return;
    await sql`
      insert into sent_entries (house_id, sent_id, entry_id, cells, mark)
      select ${houseId}, ${id}, * from unnest(${entries.map((entry) => entry.id)}::uuid[], ${entries.map(({ cells }) => JSON.stringify(cells))}::json[],
        ${entries.map(({ mark }) => mark)}::bytea[])`.execute(trx);
  }

  /** What some entries held when they went out. */
  async some(db: Reader, houseId: string, id: string, entries: readonly string[]): Promise<Map<string, Cells>> {
    if (entries.length === 0) return new Map();
    const rows = await db
      .selectFrom('sent_entries')
      .select(['entry_id', 'cells'])
      .where('house_id', '=', houseId)
      .where('sent_id', '=', id)
      .where('entry_id', '=', amongIds(entries))
      .execute();
    return new Map(rows.map(({ entry_id, cells }) => [entry_id, cells]));
  }

  /** The marks of what some entries held. */
  async marks(db: Reader, houseId: string, id: string, entries: readonly string[]): Promise<Map<string, Buffer>> {
    if (entries.length === 0) return new Map();
    const rows = await db
      .selectFrom('sent_entries')
      .select(['entry_id', 'mark'])
      .where('house_id', '=', houseId)
      .where('sent_id', '=', id)
      .where('entry_id', '=', amongIds(entries))
      .execute();
    return new Map(rows.map(({ entry_id, mark }) => [entry_id, mark]));
  }

  /** What went out, page by page, in the order of the ids. */
  async page(db: Reader, houseId: string, id: string, after: string | undefined, count: number): Promise<{ id: string; cells: Cells }[]> {
    const rows = await db
      .selectFrom('sent_entries')
      .select(['entry_id', 'cells'])
      .where('house_id', '=', houseId)
      .where('sent_id', '=', id)
      .$if(after !== undefined, (query) => query.where('entry_id', '>', after!))
      .orderBy('entry_id')
      .limit(count)
      .execute();
    return rows.map(({ entry_id, cells }) => ({ id: entry_id, cells }));
  }

  /** The entries that went out, are still there, and are not among those that came back. */
  async notAmong(db: Reader, houseId: string, id: string, registerId: string, came: readonly string[]): Promise<string[]> {
    const left = await db
      .selectFrom('sent_entries')
      .select('entry_id')
      .where('house_id', '=', houseId)
      .where('sent_id', '=', id)
      .where(sql<SqlBool>`entry_id <> all(${came}::uuid[])`)
      .execute();
    if (left.length === 0) return [];
    const ids = left.map(({ entry_id }) => entry_id);
    // Not by a join: of what has just been written the database knows no numbers, and would look at each of the one for each of the other.
    const there = await db
      .selectFrom('entries')
      .select('id')
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('id', '=', amongIds(ids))
      .orderBy('pos')
      .execute();
    return there.map(({ id: entry }) => entry);
  }

  async forgetOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('sent_files')
      .where('at', '<', sql<Date>`now() - make_interval(days => ${sentKept})`)
      .execute();
  }
}
