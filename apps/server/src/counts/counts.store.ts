// How many entries hold each distinct value of a field. Written as append-only deltas in the transaction of the
// entry (direct upserts deadlock when transactions touch values in opposite order) and folded by a job.
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { longestValue, valuesIn } from '@dellum/core';
import { sql } from 'kysely';
import { Database, type Reader, type Trx } from '../database/database.js';

export interface Delta {
  readonly fieldId: string;
  readonly value: string;
  readonly entries: number;
}

/** The key under which a value is counted: the value itself, or for long free text its beginning and a digest. */
export function countKey(value: string): string {
  if (value.length <= longestValue) return value;
  return `${[...value].slice(0, 200).join('')}… ${createHash('sha256').update(value).digest('hex')}`;
}

/** The deltas of one entry whose cells change; only fields whose value changed. */
export function deltasOf(
  before: Readonly<Record<string, string>>,
  after: Readonly<Record<string, string>>,
  fieldIds: ReadonlyMap<string, string>,
): Delta[] {
  const deltas: Delta[] = [];
  for (const [key, fieldId] of fieldIds) {
    const was = before[key];
    const is = after[key];
    if (was === is) continue;
    // Of several values each is counted by itself.
    for (const value of valuesIn(was ?? '')) deltas.push({ fieldId, value: countKey(value), entries: -1 });
    for (const value of valuesIn(is ?? '')) deltas.push({ fieldId, value: countKey(value), entries: 1 });
  }
  return deltas;
}

/** Deltas of many entries, one for each value that changed in number. */
export function summed(deltas: readonly Delta[]): Delta[] {
  const sums = new Map<string, Delta>();
  for (const delta of deltas) {
    const key = `${delta.fieldId}\u001F${delta.value}`;
    sums.set(key, { ...delta, entries: (sums.get(key)?.entries ?? 0) + delta.entries });
  }
  return [...sums.values()].filter(({ entries }) => entries !== 0);
}

@Injectable()
export class CountsStore {
  constructor(private readonly database: Database) {}

  async write(trx: Trx, houseId: string, deltas: readonly Delta[]): Promise<void> {
    const rows = summed(deltas);
    if (rows.length === 0) return;
    await sql`
      insert into value_deltas (house_id, field_id, value, entries)
      select ${houseId}, field_id, value, entries
      from unnest(${rows.map(({ fieldId }) => fieldId)}::uuid[], ${rows.map(({ value }) => value)}::text[], ${rows.map(({ entries }) => entries)}::bigint[]) as delta(field_id, value, entries)`.execute(
      trx,
    );
  }

  /** How many entries hold each of the given values, by field: folded counts and the deltas since. */
  async ofValues(
    db: Reader,
    houseId: string,
    fieldIds: readonly string[],
    values: readonly string[],
  ): Promise<Map<string, Map<string, number>>> {
    if (fieldIds.length === 0 || values.length === 0) return new Map();
    const rows = await sql<{ field_id: string; value: string; entries: number }>`
      select field_id, value, sum(entries)::bigint as entries from (
        select field_id, value, entries from value_counts
          where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and value = any(${values}::text[])
        union all
        select field_id, value, entries from value_deltas
          where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and value = any(${values}::text[])
      ) counted group by field_id, value having sum(entries) <> 0`.execute(db);
    return byField(rows.rows);
  }

  /** The values of some fields that may be one of the given ones written differently, with their numbers of entries. */
  async alike(db: Reader, houseId: string, fieldIds: readonly string[], values: readonly string[]): Promise<Delta[]> {
    if (fieldIds.length === 0 || values.length === 0) return [];
    const { rows } = await sql<Delta>`
      with wanted as (select distinct alike_key(value) as key from unnest(${values}::text[]) as value)
      select field_id as "fieldId", value, sum(entries)::bigint as entries from (
        select field_id, value, entries from value_counts
          where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and alike_key(value) in (select key from wanted)
        union all
        select field_id, value, entries from value_deltas
          where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and alike_key(value) in (select key from wanted)
      ) counted group by field_id, value having sum(entries) <> 0`.execute(db);
    return rows;
  }

  /** Every distinct value of the fields with its number of entries. */
  async ofFields(db: Reader, houseId: string, fieldIds: readonly string[]): Promise<Map<string, Map<string, number>>> {
    if (fieldIds.length === 0) return new Map();
    const rows = await sql<{ field_id: string; value: string; entries: number }>`
      select field_id, value, sum(entries)::bigint as entries from (
        select field_id, value, entries from value_counts where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
        union all
        select field_id, value, entries from value_deltas where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
      ) counted group by field_id, value having sum(entries) <> 0`.execute(db);
    return byField(rows.rows);
  }

