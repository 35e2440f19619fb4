// Queries for finding entries by what they hold, and for sums over a block.
import { Injectable } from '@nestjs/common';
import type { BlockSum, Found } from '@dellum/contract';
import { sql } from 'kysely';
import { inChunk } from '../arrangements/arrangements.store.js';
import type { Reader } from '../database/database.js';
import { betweenPos } from '../entries/entries.store.js';

interface Place {
  readonly houseId: string;
  readonly registerId: string;
}

@Injectable()
export class FindingStore {
  /**
   * The first entry after `after` that holds one of the values in one of the fields; in the order of the register, or of a person's
   * arrangement.
   */
  async nextHolding(
    db: Reader,
    { houseId, registerId }: Place,
    wanted: readonly { key: string; values: readonly string[] }[],
    after: string | undefined,
    arranged: { personId: string } | undefined,
  ): Promise<Found['next'] | undefined> {
    const holds = sql.join(
      wanted.map(({ key, values }) => sql`cells ->> ${key} = any(${values}::text[])`),
      sql` or `,
    );
    const field = sql`case ${sql.join(
      wanted.map(({ key, values }) => sql`when cells ->> ${key} = any(${values}::text[]) then ${key}`),
      sql` `,
    )} end`;
    const places = arranged
      ? sql`select one.id, chunk::bigint * ${inChunk} + nth - 1 as place from arranged_entries, unnest(entries) with ordinality as one(id, nth) where house_id = ${houseId} and person_id = ${arranged.personId} and register_id = ${registerId}`
      : sql`select id, pos as place from entries where house_id = ${houseId} and register_id = ${registerId}`;
    const { rows } = await sql<{ entry: string; field: string; row: number }>`
      with places as (${places}), hit as (
        select entries.id, places.place, ${field} as field from places
        join entries on entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = places.id
        where (${holds}) and (${after ?? null}::uuid is null or places.place > (select place from places where id = ${after ?? null}::uuid))
        order by places.place limit 1
      )
      select hit.id as entry, hit.field, (select count(*) from places where places.place < hit.place) as row from hit`.execute(db);
    return rows[0];
  }

  /** Counts and sums of a block: the entries between two, or given ones. Exact decimals. */
  async sum(
    db: Reader,
    { houseId, registerId }: Place,
    which: string[] | { first: string | undefined; last: string | undefined },
    fields: readonly string[],
    numeric: readonly string[],
  ): Promise<BlockSum> {
    const among = Array.isArray(which) ? sql`id = any(${which}::uuid[])` : betweenPos({ houseId, registerId }, which.first, which.last);
    const { rows } = await sql<{
      entries: number;
      filled: number;
      count: number;
      sum: string | null;
      mean: string | null;
      least: string | null;
      most: string | null;
    }>`
      with block as (select id, cells from entries where house_id = ${houseId} and register_id = ${registerId} and ${among}),
      texts as (select cells ->> key as text, key = any(${numeric}::text[]) as numeric from block, unnest(${fields}::text[]) as key where cells ? key),
      numbers as (select text::numeric as number from texts where numeric and text ~ '^-?[0-9]+([.][0-9]+)?$')
      select (select count(*) from block) as entries, (select count(*) from texts) as filled, (select count(*) from numbers) as count,
        trim_scale(sum(number))::text as sum, trim_scale(round(avg(number), 10))::text as mean, trim_scale(min(number))::text as least, trim_scale(max(number))::text as most from numbers`.execute(
      db,
    );
    const { entries, filled, count, sum, mean, least, most } = rows[0]!;
    return {
      entries,
      cells: entries * fields.length,
      filled,
      numbers: count === 0 ? null : { count, sum: sum!, mean: mean!, least: least!, most: most! },
    };
  }
}
