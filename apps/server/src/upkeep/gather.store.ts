// Queries for columns that were made lists.
import { Injectable } from '@nestjs/common';
import type { Rule } from '@dellum/core';
import { sql } from 'kysely';
import type { FieldBuild } from '../structure/structure.store.js';
import type { Reader } from '../database/database.js';

/** The list that was made for a column. */
export interface GatheredList {
  readonly rangeId: string;
  readonly registerId: string;
}
export interface LastGathered {
  readonly at: Date;
  readonly by: string | null;
  readonly actId: number;
  /** `list`: null where a catalog was there already. */
  readonly detail: {
    readonly catalogId: string;
    readonly list: GatheredList | null;
    readonly before: Rule | null;
    readonly spellings: number;
  };
  readonly takenBack: boolean;
}

@Injectable()
export class GatherStore {
  /** The last time that a column was made a list, as far as it can be taken back. */
  async last(db: Reader, houseId: string, { registerId, key }: FieldBuild): Promise<LastGathered | undefined> {
    const { rows } = await sql<LastGathered>`
      select made.at, people.name as by, made.act_id as "actId", made.detail, exists (
        select 1 from ledger back where back.house_id = made.house_id and back.register_id = made.register_id and back.field_key = made.field_key
          and back.act = 'column.ungathered' and (back.detail ->> 'of')::bigint = made.act_id) as "takenBack"
      from ledger made left join people on people.house_id = made.house_id and people.id = made.person_id
      where made.house_id = ${houseId} and made.register_id = ${registerId} and made.field_key = ${key} and made.act = 'column.gathered' and made.act_id is not null
      order by made.id desc limit 1`.execute(db);
    return rows[0];
  }
}
