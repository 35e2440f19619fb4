// Queries for houses out of files.
import { Injectable } from '@nestjs/common';
import { noMends, type AdoptedTable, type Mends } from '@dellum/core';
import type { AdoptedFile, AdoptionState, LaidAdoption, SaidHeading } from '@dellum/contract';
import { sql } from 'kysely';
import type { Caller } from '../access/access.js';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

/** A file that has come whole. `isUtf8`: null where that was not looked at when it came. */
export interface KeptFile extends AdoptedFile {
  readonly ord: number;
  readonly isUtf8: boolean | null;
}

export interface Adoption {
  readonly id: string;
  readonly by: string;
  readonly at: Date;
  readonly state: AdoptionState;
  /** Counts how often its files were to be read anew. */
  readonly run: number;
  readonly why: string | null;
  readonly said: readonly string[];
  readonly found: readonly AdoptedTable[] | null;
  readonly mends: Mends;
  readonly headings: readonly SaidHeading[];
  readonly applied: LaidAdoption | null;
  /** Rows that are read or stored so far, and of how many where that is known; null where nothing is under way. */
  readonly done: number | null;
  readonly total: number | null;
}

/** So many days the files of a proposal are kept. */
const kept = 30;

@Injectable()
export class AdoptionsStore {
  async add(trx: Trx, { houseId, id: personId }: Pick<Caller, 'houseId' | 'id'>, id: string): Promise<void> {
    await trx
      .insertInto('adoptions')
      .values({ house_id: houseId, id, person_id: personId, state: 'reading', mends: JSON.stringify(noMends) })
      .execute();
  }

  /** A file that comes after those that are there; returns its number. */
  async addFile(trx: Trx, houseId: string, adoptionId: string, name: string): Promise<number> {
    const { ord } = await trx
      .insertInto('adopted_files')
      .values((eb) => ({
        house_id: houseId,
        adoption_id: adoptionId,
        name,
        bytes: 0,
        ord: eb
          .selectFrom('adopted_files as other')
          .select(sql<number>`coalesce(max(other.ord) + 1, 0)`.as('next'))
          .where('other.house_id', '=', houseId)
          .where('other.adoption_id', '=', adoptionId),
      }))
      .returning('ord')
      .executeTakeFirstOrThrow();
    return ord;
  }

  async addPart(db: Reader, houseId: string, adoptionId: string, ord: number, part: number, bytes: Buffer): Promise<void> {
    await db.insertInto('adopted_parts').values({ house_id: houseId, adoption_id: adoptionId, ord, part, bytes }).execute();
  }

  async cameWhole(trx: Trx, houseId: string, adoptionId: string, ord: number, bytes: number, isUtf8: boolean): Promise<void> {
    await trx
      .updateTable('adopted_files')
      .set({ bytes, is_utf8: isUtf8 })
      .where('house_id', '=', houseId)
      .where('adoption_id', '=', adoptionId)
      .where('ord', '=', ord)
      .execute();
  }

