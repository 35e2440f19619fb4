// Places of entries: positions with gaps, and chunk counts that turn an ordinal into a place.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

/** The gap between neighbours when entries are laid out: 2^32. */
export const posGap = 2n ** 32n;
/** A chunk is split in two when it has grown beyond this many entries. */
const mostInChunk = 2000;
const lowest = -(2n ** 62n);

interface Place {
  readonly registerId: string;
  readonly houseId: string;
}

@Injectable()
export class PlacesStore {
  /** Acts that change the order of a register take turns. */
  async lockOrder(trx: Trx, { houseId, registerId }: Place): Promise<void> {
    await trx.selectFrom('registers').select('id').where('house_id', '=', houseId).where('id', '=', registerId).forUpdate().execute();
  }

  async total(db: Reader, { houseId, registerId }: Place): Promise<number> {
    const { total } = await db
      .selectFrom('chunks')
      .select((eb) => eb.fn.coalesce(eb.fn.sum<number>('entries'), eb.val(0)).as('total'))
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .executeTakeFirstOrThrow();
    return Number(total);
  }

  /** The chunk that holds an ordinal: its first position and how many entries stand before it in the register. */
  async chunkAt(db: Reader, { houseId, registerId }: Place, ordinal: number): Promise<{ fromPos: string; before: number } | undefined> {
    const found = await sql<{ from_pos: string; before: number }>`
      select from_pos::text, before from (
        select from_pos, entries, sum(entries) over (order by from_pos) - entries as before
        from chunks where house_id = ${houseId} and register_id = ${registerId}
      ) summed where before <= ${ordinal} and before + entries > ${ordinal} order by from_pos limit 1`.execute(db);
    const row = found.rows[0];
    return row && { fromPos: row.from_pos, before: Number(row.before) };
  }

  /** Positions for `count` new entries above `before` (undefined: at the end); makes room where there is none. */
  async room(trx: Trx, place: Place, before: string | undefined, count: number): Promise<bigint[]> {
    const between = await this.neighbours(trx, place, before);
    if (between.below === undefined) return Array.from({ length: count }, (_, at) => (between.above ?? 0n) + posGap * BigInt(at + 1));
    const above = between.above ?? between.below - posGap * BigInt(count + 1);
    const step = (between.below - above) / BigInt(count + 1);
    if (step > 0n) return Array.from({ length: count }, (_, at) => above + step * BigInt(at + 1));
    await this.spread(trx, place, between.below, count);
    return this.room(trx, place, before, count);
  }

  private async neighbours(
    trx: Trx,
    { houseId, registerId }: Place,
    before: string | undefined,
  ): Promise<{ above?: bigint; below?: bigint }> {
    const rows = await sql<{ above: string | null; below: string | null }>`
      with at as (select pos from entries where house_id = ${houseId} and register_id = ${registerId} and id = ${before ?? null}::uuid)
      select (select pos from at)::text as below,
        (select pos from entries where house_id = ${houseId} and register_id = ${registerId}
          and ((select pos from at) is null or pos < (select pos from at)) order by pos desc limit 1)::text as above`.execute(trx);
    const { above, below } = rows.rows[0]!;
    return { ...(above !== null && { above: BigInt(above) }), ...(below !== null && { below: BigInt(below) }) };
  }

  /**
   * Makes room above a position: the entries from there on move on by as much as is needed, up to the first gap that
   * takes the push. The window is doubled until it holds enough room.
   */
  private async spread(trx: Trx, { houseId, registerId }: Place, from: bigint, count: number): Promise<void> {
    for (let window = 512; ; window *= 2) {
      const ahead = await sql<{ last: string; entries: number; next: string | null }>`
        with ahead as (
          select pos from entries where house_id = ${houseId} and register_id = ${registerId} and pos >= ${from.toString()} order by pos limit ${window}
        )
        select max(pos)::text as last, count(*) as entries,
          (select min(pos) from entries where house_id = ${houseId} and register_id = ${registerId} and pos > (select max(pos) from ahead))::text as next
        from ahead`.execute(trx);
      const { last, entries, next } = ahead.rows[0]!;
      const beyond = next === null ? BigInt(last) + posGap * BigInt(entries + count + 1) : BigInt(next);
      const step = (beyond - from) / BigInt(entries + count + 2);
      if (step < 1024n && next !== null) continue;
      await sql`
        update entries set pos = numbered.pos from (
          select id, ${from.toString()}::bigint + ${step.toString()}::bigint * (${count} + row_number() over (order by pos)) as pos
          from entries where house_id = ${houseId} and register_id = ${registerId} and pos >= ${from.toString()} and pos <= ${last}
        ) numbered
        where entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = numbered.id`.execute(trx);
      await this.recountChunks(trx, { houseId, registerId }, from, beyond);
      return;
    }
  }

