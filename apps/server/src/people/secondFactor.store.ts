// Queries for the second factor of people.
import { Injectable } from '@nestjs/common';
import type { FactorView, Role } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import { recoveryHash } from './factorCodes.js';

@Injectable()
export class SecondFactorStore {
  async view(db: Reader, houseId: string, personId: string): Promise<FactorView> {
    const { rows } = await sql<Omit<FactorView, 'since'> & { since: Date | null }>`
      select factor_since as since, people.role = any (houses.factor_roles) as required,
        (select count(*)::int from recovery_codes where house_id = people.house_id and person_id = people.id) as "codesLeft"
      from people join houses on houses.id = people.house_id where people.house_id = ${houseId} and people.id = ${personId}`.execute(db);
    const [view] = rows;
    return { ...view!, since: view!.since?.toISOString() ?? null };
  }

  /** The secret that is being set up. */
  async pending(db: Reader, houseId: string, personId: string): Promise<string | undefined> {
    const row = await db
      .selectFrom('people')
      .select('factor_pending')
      .where('house_id', '=', houseId)
      .where('id', '=', personId)
      .executeTakeFirstOrThrow();
    return row.factor_pending ?? undefined;
  }

  async begin(db: Reader, houseId: string, personId: string, secret: string): Promise<void> {
    await this.set(db, houseId, personId, { factor_pending: secret });
  }

  /** From now on the person has this factor; `step`: of the code by which it was shown to work. */
  async keep(trx: Trx, houseId: string, personId: string, secret: string, step: number): Promise<void> {
    await this.set(trx, houseId, personId, { factor_secret: secret, factor_pending: null, factor_since: new Date(), factor_step: step });
  }

  async drop(trx: Trx, houseId: string, personId: string): Promise<void> {
    await this.set(trx, houseId, personId, { factor_secret: null, factor_pending: null, factor_since: null, factor_step: null });
    await this.replaceCodes(trx, houseId, personId, []);
  }

  private async set(
    db: Reader,
    houseId: string,
    personId: string,
    values: { factor_secret?: string | null; factor_pending?: string | null; factor_since?: Date | null; factor_step?: number | null },
  ): Promise<void> {
    await db.updateTable('people').set(values).where('house_id', '=', houseId).where('id', '=', personId).execute();
  }

  /** Uses the code of a step up: neither it nor one before it is taken again. False where it was used already. */
  async useStep(db: Reader, houseId: string, personId: string, step: number): Promise<boolean> {
    const used = await db
      .updateTable('people')
      .set({ factor_step: step })
      .where('house_id', '=', houseId)
      .where('id', '=', personId)
      .where((eb) => eb.or([eb('factor_step', 'is', null), eb('factor_step', '<', step)]))
      .returning('id')
      .executeTakeFirst();
    return used !== undefined;
  }

  /** Uses a code on paper up; false where it is none, or was used already. */
  async useRecoveryCode(db: Reader, houseId: string, personId: string, code: string): Promise<boolean> {
    const used = await db
      .deleteFrom('recovery_codes')
      .where('house_id', '=', houseId)
      .where('person_id', '=', personId)
      .where('code_hash', '=', recoveryHash(code))
      .returning('person_id')
      .executeTakeFirst();
    return used !== undefined;
  }

  async replaceCodes(trx: Trx, houseId: string, personId: string, codes: readonly string[]): Promise<void> {
    await trx.deleteFrom('recovery_codes').where('house_id', '=', houseId).where('person_id', '=', personId).execute();
    if (codes.length === 0) return;
    await trx
      .insertInto('recovery_codes')
      .values(codes.map((code) => ({ house_id: houseId, person_id: personId, code_hash: recoveryHash(code) })))
      .execute();
  }

  async roles(db: Reader, houseId: string): Promise<Role[]> {
    return (await db.selectFrom('houses').select('factor_roles').where('id', '=', houseId).executeTakeFirstOrThrow()).factor_roles;
  }

  async require(trx: Trx, houseId: string, roles: readonly Role[]): Promise<void> {
    await trx
      .updateTable('houses')
      .set({ factor_roles: [...roles] })
      .where('id', '=', houseId)
      .execute();
  }
}
