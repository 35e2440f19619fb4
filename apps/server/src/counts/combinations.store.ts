// How many entries hold each combination of some fields: kept for registers that are large, where a look at every entry takes long. What
// changes is noted by the database itself, whichever statement changes it, and folded by a job.
import { Injectable } from '@nestjs/common';
import type { Cells, Held } from '@dellum/core';
import { sql, type RawBuilder } from 'kysely';
import { Database, type Reader } from '../database/database.js';

/** Fields of a register whose values are combined, by their keys in any order. */
export interface Combined {
  readonly houseId: string;
  readonly registerId: string;
  readonly keys: readonly string[];
}
/** What is known of combinations that are not counted: nothing, that they are being counted, that they are too many to be kept. */
export type NotCounted = 'unknown' | 'counting' | 'many';

/** Of a register of fewer entries than this nothing is kept: a look at all of them costs little. */
export const manyEntries = 5_000;
/** More combinations than this are not kept: reading them would cost what reading the entries costs. */
const mostKept = 50_000;
/** So many sets of fields of a register are kept at most; each costs a little with every entry that is written. */
const mostSets = 24;
/** So long is waited for the acts under way in the register, and others wait behind that; then the job is tried again. */
const patience = '500ms';

const digest = sql`md5(to_jsonb(texts)::text)::uuid`;

/** The keys in the one order in which they are kept. */
const inOrder = (keys: readonly string[]): string[] => [...new Set(keys)].sort();

const cellsOf = (keys: readonly string[], texts: readonly (string | null)[]): Cells =>
  Object.fromEntries(keys.flatMap((key, at) => (typeof texts[at] === 'string' ? [[key, texts[at]]] : [])));

@Injectable()
export class CombinationsStore {
  constructor(private readonly database: Database) {}

  /** The combinations, those of blank fields among them; or what is known of them where they are not counted. */
  async of(db: Reader, wanted: Combined): Promise<readonly Held[] | NotCounted> {
    const kept = await this.keptFor(db, wanted);
    if (typeof kept === 'string') return kept;
    // As one document: thousands of rows with lists in them take the driver several times as long.
    const { rows } = await sql<{ held: (readonly [texts: readonly (string | null)[], entries: number])[] | null }>`
      select json_agg(json_build_array(texts, entries)) as held from ${this.counted(wanted.houseId, kept.id)} as counted`.execute(db);
    const keys = inOrder(wanted.keys);
    return (rows[0]!.held ?? []).map(([texts, entries]) => ({ cells: cellsOf(keys, texts), entries }));
  }

  /**
   * The combinations as rows of a statement that look like entries: `cells`, and `entries`, how many hold them; or what is known of them
   * where they are not counted.
   */
  async asEntries(db: Reader, wanted: Combined): Promise<RawBuilder<unknown> | NotCounted> {
    const kept = await this.keptFor(db, wanted);
    if (typeof kept === 'string') return kept;
    return sql`(select jsonb_strip_nulls(jsonb_object(${inOrder(wanted.keys)}::text[], texts)) as cells, entries
      from ${this.counted(wanted.houseId, kept.id)} as counted)`;
  }

  private async keptFor(db: Reader, { houseId, registerId, keys }: Combined): Promise<{ readonly id: string } | NotCounted> {
    const { rows } = await sql<{ id: string; state: 'counting' | 'counted' | 'many'; isOld: boolean }>`
      select id, state, asked_on < current_date as "isOld" from kept_combinations
      where house_id = ${houseId} and register_id = ${registerId} and keys = ${inOrder(keys)}::text[]`.execute(db);
    const [kept] = rows;
    if (!kept) return 'unknown';
    if (kept.isOld && kept.state !== 'counting')
      await sql`update kept_combinations set asked_on = current_date where house_id = ${houseId} and id = ${kept.id}`.execute(
        this.database.kysely,
      );
    return kept.state === 'counted' ? kept : kept.state;
  }

  private counted = (houseId: string, id: string) => sql`(
    select texts, sum(entries)::bigint as entries from (
      select texts, entries from combination_counts where house_id = ${houseId} and kept_id = ${id}
      union all
      select texts, entries from combination_deltas where house_id = ${houseId} and kept_id = ${id}
    ) noted group by texts having sum(entries) <> 0)`;

  /**
   * Counts the combinations, and keeps them from now on. What is changed meanwhile is noted beside; does nothing where they are kept
   * already, or are too many. Throws where somebody is changing the register all the time: whoever asks tries again.
   */
  async keep(wanted: Combined): Promise<void> {
    // Of many who have asked at once all but one find it done.
    const known = await this.keptFor(this.database.kysely, wanted);
    if (typeof known !== 'string' || known === 'many') return;
    const id = await this.begin(wanted);
    if (id !== undefined) await this.count(wanted, id);
  }

