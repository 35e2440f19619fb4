// Seals over the ledger: each is a digest (SHA-256) of the rows since the one before it, and of that one's digest.
import { Injectable } from '@nestjs/common';
import { sql, type RawBuilder } from 'kysely';
import { Database, type Reader, type Trx } from '../database/database.js';

/** So many rows go into one seal at most. */
const mostRows = 20_000;
/** So many parts are sealed at once; what is left waits for the next time. */
const mostParts = 20;
const tries = 20;
const pause = 100;

/** What became of the seals of a house. */
export interface SealsChecked {
  readonly house: string;
  readonly seals: number;
  readonly rows: number;
  /** Rows that are too new to be sealed yet. */
  readonly unsealed: number;
  /** The digest of the last seal; null where there is none. */
  readonly digest: string | null;
  /** The first seal that does not fit its rows or the seal before it, with the rows it is about. */
  readonly broken: { readonly ord: number; readonly after: number; readonly upto: number; readonly at: Date } | null;
}

const hashed = (text: RawBuilder<string>) => sql<string>`encode(sha256(convert_to(${text}, 'UTF8')), 'hex')`;

/** The digest of a seal: over the one before it and its rows in their order. `line`: a row of the ledger as a whole. */
const digestOf = (before: RawBuilder<string>, line: RawBuilder<unknown>) =>
  hashed(sql`${before} || string_agg(${hashed(sql`ledger_row(${line})`)}, '' order by (${line}).id)`);

@Injectable()
export class SealsStore {
  constructor(private readonly database: Database) {}

  /** Seals what is there and can change no more. Returns false where others write all the time; it is tried again later. */
  async seal(): Promise<boolean> {
    for (let tried = 0; tried < tries; tried++) {
      const upto = await this.database.transaction((trx) => this.settled(trx));
      if (upto !== undefined) {
        for (let more = true, part = 0; more && part < mostParts; part++) more = await this.sealUpTo(upto);
        return true;
      }
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
    return false;
  }

  /** The newest number up to which no row is still to come; undefined while somebody writes. Nobody waits for it. */
  private async settled(trx: Trx): Promise<number | undefined> {
    const { rows } = await sql<{ alone: boolean }>`select pg_try_advisory_xact_lock(hashtext('dellum.ledger')) as alone`.execute(trx);
    if (!rows[0]!.alone) return undefined;
    const newest = await sql<{ newest: number }>`select coalesce(max(id), 0) as newest from ledger`.execute(trx);
    return newest.rows[0]!.newest;
  }

  /** One seal a house that has rows without one. Returns whether a house may have more. */
  private async sealUpTo(upto: number): Promise<boolean> {
    const { rows } = await sql<{ rows: number }>`
      with last as (
        select houses.id as house_id, coalesce(seal.ord, 0) as ord, coalesce(seal.upto, 0) as upto, coalesce(seal.digest, '') as digest
        from houses left join lateral (
          select ord, upto, digest from ledger_seals where house_id = houses.id order by ord desc limit 1) as seal on true
      )
      insert into ledger_seals (house_id, ord, upto, rows, digest)
      select last.house_id, last.ord + 1, max((part.line).id), count(*), ${digestOf(sql`last.digest`, sql`part.line`)}
      from last cross join lateral (
        select ledger as line from ledger where house_id = last.house_id and id > last.upto and id <= ${upto}
        order by id limit ${sql.lit(mostRows)}) as part
      group by last.house_id, last.ord, last.digest
      on conflict do nothing returning rows`.execute(this.database.kysely);
    return rows.some((seal) => seal.rows === mostRows);
  }

  /** Reckons every seal anew, house by house. */
  async check(db: Reader): Promise<SealsChecked[]> {
    const { rows } = await sql<SealsChecked>`
      with seals as (
        select house_id, ord, upto, rows, digest, at, lag(upto, 1, 0::bigint) over chain as after, lag(digest, 1, '') over chain as before,
          lag(ord, 1, 0) over chain as ord_before
        from ledger_seals window chain as (partition by house_id order by ord)
      ), reckoned as (
        select seals.*, found.digest as found, found.rows as rows_found
        from seals cross join lateral (
          select ${digestOf(sql`seals.before`, sql`l`)} as digest, count(*) as rows from ledger l
          where l.house_id = seals.house_id and l.id > seals.after and l.id <= seals.upto) as found
      ), broken as (
        select distinct on (house_id) house_id, json_build_object('ord', ord, 'after', after, 'upto', upto, 'at', at) as broken from reckoned
        where found is distinct from digest or rows_found <> rows or ord <> ord_before + 1 order by house_id, ord
      )
      select houses.key as house, count(seals.ord)::int as seals, coalesce(sum(seals.rows), 0)::bigint as rows,
        (select count(*) from ledger l where l.house_id = houses.id and l.id > coalesce(max(seals.upto), 0)) as unsealed,
        (array_agg(seals.digest order by seals.ord desc))[1] as digest, (select broken from broken where broken.house_id = houses.id) as broken
      from houses left join seals on seals.house_id = houses.id group by houses.id, houses.key order by houses.key`.execute(db);
    return rows.map((row) => ({ ...row, broken: row.broken && { ...row.broken, at: new Date(row.broken.at) } }));
  }

  /** Whether a digest that was noted elsewhere is one of the seals. */
  async knows(db: Reader, digest: string): Promise<boolean> {
    return (await db.selectFrom('ledger_seals').select('ord').where('digest', '=', digest).executeTakeFirst()) !== undefined;
  }
}
