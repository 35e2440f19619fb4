// Tries to sign in: counted before the password is looked at, so that however many come at once no more than a few are looked at.
import { Injectable } from '@nestjs/common';
import { sql } from 'kysely';
import { Database, type Reader } from '../database/database.js';

const minutesWatched = 15;
const mostByKey = 8;
const mostByAddress = 40;

@Injectable()
export class TriesStore {
  constructor(private readonly database: Database) {}

  /**
   * Counts a try under a key (a name, a known browser, a link) and an address; false, and not counted, where there were too many.
   * `most`: under the key.
   */
  mayTry(houseId: string, key: string, address: string, most = mostByKey): Promise<boolean> {
    return this.database.transaction(async (trx) => {
      for (const what of [`key ${key}`, `address ${address}`])
        await sql`select pg_advisory_xact_lock(hashtextextended(${`try ${houseId} ${what}`}, 0))`.execute(trx);
      const { byKey, byAddress } = await trx
        .selectFrom('sign_in_tries')
        .select((eb) => [
          eb.fn.countAll<number>().filterWhere('sign_in_key', '=', key).as('byKey'),
          eb.fn.countAll<number>().filterWhere('address', '=', address).as('byAddress'),
        ])
        .where('house_id', '=', houseId)
        .where('at', '>', sql<Date>`now() - make_interval(mins => ${minutesWatched})`)
        .executeTakeFirstOrThrow();
      if (byKey >= most || byAddress >= Math.max(most, mostByAddress)) return false;
      await trx.insertInto('sign_in_tries').values({ house_id: houseId, sign_in_key: key, address }).execute();
      return true;
    });
  }

  /** Forgets the tries under some keys: the password was right, or is another one now. */
  async forget(db: Reader, houseId: string, keys: readonly string[]): Promise<void> {
    await db.deleteFrom('sign_in_tries').where('house_id', '=', houseId).where('sign_in_key', 'in', keys).execute();
  }

  /** Forgets what is watched no more, in every house. */
  async forgetOld(db: Reader): Promise<void> {
    await db
      .deleteFrom('sign_in_tries')
      .where('at', '<', sql<Date>`now() - make_interval(mins => ${minutesWatched})`)
      .execute();
  }
}
