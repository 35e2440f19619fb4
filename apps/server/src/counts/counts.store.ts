// How many entries hold each distinct value of a field. Written as append-only deltas in the transaction of the
// entry (direct upserts deadlock when transactions touch values in opposite order), those of many values as one row, and folded by a job.
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { grouped, longestValue, valuesIn } from '@dellum/core';
import { sql, type RawBuilder } from 'kysely';
import { Database, type Reader, type Trx } from '../database/database.js';

export interface Delta {
  readonly fieldId: string;
  readonly value: string;
  readonly entries: number;
}

/** The key under which a value is counted: the value itself, or for long free text its beginning and a digest. */
export function countKey(value: string): string {
  if (value.length <= longestValue) return value;
  return `${[...value].slice(0, shortestDigested).join('')}… ${createHash('sha256').update(value).digest('hex')}`;
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
  const sums = new Map<string, Map<string, number>>();
  for (const { fieldId, value, entries } of deltas) {
    const own = sums.get(fieldId) ?? new Map<string, number>();
    sums.set(fieldId, own);
    own.set(value, (own.get(value) ?? 0) + entries);
  }
  return [...sums].flatMap(([fieldId, own]) =>
    [...own].flatMap(([value, entries]) => (entries === 0 ? [] : [{ fieldId, value, entries }])),
  );
}

/** Deltas of more values of a field than this are kept together. */
const mostSingle = 100;
/** What is known of so many values of a field is worth being known beforehand. */
const mostFew = 50_000;
/** Keys of values that are too long to be counted as they are have at least so many characters. */
const shortestDigested = 200;
/** So many deltas, and so many blocks of them, are folded at once. */
const mostFolded = { deltas: 200_000, blocks: 50 };

@Injectable()
export class CountsStore {
  constructor(private readonly database: Database) {}

  async write(trx: Trx, houseId: string, deltas: readonly Delta[]): Promise<void> {
    for (const statement of this.writing(houseId, deltas)) await statement.execute(trx);
  }

