// The append-only record of who changed what when. Written in the transaction of the change itself.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import type { LedgerDetail } from '../database/tables.js';
import type { Reader, Trx } from '../database/database.js';

export interface LedgerRow {
  /** Nobody for what the house does by itself. */
  readonly personId: string | null;
  readonly act: string;
  readonly registerId?: string;
  readonly entryId?: string;
  readonly field?: string;
  readonly entryVersion?: number;
  readonly from?: string;
  readonly to?: string;
  readonly detail?: LedgerDetail;
}

@Injectable()
export class Ledger {
  async write(trx: Trx, houseId: string, rows: readonly LedgerRow[]): Promise<void> {
    if (rows.length === 0) return;
    // One document for all rows: thousands of them cost one round trip, however many members they have.
    await sql`
      insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, entry_version, from_value, to_value, detail)
      select ${houseId}, "personId", act, "registerId", "entryId", field, "entryVersion", "from", "to", detail
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row("personId" uuid, act text, "registerId" uuid, "entryId" uuid, field text,
        "entryVersion" int, "from" text, "to" text, detail jsonb)`.execute(trx);
  }

  /** Who last changed a field of an entry after the given version, and when; undefined when nobody did. */
  lastChange(db: Reader, houseId: string, entryId: string, field: string, afterVersion: number) {
    return db
      .selectFrom('ledger')
      .leftJoin('people', (join) => join.onRef('people.house_id', '=', 'ledger.house_id').onRef('people.id', '=', 'ledger.person_id'))
      .select(['people.name as by', 'ledger.at'])
      .where('ledger.house_id', '=', houseId)
      .where('ledger.entry_id', '=', entryId)
      .where('ledger.field_key', '=', field)
      .where('ledger.entry_version', '>', afterVersion)
      .orderBy('ledger.id', 'desc')
      .limit(1)
      .executeTakeFirst();
  }
}
