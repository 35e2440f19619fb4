// Queries for slips, for ranges and their stretches, and for the values of linked sources.
import { Injectable } from '@nestjs/common';
import { matchKey, type LinkedRow, type Proposal, type SourceRange } from '@dellum/core';
import type { Slip, SlipQuestion, TurnedEntries } from '@dellum/contract';
import { sql } from 'kysely';
import { amongIds } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

@Injectable()
export class SourcesStore {
  /** `of`: only the slips of this person. */
  async slips(db: Reader, houseId: string, of: string | undefined): Promise<Slip[]> {
    const rows = await this.slipRows(db, houseId, of).orderBy('slips.at').execute();
    return rows.map(({ at, ...slip }) => ({ ...slip, at: at.toISOString() }));
  }

  async slip(db: Reader, houseId: string, id: string, of: string | undefined): Promise<Slip | undefined> {
    const row = await this.slipRows(db, houseId, of).where('slips.id', '=', id).executeTakeFirst();
    return row && { ...row, at: row.at.toISOString() };
  }

  private slipRows(db: Reader, houseId: string, of: string | undefined) {
    return db
      .selectFrom('slips')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'slips.house_id').onRef('people.id', '=', 'slips.person_id'))
      .select(['slips.id', 'slips.proposal', 'slips.questions', 'slips.outside', 'slips.inside', 'people.name as by', 'slips.at'])
      .where('slips.house_id', '=', houseId)
      .$if(of !== undefined, (query) => query.where('slips.person_id', '=', of!));
  }

  async saveSlip(
    trx: Trx,
    houseId: string,
    slip: {
      id: string;
      personId: string;
      proposal: Proposal;
      questions: readonly SlipQuestion[];
      outside: readonly TurnedEntries[];
      inside: number;
      entries: readonly string[];
    },
  ): Promise<void> {
    const [questions, outside] = [JSON.stringify(slip.questions), JSON.stringify(slip.outside)];
    await trx
      .insertInto('slips')
      .values({
        house_id: houseId,
        id: slip.id,
        person_id: slip.personId,
        proposal: JSON.stringify(slip.proposal),
        questions,
        outside,
        inside: slip.inside,
        entries: JSON.stringify(slip.entries),
      })
      .onConflict((conflict) => conflict.columns(['house_id', 'id']).doUpdateSet({ questions, outside, inside: slip.inside }))
      .execute();
  }

  async removeSlip(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('slips').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** Who waits with a slip that touches one of these entries; undefined when nobody does. */
  async slipOn(trx: Trx, houseId: string, entries: readonly string[]): Promise<string | undefined> {
    if (entries.length === 0) return undefined;
    const row = await trx
      .selectFrom('slips')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'slips.house_id').onRef('people.id', '=', 'slips.person_id'))
      .select('people.name')
      .where('slips.house_id', '=', houseId)
      .where(sql<boolean>`slips.entries ?| ${[...entries]}::text[]`)
      .executeTakeFirst();
    return row?.name;
  }

  async addRanges(trx: Trx, houseId: string, ranges: readonly SourceRange[]): Promise<void> {
    if (ranges.length === 0) return;
    await trx
      .insertInto('ranges')
      .values(ranges.map(({ id, name, shape, inherits }) => ({ house_id: houseId, id, name, name_key: matchKey(name), shape, inherits })))
      .execute();
    await this.addStretches(trx, houseId, ranges);
  }

  async changeRanges(trx: Trx, houseId: string, ranges: readonly SourceRange[]): Promise<void> {
    if (ranges.length === 0) return;
    const rows = ranges.map(({ id, name, shape, inherits }) => ({ id, name, name_key: matchKey(name), shape, inherits }));
    await sql`
      update ranges set name = changed.name, name_key = changed.name_key, shape = changed.shape, inherits = changed.inherits
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as changed(id uuid, name text, name_key text, shape text, inherits boolean)
      where ranges.house_id = ${houseId} and ranges.id = changed.id`.execute(trx);
    await trx
      .deleteFrom('range_stretches')
      .where('house_id', '=', houseId)
      .where(
        'range_id',
        'in',
        ranges.map(({ id }) => id),
      )
      .execute();
    await this.addStretches(trx, houseId, ranges);
  }

  private async addStretches(trx: Trx, houseId: string, ranges: readonly SourceRange[]): Promise<void> {
    const rows = ranges.flatMap(({ id, stretches }) =>
      stretches.map(({ registerId, fields, start, end }, ord) => ({
        house_id: houseId,
        range_id: id,
        ord,
        register_id: registerId,
        fields: JSON.stringify(fields),
        range_start: JSON.stringify(start),
        range_end: JSON.stringify(end),
      })),
    );
    if (rows.length > 0) await trx.insertInto('range_stretches').values(rows).execute();
  }

  async removeRanges(trx: Trx, houseId: string, ids: readonly string[]): Promise<void> {
    if (ids.length > 0) await trx.deleteFrom('ranges').where('house_id', '=', houseId).where('id', '=', amongIds(ids)).execute();
  }

  async storeLinked(trx: Trx, houseId: string, id: string, rows: readonly LinkedRow[]): Promise<void> {
    await trx
      .updateTable('linked_sources')
      .set({ rows: JSON.stringify(rows) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async forgetMarks(trx: Trx, houseId: string, ids: readonly string[]): Promise<void> {
    if (ids.length > 0)
      await trx.updateTable('linked_sources').set({ mark: null }).where('house_id', '=', houseId).where('id', '=', amongIds(ids)).execute();
  }
}
