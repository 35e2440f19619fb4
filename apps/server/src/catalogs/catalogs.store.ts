// Queries for catalogs: what they remember beyond their sources.
import { Injectable } from '@nestjs/common';
import { grouped, type KeptItem } from '@dellum/core';
import { sql } from 'kysely';
import type { Reader, Trx } from '../database/database.js';

@Injectable()
export class CatalogsStore {
  /** Retired values and other names of a catalog. */
  async kept(db: Reader, houseId: string, catalogId: string): Promise<KeptItem[]> {
    const retired = await db.selectFrom('kept_items').select('value').where('house_id', '=', houseId).where('catalog_id', '=', catalogId).orderBy('value').execute();
    const names = await db.selectFrom('other_names').select(['name', 'value']).where('house_id', '=', houseId).where('catalog_id', '=', catalogId).orderBy('name').execute();
    const namesOf = grouped(names, ({ value }) => value);
    const isRetired = new Set(retired.map(({ value }) => value));
    return [...new Set([...isRetired, ...namesOf.keys()])].map((value) => ({
      value,
      retired: isRetired.has(value),
      otherNames: (namesOf.get(value) ?? []).map(({ name }) => name),
    }));
  }

  async retire(trx: Trx, houseId: string, catalogId: string, values: readonly string[]): Promise<void> {
    if (values.length === 0) return;
    const rows = values.map((value) => ({ house_id: houseId, catalog_id: catalogId, value }));
    await trx.insertInto('kept_items').values(rows).onConflict((conflict) => conflict.doNothing()).execute();
  }

  async restore(trx: Trx, houseId: string, catalogId: string, values: readonly string[]): Promise<void> {
    if (values.length === 0) return;
    await trx.deleteFrom('kept_items').where('house_id', '=', houseId).where('catalog_id', '=', catalogId).where('value', 'in', [...values]).execute();
  }

  /** Remembers old spellings as other names; names that led to an old spelling lead to the new one. */
  async remember(trx: Trx, houseId: string, catalogId: string, names: readonly { from: string; to: string }[]): Promise<void> {
    if (names.length === 0) return;
    await sql`
      update other_names set value = moved."to" from jsonb_to_recordset(${JSON.stringify(names)}::jsonb) as moved("from" text, "to" text)
      where house_id = ${houseId} and catalog_id = ${catalogId} and value = moved."from"`.execute(trx);
    await trx
      .insertInto('other_names')
      .values(names.map(({ from, to }) => ({ house_id: houseId, catalog_id: catalogId, name: from, value: to })))
      .onConflict((conflict) => conflict.columns(['house_id', 'catalog_id', 'name']).doUpdateSet((eb) => ({ value: eb.ref('excluded.value') })))
      .execute();
  }

  /** A name that is a value again leads nowhere else any more. */
  async forgetNames(trx: Trx, houseId: string, catalogId: string, names: readonly string[]): Promise<void> {
    if (names.length === 0) return;
    await trx.deleteFrom('other_names').where('house_id', '=', houseId).where('catalog_id', '=', catalogId).where('name', 'in', [...names]).execute();
  }

  async raiseVersion(trx: Trx, houseId: string, catalogId: string): Promise<number> {
    const { version } = await trx
      .updateTable('catalogs')
      .set((eb) => ({ version: eb('version', '+', 1) }))
      .where('house_id', '=', houseId)
      .where('id', '=', catalogId)
      .returning('version')
      .executeTakeFirstOrThrow();
    return version;
  }

  async add(trx: Trx, houseId: string, catalog: { id: string; key: string; title: string; note: string; rangeIds: readonly string[] }): Promise<void> {
    const { id, key, title, note } = catalog;
    await trx.insertInto('catalogs').values({ house_id: houseId, id, key, title, note }).execute();
    await trx
      .insertInto('catalog_parts')
      .values(catalog.rangeIds.map((range_id, ord) => ({ house_id: houseId, catalog_id: id, ord, range_id })))
      .execute();
  }

  async change(trx: Trx, houseId: string, id: string, change: { title?: string; note?: string }): Promise<void> {
    if (Object.keys(change).length === 0) return;
    await trx.updateTable('catalogs').set(change).where('house_id', '=', houseId).where('id', '=', id).execute();
  }

  async remove(trx: Trx, houseId: string, id: string): Promise<void> {
    await trx.deleteFrom('catalogs').where('house_id', '=', houseId).where('id', '=', id).execute();
  }
}
