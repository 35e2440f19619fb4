// Queries for sheets, registers and fields.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { catalogIdOf, type Closing, type FieldKind, type Rule } from '@dellum/core';
import { sql } from 'kysely';
import type { Trx } from '../database/database.js';

@Injectable()
export class SheetsStore {
  private async nextOrd(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string): Promise<number> {
    const { last } = await trx
      .selectFrom(table)
      .select((eb) => eb.fn.max<number | null>('ord').as('last'))
      .where('house_id', '=', houseId)
      .executeTakeFirstOrThrow();
    return (last ?? 0) + 1;
  }

  async addSheet(trx: Trx, houseId: string, sheet: { id: string; kind: 'entry' | 'source'; title: string; note: string }): Promise<void> {
    await trx
      .insertInto('sheets')
      .values({ house_id: houseId, ...sheet, ord: await this.nextOrd(trx, 'sheets', houseId) })
      .execute();
  }

  async addRegister(trx: Trx, houseId: string, register: { id: string; sheetId: string; title: string }): Promise<void> {
    const ord = await this.nextOrd(trx, 'registers', houseId);
    await trx
      .insertInto('registers')
      .values({ house_id: houseId, id: register.id, sheet_id: register.sheetId, title: register.title, ord })
      .execute();
  }

  /** Adds fields behind those that a register has; one that others must know at once brings its id. */
  async addFields(
    trx: Trx,
    houseId: string,
    registerId: string,
    fields: readonly { id?: string; key: string; heading: string; kind: FieldKind; width: number }[],
  ): Promise<void> {
    const first = await this.nextOrd(trx, 'fields', houseId);
    const rows = fields.map(({ key, heading, kind, width, id = randomUUID() }, at) => ({
      house_id: houseId,
      id,
      register_id: registerId,
      key,
      heading,
      kind,
      width,
      ord: first + at,
      rule: null,
      catalog_id: null,
    }));
    if (rows.length > 0) await trx.insertInto('fields').values(rows).execute();
  }

  async changeSheet(trx: Trx, houseId: string, id: string, change: { title?: string; note?: string; shown?: boolean }): Promise<void> {
    if (Object.keys(change).length === 0) return;
    await trx.updateTable('sheets').set(change).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  /** Which groups look at a sheet or enter data in it, and whether they download it. */
  async limit(
    trx: Trx,
    houseId: string,
    id: string,
    { groups, ...sheet }: { limited: boolean; downloads: boolean; groups: readonly { groupId: string; enters: boolean }[] },
  ): Promise<void> {
    await trx.updateTable('sheets').set(sheet).where('house_id', '=', houseId).where('id', '=', id).execute();
    await trx.deleteFrom('sheet_groups').where('house_id', '=', houseId).where('sheet_id', '=', id).execute();
    if (groups.length === 0) return;
    await trx
      .insertInto('sheet_groups')
      .values(groups.map(({ groupId, enters }) => ({ house_id: houseId, sheet_id: id, group_id: groupId, enters })))
      .execute();
  }

  async close(trx: Trx, houseId: string, registerId: string, closing: Closing | null): Promise<void> {
    await trx
      .updateTable('registers')
      .set({ closing: closing && JSON.stringify(closing) })
      .where('house_id', '=', houseId)
      .where('id', '=', registerId)
      .execute();
  }

  /** Gives siblings the order of the list: they share out the places that they have among them. */
  async order(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string, ids: readonly string[]): Promise<void> {
    await sql`
      with places as (select ord, row_number() over (order by ord, id) as at from ${sql.table(table)} where house_id = ${houseId} and id = any(${[...ids]}::uuid[]))
      update ${sql.table(table)} as placed set ord = places.ord
      from unnest(${[...ids]}::uuid[]) with ordinality as wanted(id, at) join places on places.at = wanted.at
      where placed.house_id = ${houseId} and placed.id = wanted.id`.execute(trx);
  }

  /** Copies all entries of a register into a new one, with their places and counts. */
  async copyEntries(trx: Trx, houseId: string, from: string, to: string): Promise<void> {
    await sql`insert into entries (house_id, register_id, id, pos, cells) select house_id, ${to}, gen_random_uuid(), pos, cells from entries where house_id = ${houseId} and register_id = ${from}`.execute(
      trx,
    );
    await sql`insert into chunks (house_id, register_id, from_pos, entries) select house_id, ${to}, from_pos, entries from chunks where house_id = ${houseId} and register_id = ${from}`.execute(
      trx,
    );
    await sql`
      insert into value_deltas (house_id, field_id, value, entries)
      select ${houseId}, copied.id, counted.value, sum(counted.entries) from value_numbers as counted
      join fields on counted.house_id = ${houseId} and fields.house_id = ${houseId} and fields.id = counted.field_id and fields.register_id = ${from}
      join fields as copied on copied.house_id = ${houseId} and copied.register_id = ${to} and copied.key = fields.key
      group by copied.id, counted.value having sum(counted.entries) <> 0`.execute(trx);
  }

  async retitle(trx: Trx, table: 'sheets' | 'registers', houseId: string, id: string, title: string): Promise<void> {
    await trx.updateTable(table).set({ title }).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async changeField(trx: Trx, houseId: string, fieldId: string, change: { heading: string; grouped?: string }): Promise<void> {
    await trx.updateTable('fields').set(change).where('house_id', '=', houseId).where('id', '=', fieldId).execute();
  }

  async changeKind(trx: Trx, houseId: string, fieldId: string, kind: FieldKind): Promise<void> {
    await trx.updateTable('fields').set({ kind }).where('house_id', '=', houseId).where('id', '=', fieldId).execute();
  }

  async setRule(trx: Trx, houseId: string, fieldId: string, rule: Rule | null): Promise<void> {
    await trx
      .updateTable('fields')
      .set({ rule: rule && JSON.stringify(rule), catalog_id: catalogIdOf(rule) ?? null })
      .where('house_id', '=', houseId)
      .where('id', '=', fieldId)
      .execute();
  }

  /** The rules of many fields in one statement; null for none. */
  async setRules(trx: Trx, houseId: string, rules: readonly { id: string; rule: Rule | null }[]): Promise<void> {
    const rows = rules.map(({ id, rule }) => ({ id, rule, catalog: catalogIdOf(rule) ?? null }));
    await sql`
      update fields set rule = nullif(ruled.rule, 'null'::jsonb), catalog_id = ruled.catalog
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as ruled(id uuid, rule jsonb, catalog uuid)
      where fields.house_id = ${houseId} and fields.id = ruled.id`.execute(trx);
  }

  async remove(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string, id: string): Promise<void> {
    await trx.deleteFrom(table).where('house_id', '=', houseId).where('id', '=', id).execute();
  }
}