  /** Counts anew the chunks that touch a stretch of positions. */
  private async recountChunks(trx: Trx, { houseId, registerId }: Place, from: bigint, to: bigint): Promise<void> {
    await sql`
      with bounds as (
        select from_pos, lead(from_pos) over (order by from_pos) as until from chunks where house_id = ${houseId} and register_id = ${registerId}
      )
      update chunks set entries = (
        select count(*) from entries where entries.house_id = ${houseId} and entries.register_id = ${registerId}
          and pos >= bounds.from_pos and (bounds.until is null or pos < bounds.until))
      from bounds
      where chunks.house_id = ${houseId} and chunks.register_id = ${registerId} and chunks.from_pos = bounds.from_pos
        and bounds.from_pos <= ${to.toString()} and (bounds.until is null or bounds.until > ${from.toString()})`.execute(trx);
  }

  /**
   * Tells the chunks of entries that came (+1) or went (−1) at these positions, and splits what has grown too large. The
   * shape of the register is raised with it, by which arrangements know that they are old.
   */
  async countIn(trx: Trx, place: Place, positions: readonly (bigint | string)[], sign: 1 | -1): Promise<void> {
    const { houseId, registerId } = place;
    if (positions.length === 0) return;
    await trx
      .insertInto('chunks')
      .values({ house_id: houseId, register_id: registerId, from_pos: lowest, entries: 0 })
      .onConflict((conflict) => conflict.doNothing())
      .execute();
    await sql`
      update chunks set entries = chunks.entries + ${sign} * come.entries from (
        select chunk.from_pos, count(*)::int as entries from unnest(${positions.map(String)}::bigint[]) as at(pos)
        cross join lateral (
          select from_pos from chunks where house_id = ${houseId} and register_id = ${registerId} and from_pos <= at.pos order by from_pos desc limit 1
        ) chunk group by chunk.from_pos
      ) come
      where chunks.house_id = ${houseId} and chunks.register_id = ${registerId} and chunks.from_pos = come.from_pos`.execute(trx);
    await trx
      .updateTable('registers')
      .set((eb) => ({ shape: eb('shape', '+', 1) }))
      .where('house_id', '=', houseId)
      .where('id', '=', registerId)
      .execute();
    await this.splitLarge(trx, place);
  }

  /** Cuts every chunk that is too large into chunks of about 1,000 entries. */
  private async splitLarge(trx: Trx, { houseId, registerId }: Place): Promise<void> {
    const large = await trx
      .selectFrom('chunks')
      .select('from_pos')
      .where('house_id', '=', houseId)
      .where('register_id', '=', registerId)
      .where('entries', '>', mostInChunk)
      .limit(1)
      .execute();
    if (large.length === 0) return;
    await sql`
      with bounds as (
        select from_pos, entries, lead(from_pos) over (order by from_pos) as until from chunks where house_id = ${houseId} and register_id = ${registerId}
      ), numbered as (
        select entries.pos, bounds.from_pos, (row_number() over (partition by bounds.from_pos order by entries.pos) - 1) / ${mostInChunk / 2} as part
        from bounds join entries on entries.house_id = ${houseId} and entries.register_id = ${registerId}
          and entries.pos >= bounds.from_pos and (bounds.until is null or entries.pos < bounds.until)
        where bounds.entries > ${mostInChunk}
      ), parts as (
        select case when part = 0 then from_pos else min(pos) end as from_pos, count(*)::int as entries from numbered group by from_pos, part
      )
      insert into chunks (house_id, register_id, from_pos, entries) select ${houseId}, ${registerId}, from_pos, entries from parts
      on conflict (house_id, register_id, from_pos) do update set entries = excluded.entries`.execute(trx);
  }

  /** Counts the entries of registers that were laid as a whole, none of which was counted before. */
  async countLaid(trx: Trx, houseId: string, registerIds: readonly string[]): Promise<void> {
    await sql`
      insert into chunks (house_id, register_id, from_pos, entries)
      select ${houseId}, register_id, case when part = 0 then ${lowest.toString()}::bigint else min(pos) end, count(*)::int from (
        select register_id, pos, (row_number() over (partition by register_id order by pos) - 1) / ${mostInChunk / 2} as part
        from entries where house_id = ${houseId} and register_id = any(${[...registerIds]}::uuid[])
      ) numbered group by register_id, part`.execute(trx);
    await trx
      .updateTable('registers')
      .set((eb) => ({ shape: eb('shape', '+', 1) }))
      .where('house_id', '=', houseId)
      .where('id', '=', amongIds(registerIds))
      .execute();
  }

  /** Lays the whole register out anew in the given order of entries. */
  async layOut(trx: Trx, place: Place, ids: readonly string[]): Promise<void> {
    const { houseId, registerId } = place;
    await sql`
      update entries set pos = ordered.ord * ${posGap.toString()}::bigint
      from unnest(${ids}::uuid[]) with ordinality as ordered(id, ord)
      where entries.house_id = ${houseId} and entries.register_id = ${registerId} and entries.id = ordered.id`.execute(trx);
    await trx.deleteFrom('chunks').where('house_id', '=', houseId).where('register_id', '=', registerId).execute();
    await this.countIn(
      trx,
      place,
      ids.map((_, at) => posGap * BigInt(at + 1)),
      1,
    );
  }
}
