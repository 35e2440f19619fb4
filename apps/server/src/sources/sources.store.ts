// Queries for slips and for the anchors of ranges.
import { Injectable } from '@nestjs/common';
import { matchKey, type SourceRange } from '@dellum/core';
import type { Proposal, Slip, SlipQuestion } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

@Injectable()
export class SourcesStore {
  async slips(db: Reader, houseId: string): Promise<Slip[]> {
    const rows = await this.slipRows(db, houseId).orderBy('slips.at').execute();
    return rows.map(({ at, ...slip }) => ({ ...slip, at: at.toISOString() }));
  }

  async slip(db: Reader, houseId: string, id: string): Promise<Slip | undefined> {
    const row = await this.slipRows(db, houseId).where('slips.id', '=', id).executeTakeFirst();
    return row && { ...row, at: row.at.toISOString() };
  }

  private slipRows(db: Reader, houseId: string) {
    return db
      .selectFrom('slips')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'slips.house_id').onRef('people.id', '=', 'slips.person_id'))
      .select(['slips.id', 'slips.proposal', 'slips.questions', 'slips.inside', 'people.name as by', 'slips.at'])
      .where('slips.house_id', '=', houseId);
  }

  async saveSlip(trx: Trx, houseId: string, slip: { id: string; personId: string; proposal: Proposal; questions: readonly SlipQuestion[]; inside: number; entries: readonly string[] }): Promise<void> {
    const questions = JSON.stringify(slip.questions);
    await trx
      .insertInto('slips')
      .values({
        house_id: houseId,
        id: slip.id,
        person_id: slip.personId,
        register_id: slip.proposal.registerId,
        proposal: JSON.stringify(slip.proposal),
        questions,
        inside: slip.inside,
        entries: JSON.stringify(slip.entries),
      })
      .onConflict((conflict) => conflict.columns(['house_id', 'id']).doUpdateSet({ questions, inside: slip.inside }))
      .execute();
  }

  async removeSlip(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('slips').where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** Who waits with a slip that touches one of these entries; undefined when nobody does. */
  async slipOn(trx: Trx, houseId: string, registerId: string, entries: readonly string[]): Promise<string | undefined> {
    if (entries.length === 0) return undefined;
    const row = await trx
      .selectFrom('slips')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'slips.house_id').onRef('people.id', '=', 'slips.person_id'))
      .select('people.name')
      .where('slips.house_id', '=', houseId)
      .where('slips.register_id', '=', registerId)
      .where(sql<boolean>`slips.entries ?| ${[...entries]}::text[]`)
      .executeTakeFirst();
    return row?.name;
  }

  async addRange(trx: Trx, houseId: string, registerId: string, range: SourceRange): Promise<void> {
    await trx.insertInto('ranges').values({ house_id: houseId, id: range.id, register_id: registerId, field_key: range.field, name: range.name, name_key: matchKey(range.name), range_start: JSON.stringify(range.start), range_end: JSON.stringify(range.end) }).execute();
  }

  async changeRanges(trx: Trx, houseId: string, ranges: readonly SourceRange[]): Promise<void> {
    if (ranges.length === 0) return;
    const rows = ranges.map((range) => ({ id: range.id, name: range.name, name_key: matchKey(range.name), range_start: range.start, range_end: range.end }));
    await sql`
      update ranges set name = changed.name, name_key = changed.name_key, range_start = changed.range_start, range_end = changed.range_end
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as changed(id uuid, name text, name_key text, range_start jsonb, range_end jsonb)
      where ranges.house_id = ${houseId} and ranges.id = changed.id`.execute(trx);
  }

  async removeRange(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('ranges').where('house_id', '=', houseId).where('id', '=', id).execute();
  }
}
