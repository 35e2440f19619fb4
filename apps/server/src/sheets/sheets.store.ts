// Queries for sheets, registers and fields.
import { Injectable } from '@nestjs/common';
import type { Rule } from '@dellum/core';
import type { Trx } from '../database/database.js';

@Injectable()
export class SheetsStore {
  private async nextOrd(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string): Promise<number> {
    const { last } = await trx.selectFrom(table).select((eb) => eb.fn.max<number | null>('ord').as('last')).where('house_id', '=', houseId).executeTakeFirstOrThrow();
    return (last ?? 0) + 1;
  }

  async addSheet(trx: Trx, houseId: string, sheet: { id: string; kind: 'entry' | 'source'; title: string; note: string }): Promise<void> {
    await trx.insertInto('sheets').values({ house_id: houseId, ...sheet, ord: await this.nextOrd(trx, 'sheets', houseId) }).execute();
  }

  async addRegister(trx: Trx, houseId: string, register: { id: string; sheetId: string; title: string }): Promise<void> {
    const ord = await this.nextOrd(trx, 'registers', houseId);
    await trx.insertInto('registers').values({ house_id: houseId, id: register.id, sheet_id: register.sheetId, title: register.title, ord }).execute();
  }

  async addField(trx: Trx, houseId: string, field: { id: string; registerId: string; key: string; heading: string; kind: 'text' | 'number' | 'percent' | 'date' | 'yes/no'; width: number }): Promise<void> {
    const ord = await this.nextOrd(trx, 'fields', houseId);
    await trx
      .insertInto('fields')
      .values({ house_id: houseId, id: field.id, register_id: field.registerId, key: field.key, heading: field.heading, kind: field.kind, width: field.width, ord, rule: null, catalog_id: null })
      .execute();
  }

  async retitle(trx: Trx, table: 'sheets' | 'registers', houseId: string, id: string, title: string): Promise<void> {
    await trx.updateTable(table).set({ title }).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async rename(trx: Trx, houseId: string, fieldId: string, heading: string): Promise<void> {
    await trx.updateTable('fields').set({ heading }).where('house_id', '=', houseId).where('id', '=', fieldId).execute();
  }

  async setRule(trx: Trx, houseId: string, fieldId: string, rule: Rule | null): Promise<void> {
    await trx
      .updateTable('fields')
      .set({ rule: rule && JSON.stringify(rule), catalog_id: rule?.catalogId ?? null })
      .where('house_id', '=', houseId)
      .where('id', '=', fieldId)
      .execute();
  }

  async remove(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string, id: string): Promise<void> {
    await trx.deleteFrom(table).where('house_id', '=', houseId).where('id', '=', id).execute();
  }
}
