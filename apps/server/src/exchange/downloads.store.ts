// Queries for downloads: what they hold, how far they are, and their files in parts.
import { Injectable } from '@nestjs/common';
import { downloadKept, type DownloadDto, type DownloadView, type Role } from '@dellum/contract';
import { sql, type RawBuilder } from 'kysely';
import type { Caller } from '../access/access.js';
import type { Reader, Trx } from '../database/database.js';

export interface WantedDownload {
  readonly personId: string;
  readonly registerId: string;
  readonly name: string;
  readonly wanted: DownloadDto;
  readonly fields: readonly string[];
  /** Their ids in order, as an expression. */
  readonly entries: RawBuilder<string[]>;
  /** Where it is to come back: under which id it is known what went out. */
  readonly sentId: string | null;
}

/** A download that is being written, locked. */
export interface DownloadUnderWay {
  readonly caller: Caller;
  readonly registerId: string;
  readonly wanted: DownloadDto;
  readonly fields: readonly string[];
  readonly at: Date;
  /** The name of the house, and that in addresses. */
  readonly house: string;
  readonly houseKey: string;
  readonly sentId: string | null;
  readonly done: number;
  readonly total: number;
  readonly parts: number;
  readonly written: unknown;
}

/** What one step has written. */
export interface WrittenPart {
  readonly bytes: Buffer;
  readonly written: unknown;
  readonly done: number;
  readonly finished: boolean;
}

@Injectable()
export class DownloadsStore {
  /** Adds a download; says how many entries it holds. */
  async add(
    trx: Trx,
    houseId: string,
    { personId, registerId, name, wanted, fields, entries, sentId }: WantedDownload,
  ): Promise<{ id: number; total: number }> {
    return trx
      .insertInto('downloads')
      .values({
        house_id: houseId,
        person_id: personId,
        register_id: registerId,
        name,
        wanted: JSON.stringify(wanted),
        fields: JSON.stringify(fields),
        entries,
        sent_id: sentId,
      })
      .returning(['id', sql<number>`cardinality(entries)`.as('total')])
      .executeTakeFirstOrThrow();
  }