  private adoptions(db: Reader, houseId: string) {
    return db
      .selectFrom('adoptions')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'adoptions.house_id').onRef('people.id', '=', 'adoptions.person_id'),
      )
      .leftJoin('adoption_progress', (join) =>
        join.onRef('adoption_progress.house_id', '=', 'adoptions.house_id').onRef('adoption_progress.adoption_id', '=', 'adoptions.id'),
      )
      .select(['adoptions.id', 'people.name as by', 'at', 'state', 'run', 'why', 'said', 'found', 'mends', 'headings', 'applied'])
      .select(['done', 'total'])
      .where('adoptions.house_id', '=', houseId);
  }

  async one(db: Reader, houseId: string, id: string): Promise<Adoption | undefined> {
    return this.adoptions(db, houseId).where('adoptions.id', '=', id).executeTakeFirst();
  }

  /** The same, locked while it is changed. */
  async claim(trx: Trx, houseId: string, id: string): Promise<Adoption | undefined> {
    return this.adoptions(trx, houseId).where('adoptions.id', '=', id).forUpdate('adoptions').executeTakeFirst();
  }

  /** The newest first. */
  async list(db: Reader, houseId: string): Promise<Pick<Adoption, 'id' | 'by' | 'at' | 'state'>[]> {
    return db
      .selectFrom('adoptions')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'adoptions.house_id').onRef('people.id', '=', 'adoptions.person_id'),
      )
      .select(['adoptions.id', 'people.name as by', 'at', 'state'])
      .where('adoptions.house_id', '=', houseId)
      .orderBy('at', 'desc')
      .limit(100)
      .execute();
  }

  /** By adoption, the files that have come whole, in their order. */
  async files(db: Reader, houseId: string, ids: readonly string[]): Promise<ReadonlyMap<string, readonly KeptFile[]>> {
    const rows =
      ids.length === 0
        ? []
        : await db
            .selectFrom('adopted_files')
            .select(['adoption_id', 'ord', 'name', 'bytes', 'is_utf8 as isUtf8'])
            .where('house_id', '=', houseId)
            .where('adoption_id', '=', amongIds(ids))
            .where('bytes', '>', 0)
            .orderBy('ord')
            .execute();
    return new Map(ids.map((id) => [id, rows.filter((row) => row.adoption_id === id).map(({ adoption_id: _, ...file }) => file)]));
  }

  /** A part of a file; undefined beyond the last. */
  async part(db: Reader, houseId: string, adoptionId: string, ord: number, part: number): Promise<Buffer | undefined> {
    const row = await db
      .selectFrom('adopted_parts')
      .select('bytes')
      .where('house_id', '=', houseId)
      .where('adoption_id', '=', adoptionId)
      .where('ord', '=', ord)
      .where('part', '=', part)
      .executeTakeFirst();
    return row?.bytes;
  }

  async change(
    db: Reader,
    houseId: string,
    id: string,
    change: {
      readonly state?: AdoptionState;
      readonly why?: string | null;
      readonly mends?: Mends;
      readonly headings?: readonly SaidHeading[];
      readonly applied?: LaidAdoption | null;
    },
  ): Promise<void> {
    const { mends, headings, applied, ...plain } = change;
    await db
      .updateTable('adoptions')
      .set({
        ...plain,
        ...(mends && { mends: JSON.stringify(mends) }),
        ...(headings && { headings: JSON.stringify(headings) }),
        ...(applied !== undefined && { applied: applied && JSON.stringify(applied) }),
      })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Nothing of it is done yet of what begins. */
  async begins(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx
      .insertInto('adoption_progress')
      .values({ house_id: houseId, adoption_id: id, done: 0, total: null })
      .onConflict((conflict) => conflict.columns(['house_id', 'adoption_id']).doUpdateSet({ done: 0, total: null }))
      .execute();
  }

  /**
   * So many rows are done; asked beside what is done, which is not there for others before all is. What was noted before may come after.
   */
  async progress(db: Reader, houseId: string, id: string, done: number, total: number | null): Promise<void> {
    await db
      .updateTable('adoption_progress')
      .set({ done, total })
      .where('house_id', '=', houseId)
      .where('adoption_id', '=', id)
      .where('done', '<=', done)
      .execute();
  }

  /** It is to be read, from the beginning: what was found before holds no more, nor what whoever reads it now finds. */
  async readAnew(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx
      .updateTable('adoptions')
      .set((eb) => ({ state: 'reading', why: null, run: eb('run', '+', 1) }))
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
    await this.begins(trx, houseId, id);
  }

  /** What came of reading it, of whoever is done first; false when it is to be read anew since, or is gone. */
  async end(
    trx: Trx,
    houseId: string,
    id: string,
    run: number,
    outcome: { readonly found: readonly AdoptedTable[]; readonly said: readonly string[] } | { readonly why: string },
  ): Promise<boolean> {
    const { numUpdatedRows } = await trx
      .updateTable('adoptions')
      .set(
        'why' in outcome
          ? { state: 'unreadable', why: outcome.why, found: null, said: '[]' }
          : { state: 'ready', why: null, found: JSON.stringify(outcome.found), said: JSON.stringify(outcome.said) },
      )
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('run', '=', run)
      .where('state', '=', 'reading')
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  async remove(db: Reader, houseId: string, id: string): Promise<boolean> {
    const { numDeletedRows } = await db.deleteFrom('adoptions').where('house_id', '=', houseId).where('id', '=', id).executeTakeFirst();
    return numDeletedRows > 0n;
  }

  async removeFile(db: Reader, houseId: string, id: string, ord: number): Promise<void> {
    await db.deleteFrom('adopted_files').where('house_id', '=', houseId).where('adoption_id', '=', id).where('ord', '=', ord).execute();
  }

  /** Those that a server was to read or apply when it was killed. */
  async unfinished(db: Reader): Promise<{ houseId: string; adoptionId: string }[]> {
    return db
      .selectFrom('adoptions')
      .select(['house_id as houseId', 'id as adoptionId'])
      .where('state', 'in', ['reading', 'applying'])
      .execute();
  }

  async forgetOld(db: Reader): Promise<void> {
    await sql`delete from adoptions where at < now() - make_interval(days => ${kept})`.execute(db);
  }

  /** At least so many entries were added, changed or deleted since so many were laid. */
  async changedSince(db: Reader, houseId: string, sheets: readonly string[], laid: number): Promise<number> {
    if (sheets.length === 0) return 0;
    const { there, untouched } = await db
      .selectFrom('entries')
      .innerJoin('registers', (join) =>
        join.onRef('registers.house_id', '=', 'entries.house_id').onRef('registers.id', '=', 'entries.register_id'),
      )
      .select((eb) => [eb.fn.countAll<number>().as('there'), sql<number>`count(*) filter (where entries.version = 1)`.as('untouched')])
      .where('entries.house_id', '=', houseId)
      .where('registers.sheet_id', '=', amongIds(sheets))
      .executeTakeFirstOrThrow();
    return Math.max(there - untouched, Math.abs(there - laid));
  }

  /** Takes back what was laid, all of it. */
  async takeBack(trx: Trx, houseId: string, { sheets, ranges, catalogs }: LaidAdoption): Promise<void> {
    const remove = async (table: 'catalogs' | 'ranges' | 'sheets', ids: readonly string[]) => {
      if (ids.length > 0) await trx.deleteFrom(table).where('house_id', '=', houseId).where('id', '=', amongIds(ids)).execute();
    };
    // Ranges lie over the lists of sheets, whose fields name the catalogs.
    await remove('ranges', ranges);
    await remove('sheets', sheets);
    await remove('catalogs', catalogs);
  }
}
