// Queries for what was found of the sources of a house, by the version in which it was found.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

export interface KeptFinding {
  readonly version: number;
  readonly found: unknown;
}

@Injectable()
export class KeptFindingsStore {
  async last(db: Reader, houseId: string, what: string): Promise<KeptFinding | undefined> {
    return db
      .selectFrom('kept_findings')
      .select(['version', 'found'])
      .where('house_id', '=', houseId)
      .where('what', '=', what)
      .executeTakeFirst();
  }

  /** Keeps what was found, unless something of a later version is there. */
  async keep(trx: Trx, houseId: string, what: string, { version, found }: KeptFinding): Promise<void> {
    await trx
      .insertInto('kept_findings')
      .values({ house_id: houseId, what, version, found: JSON.stringify(found) })
      .onConflict((conflict) =>
        conflict
          .columns(['house_id', 'what'])
          .doUpdateSet((eb) => ({ version: eb.ref('excluded.version'), found: eb.ref('excluded.found') }))
          .where('kept_findings.version', '<=', sql<number>`excluded.version`),
      )
      .execute();
  }
}