  /** What writes deltas, as statements or parts of one. */
  writing(houseId: string, deltas: readonly Delta[]): RawBuilder<unknown>[] {
    const byField = [...grouped(summed(deltas), ({ fieldId }) => fieldId)];
    const single = byField.filter(([, own]) => own.length <= mostSingle).flatMap(([, own]) => own);
    const blocks = byField.filter(([, own]) => own.length > mostSingle).map(([fieldId, own]) => ({ fieldId, ...columnsOf(own) }));
    const written: RawBuilder<unknown>[] = [];
    if (single.length > 0) {
      const { values, numbers } = columnsOf(single);
      written.push(sql`
        insert into value_deltas (house_id, field_id, value, entries)
        select ${houseId}, field_id, value, entries
        from unnest(${single.map(({ fieldId }) => fieldId)}::uuid[], ${values}::text[], ${numbers}::bigint[]) as delta(field_id, value, entries)`);
    }
    if (blocks.length > 0)
      written.push(sql`
        insert into value_blocks (house_id, field_id, held, numbers)
        values ${sql.join(blocks.map(({ fieldId, values, numbers }) => sql`(${houseId}, ${fieldId}, ${values}::text[], ${numbers}::bigint[])`))}`);
    return written;
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
      select field_id, value, sum(entries)::bigint as entries from value_numbers
      where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and value = any(${values}::text[])
      group by field_id, value having sum(entries) <> 0`.execute(db);
    return byField(rows.rows);
  }

  /** The values of some fields that may be one of the given ones written differently, with their numbers of entries. */
  async alike(db: Reader, houseId: string, fieldIds: readonly string[], values: readonly string[]): Promise<Delta[]> {
    if (fieldIds.length === 0 || values.length === 0) return [];
    const { rows } = await sql<Delta>`
      with wanted as (select distinct alike_key(value) as key from unnest(${values}::text[]) as value)
      select field_id as "fieldId", value, sum(entries)::bigint as entries from value_numbers
      where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) and alike_key(value) in (select key from wanted)
      group by field_id, value having sum(entries) <> 0`.execute(db);
    return rows;
  }

  /** Every distinct value of the fields with its number of entries. */
  async ofFields(db: Reader, houseId: string, fieldIds: readonly string[]): Promise<Map<string, Map<string, number>>> {
    if (fieldIds.length === 0) return new Map();
    const rows = await sql<{ field_id: string; value: string; entries: number }>`
      select field_id, value, sum(entries)::bigint as entries from value_numbers
      where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) group by field_id, value having sum(entries) <> 0`.execute(db);
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
      select value, sum(entries)::bigint as entries from value_numbers
      where house_id = ${houseId} and field_id = ${fieldId} and position(lower(${containing}) in lower(value)) > 0
      group by value having sum(entries) > 0 order by entries desc, value collate natural_order limit ${limit}`.execute(db);
    return rows;
  }

  /** Whether the values of a field are few, and all of them counted as they are stored. */
  async hasFew(db: Reader, houseId: string, fieldId: string): Promise<boolean> {
    const { rows } = await sql<{ few: boolean }>`
      select count(*) <= ${mostFew} and coalesce(max(length(value)), 0) < ${shortestDigested} as few
      from (select value from value_numbers where house_id = ${houseId} and field_id = ${fieldId} limit ${mostFew + 1}) as held`.execute(
      db,
    );
    return rows[0]!.few;
  }

  /** How many entries hold something, by field. */
  async held(db: Reader, houseId: string, fieldIds: readonly string[]): Promise<Map<string, number>> {
    if (fieldIds.length === 0) return new Map();
    const rows = await sql<{ field_id: string; entries: number }>`
      select field_id, sum(entries)::bigint as entries from value_numbers
      where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) group by field_id`.execute(db);
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
        select field_id, value, sum(entries) as entries from value_numbers
        where house_id = ${houseId} and field_id = any(${fieldIds}::uuid[]) group by field_id, value having sum(entries) <> 0
      ) held group by field_id`.execute(db);
    return rows;
  }

  /** Folds the deltas that are there now into the counts; returns how many. */
  async fold(): Promise<number> {
    let all = 0;
    for (;;) {
      const { deltas, isMore } = await this.foldSome();
      all += deltas;
      if (!isMore) return all;
    }
  }

  /**
   * One folder at a time; values in order, so that none deadlock. The deltas are taken by their place in the table: looked for by their keys,
   * a table that has just grown is joined with itself.
   */
  private foldSome(): Promise<{ deltas: number; isMore: boolean }> {
    return this.database.transaction(async (trx) => {
      const turn = await sql<{ mine: boolean }>`select pg_try_advisory_xact_lock(hashtext('dellum.fold')) as mine`.execute(trx);
      if (!turn.rows[0]!.mine) return { deltas: 0, isMore: false };
      const folded = await sql<{ deltas: number; isMore: boolean }>`
        with single as (
          delete from value_deltas where ctid = any(array(select ctid from value_deltas limit ${mostFolded.deltas}))
          returning house_id, field_id, value, entries
        ), blocks as (
          delete from value_blocks where ctid = any(array(select ctid from value_blocks limit ${mostFolded.blocks}))
          returning house_id, field_id, held, numbers
        ), taken as (
          select house_id, field_id, value, entries from single
          union all select house_id, field_id, delta.value, delta.entries from blocks, unnest(held, numbers) as delta(value, entries)
        ), sums as (
          select taken.house_id, field_id, value, sum(entries) as entries from taken
          join fields on fields.house_id = taken.house_id and fields.id = taken.field_id
          group by taken.house_id, field_id, value having sum(entries) <> 0
        ), folded as (
          insert into value_counts (house_id, field_id, value, entries)
          select house_id, field_id, value, entries from sums order by house_id, field_id, value
          on conflict (house_id, field_id, value) do update set entries = value_counts.entries + excluded.entries
        )
        select (select count(*) from taken) as deltas,
          (select count(*) from single) = ${mostFolded.deltas} or (select count(*) from blocks) = ${mostFolded.blocks} as "isMore"`.execute(
        trx,
      );
      await trx.deleteFrom('value_counts').where('entries', '=', 0).execute();
      return folded.rows[0]!;
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

const columnsOf = (deltas: readonly Delta[]) => ({
  values: deltas.map(({ value }) => value),
  numbers: deltas.map(({ entries }) => entries),
});
