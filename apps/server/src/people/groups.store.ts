// Queries for groups of people.
import { Injectable } from '@nestjs/common';
import { matchKey } from '@dellum/core';
import { amongIds } from '../database/among.js';
import type { Trx } from '../database/database.js';

@Injectable()
export class GroupsStore {
  async add(trx: Trx, houseId: string, { id, name }: { id: string; name: string }): Promise<void> {
    await trx
      .insertInto('people_groups')
      .values({ house_id: houseId, id, name, name_key: matchKey(name) })
      .execute();
  }

  async rename(trx: Trx, houseId: string, id: string, name: string): Promise<void> {
    await trx
      .updateTable('people_groups')
      .set({ name, name_key: matchKey(name) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  /** Those of the house among the people named belong to the group from now on, and nobody else. */
  async setPeople(trx: Trx, houseId: string, id: string, people: readonly string[]): Promise<void> {
    await trx.deleteFrom('group_members').where('house_id', '=', houseId).where('group_id', '=', id).execute();
    if (people.length === 0) return;
    await trx
      .insertInto('group_members')
      .columns(['house_id', 'group_id', 'person_id'])
      .expression((eb) =>
        eb
          .selectFrom('people')
          .select(['house_id', eb.val(id).$castTo<string>().as('group_id'), 'id'])
          .where('house_id', '=', houseId)
          .where('id', '=', amongIds(people)),
      )
      .execute();
  }

  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('people_groups').where('house_id', '=', houseId).where('id', '=', id).execute();
  }
}
