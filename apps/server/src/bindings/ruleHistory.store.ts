// Queries for what was set and cleared in the rules of fields. What was done to many fields at once shares its moment.
import { Injectable } from '@nestjs/common';
import type { Rule } from '@dellum/core';
import { sql } from 'kysely';
import type { Reader } from '../database/database.js';

export interface RuleRow {
  readonly id: number;
  readonly at: Date;
  readonly by: string | null;
  readonly fieldId: string;
  readonly before: Rule | null;
  readonly after: Rule | null;
}

@Injectable()
export class RuleHistoryStore {
  /**
   * Changes of fields that are still there, the newest first. `fieldId`: those of one field. `act`: those done in the same act as this one.
   */
  async rows(
    db: Reader,
    houseId: string,
    which: { readonly fieldId?: string | undefined; readonly act?: number },
    limit: number,
  ): Promise<RuleRow[]> {
    const { fieldId = null, act = null } = which;
    const { rows } = await sql<RuleRow>`
      select ledger.id, ledger.at, people.name as by, fields.id as "fieldId",
        nullif(detail -> 'before', 'null'::jsonb) as before, nullif(detail -> 'after', 'null'::jsonb) as after
      from ledger
      join fields on fields.house_id = ledger.house_id and fields.register_id = ledger.register_id and fields.key = ledger.field_key
      left join people on people.house_id = ledger.house_id and people.id = ledger.person_id
      where ledger.house_id = ${houseId} and ledger.act in ('rule.set', 'rule.cleared')
        and (${fieldId}::uuid is null or fields.id = ${fieldId}::uuid)
        and (${act}::bigint is null or (ledger.at, ledger.person_id) = (select at, person_id from ledger where house_id = ${houseId} and id = ${act}::bigint))
      order by ledger.id desc limit ${limit}`.execute(db);
    return rows;
  }
}