  /** From now on changes are noted: those under way are waited for, so that the entries that are counted have them. */
  private begin({ houseId, registerId, keys }: Combined): Promise<string | undefined> {
    return this.database.transaction(async (trx) => {
      await sql`select set_config('lock_timeout', ${patience}, true)`.execute(trx);
      await sql`select pg_advisory_xact_lock(hashtextextended('combinations of ' || ${registerId}::text, 0))`.execute(trx);
      const known = await trx
        .selectFrom('kept_combinations')
        .select(['id', 'state', sql<boolean>`keys = ${inOrder(keys)}::text[]`.as('isWanted')])
        .where('house_id', '=', houseId)
        .where('register_id', '=', registerId)
        .execute();
      const own = known.find(({ isWanted }) => isWanted);
      if (own) return own.state === 'counting' ? own.id : undefined;
      if (known.length >= mostSets) return undefined;
      const { rows } = await sql<{ id: string }>`
        insert into kept_combinations (house_id, register_id, keys, state)
        select house_id, id, ${inOrder(keys)}::text[], 'counting' from registers where house_id = ${houseId} and id = ${registerId}
        returning id`.execute(trx);
      return rows[0]?.id;
    });
  }

  /** In one view of the database: the entries as they are, without what was noted of them so far. */
  private count({ houseId, registerId, keys }: Combined, id: string): Promise<void> {
    return this.database.kysely
      .transaction()
      .setIsolationLevel('repeatable read')
      .execute(async (trx) => {
        const mine = await trx
          .selectFrom('kept_combinations')
          .select('id')
          .where('house_id', '=', houseId)
          .where('id', '=', id)
          .where('state', '=', 'counting')
          .forUpdate()
          .executeTakeFirst();
        if (!mine) return;
        await trx.deleteFrom('combination_deltas').where('house_id', '=', houseId).where('kept_id', '=', id).execute();
        const texts = sql.join(inOrder(keys).map((key) => sql`cells ->> ${key}`));
        const { rows } = await sql<{ counted: number }>`
          with held as (
            select array[${texts}] as texts, count(*) as entries from entries
            where house_id = ${houseId} and register_id = ${registerId} group by 1 limit ${mostKept + 1}
          ), kept as (
            insert into combination_counts (house_id, kept_id, digest, texts, entries)
            select ${houseId}, ${id}, ${digest}, texts, entries from held where (select count(*) from held) <= ${mostKept}
          )
          select count(*) as counted from held`.execute(trx);
        await trx
          .updateTable('kept_combinations')
          .set({ state: rows[0]!.counted > mostKept ? 'many' : 'counted' })
          .where('house_id', '=', houseId)
          .where('id', '=', id)
          .execute();
      });
  }

  /** Folds what was noted into the counts, of those that are counted; forgets what was noted of others. One folder at a time. */
  async fold(): Promise<void> {
    await this.database.transaction(async (trx) => {
      const turn = await sql<{ mine: boolean }>`select pg_try_advisory_xact_lock(hashtext('dellum.fold.combinations')) as mine`.execute(
        trx,
      );
      if (!turn.rows[0]!.mine) return;
      await sql`
        with taken as (
          delete from combination_deltas where ctid = any(array(
            select deltas.ctid from combination_deltas as deltas
            left join kept_combinations as kept on kept.house_id = deltas.house_id and kept.id = deltas.kept_id
            where kept.state is distinct from 'counting' limit 200000))
          returning house_id, kept_id, texts, entries
        ), sums as (
          select taken.house_id, kept_id, texts, sum(taken.entries) as entries from taken
          join kept_combinations as kept on kept.house_id = taken.house_id and kept.id = taken.kept_id and kept.state = 'counted'
          group by 1, 2, 3 having sum(taken.entries) <> 0
        )
        insert into combination_counts (house_id, kept_id, digest, texts, entries)
        select house_id, kept_id, ${digest}, texts, entries from sums order by 1, 2, 3
        on conflict (house_id, kept_id, digest) do update set entries = combination_counts.entries + excluded.entries`.execute(trx);
      await trx.deleteFrom('combination_counts').where('entries', '=', 0).execute();
    });
  }

  /** What was begun to be counted and is not: by a server that was killed, or one that counts it now, beside which a second comes to nothing. */
  async unfinished(db: Reader): Promise<Combined[]> {
    return db
      .selectFrom('kept_combinations')
      .select(['house_id as houseId', 'register_id as registerId', 'keys'])
      .where('state', '=', 'counting')
      .execute();
  }

  /**
   * Keeps no longer what nobody has asked for in a month (a rule is another one, a figure is gone), nor what could not be counted in a day:
   * what is noted of it would pile up.
   */
  async forgetOld(db: Reader): Promise<void> {
    await sql`delete from kept_combinations where asked_on < current_date - case when state = 'counting' then 1 else 30 end`.execute(db);
  }
}
