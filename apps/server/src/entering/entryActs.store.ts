// Queries for acts on blocks.
import { Injectable } from '@nestjs/common';
import { bothOutcomes, noOutcome, type BlockAct, type ActOutcome } from '@dellum/core';
import type { EntryActView, Role } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';

/** An act as its job works on it. */
export interface EntryActRow {
  readonly personId: string;
  readonly registerId: string;
  readonly what: BlockAct;
  /** The fields of the block, by key. */
  readonly fields: readonly string[];
  readonly entries: readonly string[];
  readonly done: number;
  readonly outcome: ActOutcome;
}

@Injectable()
export class EntryActsStore {
  async add(trx: Trx, houseId: string, act: Pick<EntryActRow, 'personId' | 'registerId' | 'what' | 'fields' | 'entries'>): Promise<number> {
    const { id } = await trx
      .insertInto('entry_acts')
      .values({
        house_id: houseId,
        person_id: act.personId,
        register_id: act.registerId,
        what: JSON.stringify(act.what),
        fields: JSON.stringify(act.fields),
        entries: sql`${act.entries}::uuid[]`,
        outcome: JSON.stringify(noOutcome),
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    return id;
  }

  /** An act that is done by other jobs, kept so that it can be taken back. */
  async addDone(trx: Trx, houseId: string, personId: string, registerId: string, what: BlockAct): Promise<number> {
    const { id } = await trx
      .insertInto('entry_acts')
      .values({
        house_id: houseId,
        person_id: personId,
        register_id: registerId,
        what: JSON.stringify(what),
        fields: '[]',
        entries: [],
        state: 'done',
        outcome: JSON.stringify(noOutcome),
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    return id;
  }

  async view(db: Reader, houseId: string, personId: string, id: number): Promise<EntryActView | undefined> {
    const row = await db
      .selectFrom('entry_acts')
      .select(['id', 'register_id', 'done', 'state', 'outcome', 'does', 'total'])
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('id', '=', id)
      .executeTakeFirst();
    return (
      row && {
        id: row.id,
        registerId: row.register_id,
        does: row.does,
        state: row.state,
        done: row.done,
        total: row.total,
        outcome: row.outcome,
      }
    );
  }

  /** The act with all that it works on; undefined when it is done, or gone with its register. */
  async read(db: Reader, houseId: string, id: number): Promise<(EntryActRow & { caller: Caller }) | undefined> {
    const row = await db
      .selectFrom('entry_acts')
      .innerJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'entry_acts.house_id').onRef('people.id', '=', 'entry_acts.person_id'),
      )
      .select(['person_id', 'register_id', 'what', 'fields', 'entries', 'done', 'outcome', 'people.name', 'people.role'])
      .where('entry_acts.house_id', '=', houseId)
      .where('entry_acts.id', '=', id)
      .where('state', '=', 'under way')
      .executeTakeFirst();
    return (
      row && {
        caller: { id: row.person_id, houseId, name: row.name, role: row.role as Role },
        personId: row.person_id,
        registerId: row.register_id,
        what: row.what,
        fields: row.fields,
        entries: row.entries,
        done: row.done,
        outcome: row.outcome,
      }
    );
  }

  /**
   * The oldest act on the register of one that is not done, after another and up to that one: acts are done in the order in which they were
   * taken on.
   */
  async oldestUntil(db: Reader, houseId: string, id: number, after: number): Promise<number | undefined> {
    const row = await db
      .selectFrom('entry_acts')
      .select((eb) => eb.fn.min('id').as('id'))
      .where('house_id', '=', houseId)
      .where('state', '=', 'under way')
      .where('id', '<=', id)
      .where('id', '>', after)
      .where('register_id', '=', (eb) =>
        eb.selectFrom('entry_acts as own').select('own.register_id').where('own.house_id', '=', houseId).where('own.id', '=', id),
      )
      .executeTakeFirst();
    return row?.id ?? undefined;
  }

  /** How far the act is, locked; undefined when it is done. Two workers at one act take turns, batch by batch. */
  async claim(trx: Trx, houseId: string, id: number): Promise<{ done: number; outcome: ActOutcome } | undefined> {
    return trx
      .selectFrom('entry_acts')
      .select(['done', 'outcome'])
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .where('state', '=', 'under way')
      .forUpdate()
      .executeTakeFirst();
  }

  /** What was pasted is in the entries when the act is done, and not kept twice. */
  async progress(
    trx: Trx,
    houseId: string,
    id: number,
    before: ActOutcome,
    part: ActOutcome,
    done: number,
    finished: boolean,
  ): Promise<void> {
    await trx
      .updateTable('entry_acts')
      .set({
        done,
        outcome: JSON.stringify(bothOutcomes(before, part)),
        ...(finished && { state: 'done' as const, what: sql<string>`what - 'texts'` }),
      })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Which act this one took back or did again; the entries that it touched. */
  async touched(db: Reader, houseId: string, personId: string, registerId: string, id: number): Promise<string[] | undefined> {
    const act = await db
      .selectFrom('entry_acts')
      .select('state')
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('register_id', '=', registerId)
      .where('id', '=', id)
      .executeTakeFirst();
    return act?.state === 'done' ? this.entriesOf(db, houseId, id) : undefined;
  }

  /** The entries that an act touched, in the order in which it did. */
  async entriesOf(db: Reader, houseId: string, id: number): Promise<string[]> {
    const { rows } = await sql<{ entry: string }>`
      select entry_id as entry from ledger where house_id = ${houseId} and act_id = ${id} and entry_id is not null group by entry_id order by min(id)`.execute(
      db,
    );
    return rows.map(({ entry }) => entry);
  }

  async unfinished(db: Reader): Promise<{ houseId: string; actId: number }[]> {
    return db.selectFrom('entry_acts').select(['house_id as houseId', 'id as actId']).where('state', '=', 'under way').execute();
  }
}
