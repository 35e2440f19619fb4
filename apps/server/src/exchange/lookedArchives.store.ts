// Queries for house archives that somebody looks at before they are brought in.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import type { Caller } from '../access/access.js';
import type { Reader, Trx } from '../database/database.js';

@Injectable()
export class LookedArchivesStore {
  async add(db: Reader, { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>, id: string): Promise<void> {
    await db.insertInto('looked_archives').values({ house_id: houseId, id, person_id: personId }).execute();
  }

  async addPart(db: Reader, houseId: string, archiveId: string, part: number, bytes: Buffer): Promise<void> {
    await db.insertInto('looked_archive_parts').values({ house_id: houseId, archive_id: archiveId, part, bytes }).execute();
  }

  /** The bytes of one that the person looks at; undefined when there is none of them. */
  async bytes(db: Reader, { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>, id: string): Promise<Buffer | undefined> {
    const parts = await db
      .selectFrom('looked_archive_parts')
      .innerJoin('looked_archives', (join) =>
        join
          .onRef('looked_archives.house_id', '=', 'looked_archive_parts.house_id')
          .onRef('looked_archives.id', '=', 'looked_archive_parts.archive_id'),
      )
      .select('looked_archive_parts.bytes')
      .where('looked_archive_parts.house_id', '=', houseId)
      .where('looked_archive_parts.archive_id', '=', id)
      .where('looked_archives.person_id', '=', personId)
      .orderBy('looked_archive_parts.part')
      .execute();
    return parts.length === 0 ? undefined : Buffer.concat(parts.map(({ bytes }) => bytes));
  }

  /** True when it was there. */
  async remove(db: Reader, houseId: string, id: string): Promise<boolean> {
    const { numDeletedRows } = await db
      .deleteFrom('looked_archives')
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirstOrThrow();
    return numDeletedRows > 0n;
  }

  /** Keeps the newest of a person, also where many are looked at at once. */
  async removeBeyond(db: Trx, { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>, most: number): Promise<void> {
    await sql`select pg_advisory_xact_lock(hashtextextended(${`dellum.looked ${houseId} ${personId}`}, 0))`.execute(db);
    await sql`
      delete from looked_archives where house_id = ${houseId} and id in (
        select id from looked_archives where house_id = ${houseId} and person_id = ${personId} order by at desc, id offset ${most})`.execute(
      db,
    );
  }

  async forgetOld(db: Reader): Promise<void> {
    await sql`delete from looked_archives where at < now() - interval '1 hour'`.execute(db);
  }
}
