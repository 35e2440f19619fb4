// Acts that were done, with what takes each back.
import { Injectable } from '@nestjs/common';
import type { Proposal, Step } from '@dellum/core';
import { registersOf, type CanAgain } from '@dellum/contract';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';

export interface DoneAct {
  readonly id: number;
  readonly proposal: Proposal;
  readonly back: readonly Step[];
  readonly state: 'done' | 'undone';
}

@Injectable()
export class ActsStore {
  /** Notes what is done, so that it can be taken back; one that is itself taken back or done again only changes its state. */
  async note(trx: Trx, caller: Caller, proposal: Proposal, back: readonly Step[]): Promise<number> {
    const { again, joins } = proposal;
    if (again) {
      // What would bring it back the other way is what was found now.
      const other =
        again.as === 'undone'
          ? { proposal: sql<string>`jsonb_set(proposal, '{steps}', ${JSON.stringify(back)}::jsonb)` }
          : { back: JSON.stringify(back) };
      await trx
        .updateTable('acts')
        .set({ state: again.as, ...other })
        .where('house_id', '=', caller.houseId)
        .where('id', '=', again.act)
        .execute();
      return again.act;
    }
    if (joins !== undefined) return this.join(trx, caller, joins, proposal, back);
    const { id } = await trx
      .insertInto('acts')
      .values({
        house_id: caller.houseId,
        person_id: caller.id,
        registers: JSON.stringify(registersOf(proposal)),
        proposal: JSON.stringify(proposal),
        back: JSON.stringify(back),
      })
      .returning('id')
      .executeTakeFirstOrThrow();
    // A new act ends what could have been done again on the same registers.
    await sql`delete from acts where house_id = ${caller.houseId} and person_id = ${caller.id} and state = 'undone' and registers ?| ${registersOf(proposal)}::text[]`.execute(
      trx,
    );
    return id;
  }

  /** Puts more steps to an act that the person did before; taken back, the last of them goes first. */
  private async join(trx: Trx, { houseId, id: personId }: Caller, id: number, { steps }: Proposal, back: readonly Step[]): Promise<number> {
    const joined = await sql`
      update acts set proposal = jsonb_set(proposal, '{steps}', (proposal -> 'steps') || ${JSON.stringify(steps)}::jsonb), back = ${JSON.stringify(back)}::jsonb || back
      where house_id = ${houseId} and person_id = ${personId} and id = ${id} and state = 'done'`.execute(trx);
    if (joined.numAffectedRows === 0n) throw notFound('The act that this goes on with');
    return id;
  }

  /** The person's last act on some registers that is done, or the first of those undone since. */
  async next(db: Reader, caller: Caller, registerIds: readonly string[], state: DoneAct['state']): Promise<DoneAct | undefined> {
    return db
      .selectFrom('acts')
      .select(['id', 'proposal', 'back', 'state'])
      .where('house_id', '=', caller.houseId)
      .where('person_id', '=', caller.id)
      .where('state', '=', state)
      .where(sql<boolean>`registers ?| ${[...registerIds]}::text[]`)
      .orderBy('id', state === 'done' ? 'desc' : 'asc')
      .limit(1)
      .executeTakeFirst();
  }

  /** Whether the person has acts on the registers of a sheet that are done, and some that are undone. */
  async states(db: Reader, { houseId, personId, sheetId }: { houseId: string; personId: string; sheetId: string }): Promise<CanAgain> {
    const { rows } = await sql<{ state: DoneAct['state'] }>`
      select distinct state from acts where house_id = ${houseId} and person_id = ${personId}
        and registers ?| array(select id::text from registers where house_id = ${houseId} and sheet_id = ${sheetId})`.execute(db);
    return { undo: rows.some(({ state }) => state === 'done'), redo: rows.some(({ state }) => state === 'undone') };
  }

  async find(db: Reader, houseId: string, id: number): Promise<DoneAct | undefined> {
    return db
      .selectFrom('acts')
      .select(['id', 'proposal', 'back', 'state'])
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .executeTakeFirst();
  }
}