  /** The values that most entries hold in a field, of those that contain a text in any case. */
  async mostHeld(
    db: Reader,
    houseId: string,
    fieldId: string,
    containing: string,
    limit: number,
  ): Promise<{ value: string; entries: number }[]> {
    const { rows } = await sql<{ value: string; entries: number }>`
      select value, sum(entries)::bigint as entries from (
        select value, entries from value_counts where house_id = ${houseId} and field_id = ${fieldId}
        union all
        select value, entries from value_deltas where house_id = ${houseId} and field_id = ${fieldId}
      ) counted where position(lower(${containing}) in lower(value)) > 0
      group by value having sum(entries) > 0 order by entries desc, value collate natural_order limit ${limit}`.execute(db);
    return rows;
  }

  /** How many entries hold something, by field. */
  async held(db: Reader, houseId: string, fieldIds: readonly string[]): Promise<Map<string, number>> {
    if (fieldIds.length === 0) return new Map();
    const rows = await sql<{ field_id: string; entries: number }>`
      select field_id, sum(entries)::bigint as entries from (
        select field_id, entries from value_counts where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
        union all
        select field_id, entries from value_deltas where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
      ) counted group by field_id`.execute(db);
    return new Map(rows.rows.map(({ field_id, entries }) => [field_id, entries]));
  }

  /** How many entries of a register hold something in a field; a look at every entry, for fields whose counts are of single values. */
  async filled(db: Reader, houseId: string, registerId: string, key: string): Promise<number> {
    const { rows } = await sql<{
      entries: number;
    }>`select count(*) as entries from entries where house_id = ${houseId} and register_id = ${registerId} and cells ? ${key}`.execute(db);
    return rows[0]!.entries;
  }

  /** How many distinct values some fields hold, and in how many entries. */
  async spread(
    db: Reader,
    houseId: string,
    fieldIds: readonly string[],
  ): Promise<{ fieldId: string; distinct: number; entries: number }[]> {
    if (fieldIds.length === 0) return [];
    const { rows } = await sql<{ fieldId: string; distinct: number; entries: number }>`
      select field_id as "fieldId", count(*) as distinct, sum(entries)::bigint as entries from (
        select field_id, value, sum(entries) as entries from (
          select field_id, value, entries from value_counts where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
          union all
          select field_id, value, entries from value_deltas where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[])
        ) counted group by field_id, value having sum(entries) <> 0
      ) held group by field_id`.execute(db);
    return rows;
  }

  /**
   * Folds the deltas that are there now into the counts. One folder at a time; values in order, so that none deadlock. The
   * deltas are taken by their place in the table: looked for by their keys, a table that has just grown is joined with itself.
   */
  async fold(): Promise<number> {
    return this.database.transaction(async (trx) => {
      const turn = await sql<{ mine: boolean }>`select pg_try_advisory_xact_lock(hashtext('dellum.fold')) as mine`.execute(trx);
      if (!turn.rows[0]!.mine) return 0;
      const folded = await sql<{ deltas: number }>`
        with taken as (
          delete from value_deltas where ctid = any(array(select ctid from value_deltas limit 200000))
          returning house_id, field_id, value, entries
        ), sums as (
          select taken.house_id, field_id, value, sum(entries) as entries from taken
          join fields on fields.house_id = taken.house_id and fields.id = taken.field_id
          group by taken.house_id, field_id, value having sum(entries) <> 0
        ), folded as (
          insert into value_counts (house_id, field_id, value, entries)
          select house_id, field_id, value, entries from sums order by house_id, field_id, value
          on conflict (house_id, field_id, value) do update set entries = value_counts.entries + excluded.entries
        )
        select count(*) as deltas from taken`.execute(trx);
      await trx.deleteFrom('value_counts').where('entries', '=', 0).execute();
      return folded.rows[0]!.deltas;
    });
  }

  /** A full recount of one field, from the entries themselves, for checking. */
  async recount(db: Reader, houseId: string, registerId: string, key: string): Promise<Map<string, number>> {
    const rows = await sql<{ value: string; entries: number }>`
      select value, count(*) as entries from entries, unnest(string_to_array(cells ->> ${key}, ${'\u001F'})) as value
      where house_id = ${houseId} and register_id = ${registerId} and cells ? ${key} group by 1`.execute(db);
    return new Map(rows.rows.map(({ value, entries }) => [countKey(value), entries]));
  }
}

function byField(rows: readonly { field_id: string; value: string; entries: number }[]): Map<string, Map<string, number>> {
  const counts = new Map<string, Map<string, number>>();
  for (const { field_id, value, entries } of rows) {
    const known = counts.get(field_id);
    if (known) known.set(value, entries);
    else counts.set(field_id, new Map([[value, entries]]));
  }
  return counts;
}