  private views(db: Reader, houseId: string) {
    return db
      .selectFrom('downloads')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'downloads.house_id').onRef('people.id', '=', 'downloads.person_id'),
      )
      .select([
        'downloads.id',
        'downloads.register_id',
        'downloads.person_id',
        'downloads.name',
        'people.name as by',
        'at',
        'wanted',
        'state',
      ])
      .select(['done', 'bytes', 'parts', sql<number>`cardinality(entries)`.as('total')])
      .where('downloads.house_id', '=', houseId);
  }

  /** The downloads of the house, or one person's own, the newest first. */
  async list(db: Reader, houseId: string, personId?: string): Promise<DownloadView[]> {
    const rows = await this.views(db, houseId)
      .$if(personId !== undefined, (query) => query.where('downloads.person_id', '=', personId!))
      .orderBy('downloads.id', 'desc')
      .limit(200)
      .execute();
    return rows.map(viewOf);
  }

  async one(db: Reader, houseId: string, id: number): Promise<{ view: DownloadView; personId: string; parts: number } | undefined> {
    const row = await this.views(db, houseId).where('downloads.id', '=', id).executeTakeFirst();
    return row && { view: viewOf(row), personId: row.person_id, parts: row.parts };
  }

  /** The download, locked, so that two workers at it take turns; undefined when it is done or gone. */
  async claim(trx: Trx, houseId: string, id: number): Promise<DownloadUnderWay | undefined> {
    const row = await trx
      .selectFrom('downloads')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'downloads.house_id').onRef('people.id', '=', 'downloads.person_id'),
      )
      .innerJoin('houses', 'houses.id', 'downloads.house_id')
      .select(['houses.name as house', 'houses.key as houseKey', 'sent_id as sentId'])
      .select(['downloads.person_id', 'people.name', 'people.role', 'register_id', 'wanted', 'fields', 'at', 'done', 'parts', 'written'])
      .select(sql<number>`cardinality(entries)`.as('total'))
      .where('downloads.house_id', '=', houseId)
      .where('downloads.id', '=', id)
      .where('state', '=', 'under way')
      .forUpdate('downloads')
      .executeTakeFirst();
    return (
      row && {
        caller: { id: row.person_id, houseId, name: row.name, role: row.role as Role },
        registerId: row.register_id,
        wanted: row.wanted,
        fields: row.fields,
        at: row.at,
        house: row.house,
        houseKey: row.houseKey,
        sentId: row.sentId,
        done: row.done,
        total: row.total,
        parts: row.parts,
        written: row.written,
      }
    );
  }

  /** Some of its entries, by their place among them. */
  async entriesOf(db: Reader, houseId: string, id: number, from: number, count: number): Promise<string[]> {
    const row = await db
      .selectFrom('downloads')
      .select(sql<string[]>`entries[${from + 1}:${from + count}]`.as('ids'))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirst();
    return row?.ids ?? [];
  }

  async keep(trx: Trx, houseId: string, id: number, part: number, { bytes, written, done, finished }: WrittenPart): Promise<void> {
    if (bytes.length > 0) await trx.insertInto('download_parts').values({ house_id: houseId, download_id: id, part, bytes }).execute();
    await trx
      .updateTable('downloads')
      .set((eb) => ({
        done,
        parts: bytes.length > 0 ? part + 1 : part,
        written: JSON.stringify(written),
        bytes: eb('bytes', '+', bytes.length),
        ...(finished && { state: 'done' as const }),
      }))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Forgets what is written, so that it is written anew. */
  async beginAgain(trx: Trx, houseId: string, id: number): Promise<void> {
    await trx.deleteFrom('download_parts').where('house_id', '=', houseId).where('download_id', '=', id).execute();
    await trx
      .updateTable('downloads')
      .set({ done: 0, parts: 0, bytes: 0, written: null })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async part(db: Reader, houseId: string, id: number, part: number): Promise<Buffer | undefined> {
    const row = await db
      .selectFrom('download_parts')
      .select('bytes')
      .where('house_id', '=', houseId)
      .where('download_id', '=', id)
      .where('part', '=', part)
      .executeTakeFirst();
    return row?.bytes;
  }

  async remove(db: Reader, houseId: string, id: number): Promise<void> {
    await db.deleteFrom('downloads').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** Keeps the newest files of a person only, also where many are begun at once. */
  async removeBeyond(trx: Trx, houseId: string, personId: string, most: number): Promise<void> {
    await sql`select pg_advisory_xact_lock(hashtextextended(${`dellum.downloads ${houseId} ${personId}`}, 0))`.execute(trx);
    await trx
      .deleteFrom('downloads')
      .where('house_id', '=', houseId)
      .where('id', 'in', (eb) =>
        eb
          .selectFrom('downloads as own')
          .select('own.id')
          .where('own.house_id', '=', houseId)
          .where('own.person_id', '=', personId)
          .orderBy('own.id', 'desc')
          .offset(most),
      )
      .execute();
  }

  async removeOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('downloads')
      .where('at', '<', sql<Date>`now() - make_interval(days => ${downloadKept})`)
      .execute();
  }

  /** Those that nobody works on where all servers were stopped. */
  async unfinished(db: Reader): Promise<{ houseId: string; downloadId: number }[]> {
    return db.selectFrom('downloads').select(['house_id as houseId', 'id as downloadId']).where('state', '=', 'under way').execute();
  }
}

interface Row {
  readonly id: number;
  readonly register_id: string;
  readonly name: string;
  readonly by: string;
  readonly at: Date;
  readonly wanted: DownloadDto;
  readonly state: DownloadView['state'];
  readonly done: number;
  readonly total: number;
  readonly bytes: number;
}
const viewOf = ({ id, register_id, name, by, at, wanted, state, done, total, bytes }: Row): DownloadView => ({
  id,
  registerId: register_id,
  name,
  format: wanted.format,
  by,
  at: at.toISOString(),
  state,
  done,
  total,
  bytes,
});
