// The append-only record of who changed what when. Written in the transaction of the change itself.
import { Injectable } from '@nestjs/common';
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
    // A statement binds at most 65,535 parameters; 11 a row.
    for (let at = 0; at < rows.length; at += 5000) {
      const values = rows.slice(at, at + 5000).map((row) => ledgerValues(houseId, row));
      await trx.insertInto('ledger').values(values).execute();
    }
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

/** The values of one ledger row, as they are inserted. */
export function ledgerValues(houseId: string, row: LedgerRow) {
  return {
    house_id: houseId,
    person_id: row.personId,
    act: row.act,
    register_id: row.registerId ?? null,
    entry_id: row.entryId ?? null,
    field_key: row.field ?? null,
    entry_version: row.entryVersion ?? null,
    from_value: row.from ?? null,
    to_value: row.to ?? null,
    detail: row.detail ? JSON.stringify(row.detail) : null,
  };
}
