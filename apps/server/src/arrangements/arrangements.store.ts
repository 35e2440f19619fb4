// Queries for arrangements: what each person has arranged, and the entries in that order.
import { Injectable } from '@nestjs/common';
import { asKept, type Arrangement } from '@dellum/core';
import type { ArrangementView, EntryView } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import type { arrangedSql } from './arrangedSql.js';

/** Whose arrangement of which register. */
export interface Mine {
  readonly houseId: string;
  readonly personId: string;
  readonly registerId: string;
}

/** Entries in a row of arranged ones; a part of the statements, since they group by it. */
export const inChunk = sql.lit(1000);
const chunkOf = (place: number) => Math.floor(place / 1000);

@Injectable()
export class ArrangementsStore {
  async of(db: Reader, { houseId, personId, registerId }: Mine): Promise<ArrangementView> {
    const row = await db
      .selectFrom('arrangements')
      .select(['version', 'body as arrangement'])
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('register_id', '=', registerId)
      .executeTakeFirst();
    return row ?? { version: 0, arrangement: asKept };
  }

  /** Keeps an arrangement; with `anew` its entries are arranged anew when they are next asked for. */
  async keep(trx: Trx, { houseId, personId, registerId }: Mine, arrangement: Arrangement, anew: boolean): Promise<ArrangementView> {
    const body = JSON.stringify(arrangement);
    return trx
      .insertInto('arrangements')
      .values({ house_id: houseId, person_id: personId, register_id: registerId, version: 1, body, shape: null, entries: null })
      .onConflict((conflict) =>
        conflict
          .columns(['house_id', 'person_id', 'register_id'])
          .doUpdateSet((eb) => ({ body, ...(anew && { version: eb('arrangements.version', '+', 1), shape: null }) })),
      )
      .returning(['version', 'body as arrangement'])
      .executeTakeFirstOrThrow();
  }

  /**
   * How many entries are arranged as the register stands now; undefined when they are to be arranged anew. `lock`: nobody else arranges
   * them meanwhile.
   */
  async standing(db: Reader, { houseId, personId, registerId }: Mine, lock: boolean): Promise<number | undefined> {
    const row = await db
      .selectFrom('arrangements')
      .innerJoin('registers', (join) =>
        join.onRef('registers.house_id', '=', 'arrangements.house_id').onRef('registers.id', '=', 'arrangements.register_id'),
      )
      .select(['arrangements.entries', 'arrangements.shape', 'registers.shape as now'])
      .where('arrangements.house_id', '=', houseId)
      .where('arrangements.person_id', '=', personId)
      .where('arrangements.register_id', '=', registerId)
      .$if(lock, (query) => query.forUpdate('arrangements'))
      .executeTakeFirst();
    return row && row.shape === row.now ? (row.entries ?? undefined) : undefined;
  }

  /** Arranges the entries: the database sorts and keeps them, a thousand a row. */
  async arrange(
    trx: Trx,
    { houseId, personId, registerId }: Mine,
    { joins, condition, order }: ReturnType<typeof arrangedSql>,
  ): Promise<number> {
    await trx
      .deleteFrom('arranged_entries')
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('register_id', '=', registerId)
      .execute();
    const { rows } = await sql<{ entries: number }>`
      with ordered as materialized (
        select array_agg(id order by ${order}) as ids from entries ${joins}
        where house_id = ${houseId} and register_id = ${registerId} and ${condition}
      ), kept as (
        insert into arranged_entries (house_id, person_id, register_id, chunk, entries)
        select ${houseId}, ${personId}, ${registerId}, chunk, ids[chunk * ${inChunk} + 1 : (chunk + 1) * ${inChunk}]
        from ordered, generate_series(0, (cardinality(ids) - 1) / ${inChunk}) as chunk
      )
      update arrangements set entries = (select coalesce(cardinality(ids), 0) from ordered),
        shape = (select shape from registers where house_id = ${houseId} and id = ${registerId})
      where house_id = ${houseId} and person_id = ${personId} and register_id = ${registerId} returning entries`.execute(trx);
    return rows[0]!.entries;
  }

  /** The ids of the entries from a place on, as they are arranged. */
  async ids(db: Reader, { houseId, personId, registerId }: Mine, from: number, count: number): Promise<string[]> {
    const { rows } = await sql<{ id: string }>`
      select id from arranged_entries, unnest(entries) with ordinality as one(id, nth)
      where house_id = ${houseId} and person_id = ${personId} and register_id = ${registerId}
        and chunk between ${chunkOf(from)} and ${chunkOf(from + count - 1)}
        and chunk * ${inChunk} + nth - 1 between ${from} and ${from + count - 1}
      order by chunk, nth`.execute(db);
    return rows.map(({ id }) => id);
  }

  /** The ids of all entries as they are arranged, as an expression: there may be a million, which need not leave the database. */
  allIds = ({ houseId, personId, registerId }: Mine) =>
    sql<string[]>`array(select id from arranged_entries, unnest(entries) with ordinality as one(id, nth)
      where house_id = ${houseId} and person_id = ${personId} and register_id = ${registerId} order by chunk, nth)`;

  /** Where two entries stand in the arrangement. */
  async placesOf(db: Reader, { houseId, personId, registerId }: Mine, entries: readonly string[]): Promise<number[]> {
    const { rows } = await sql<{ place: number }>`
      select chunk * ${inChunk} + nth - 1 as place from arranged_entries, unnest(entries) with ordinality as one(id, nth)
      where house_id = ${houseId} and person_id = ${personId} and register_id = ${registerId} and id = any(${entries}::uuid[])`.execute(db);
    return rows.map(({ place }) => Number(place));
  }

  /** Entries in the order of the given ids. */
  async entriesOf(db: Reader, { houseId, registerId }: Mine, ids: readonly string[]): Promise<EntryView[]> {
    const { rows } = await sql<EntryView>`
      select entries.id, version, cells from unnest(${ids}::uuid[]) with ordinality as wanted(id, nth)
      join entries on entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = wanted.id order by nth`.execute(
      db,
    );
    return rows;
  }
}
