// Queries for catalogs: what they are, and what they remember beyond their sources.
import { Injectable } from '@nestjs/common';
import { grouped, itemKey, type CatalogDefinition, type Item, type KeptItem, type Rekeyed } from '@dellum/core';
import { sql } from 'kysely';
import { amongTexts } from '../database/among.js';
import type { Reader, Trx } from '../database/database.js';

/** Optional members are left out rather than null. */
const given = <T extends Record<string, unknown>>(members: T): { [K in keyof T]?: NonNullable<T[K]> } =>
  Object.fromEntries(Object.entries(members).filter(([, member]) => member !== null)) as { [K in keyof T]?: NonNullable<T[K]> };

@Injectable()
export class CatalogsStore {
  /** What some catalogs keep of their items: retired values, labels, notes, colours, validity, other names. */
  async kept(db: Reader, houseId: string, catalogIds: readonly string[]): Promise<Map<string, KeptItem[]>> {
    if (catalogIds.length === 0) return new Map();
    const rows = await db
      .selectFrom('kept_items')
      .selectAll()
      .where('house_id', '=', houseId)
      .where('catalog_id', 'in', catalogIds)
      .orderBy('key')
      .execute();
    const names = await db
      .selectFrom('other_names')
      .select(['catalog_id', 'name', 'value'])
      .where('house_id', '=', houseId)
      .where('catalog_id', 'in', catalogIds)
      .orderBy('name')
      .execute();
    const rowsOf = grouped(rows, ({ catalog_id }) => catalog_id);
    const namesOf = grouped(names, ({ catalog_id }) => catalog_id);
    return new Map(
      catalogIds.map((id) => {
        const byKey = new Map(
          (namesOf.get(id) ?? []).length > 0
            ? [...grouped(namesOf.get(id)!, ({ value }) => value)].map(([key, own]) => [key, own.map(({ name }) => name)] as const)
            : [],
        );
        const items = (rowsOf.get(id) ?? []).map(
          ({ key, value, path, retired, label, note, colour, valid_from, valid_until }): KeptItem => {
            const otherNames = byKey.get(key) ?? [];
            byKey.delete(key);
            return { value, path, retired, otherNames, ...given({ label, note, colour, validFrom: valid_from, validUntil: valid_until }) };
          },
        );
        // Other names of items that have nothing else kept.
        const named = [...byKey].map(([key, otherNames]): KeptItem => {
          const parts = key.split('\u001F');
          return { value: parts.at(-1)!, path: parts.slice(0, -1), retired: false, otherNames };
        });
        return [id, [...items, ...named]] as const;
      }),
    );
  }

  /** Entrusts a catalog to some stewards and nobody else; returns how many of them there are. */
  async entrust(trx: Trx, houseId: string, catalogId: string, people: readonly string[]): Promise<number> {
    await trx.deleteFrom('stewards').where('house_id', '=', houseId).where('catalog_id', '=', catalogId).execute();
    const { rows } = await sql<{ person_id: string }>`
      insert into stewards (house_id, catalog_id, person_id)
      select house_id, ${catalogId}, id from people where house_id = ${houseId} and id = any(${[...people]}::uuid[]) and role = 'steward' returning person_id`.execute(
      trx,
    );
    return rows.length;
  }

  /** Keeps items as they are given, other names included; whatever was kept of them before is replaced. */
  async keep(trx: Trx, houseId: string, catalogId: string, items: readonly KeptItem[]): Promise<void> {
    if (items.length === 0) return;
    const keys = items.map(itemKey);
    const rows = items.map((item) => ({
      key: itemKey(item),
      value: item.value,
      path: item.path,
      retired: item.retired,
      label: item.label ?? null,
      note: item.note ?? null,
      colour: item.colour ?? null,
      valid_from: item.validFrom ?? null,
      valid_until: item.validUntil ?? null,
    }));
    await sql`
      insert into kept_items (house_id, catalog_id, key, value, path, retired, label, note, colour, valid_from, valid_until)
      select ${houseId}, ${catalogId}, key, value, path, retired, label, note, colour, valid_from, valid_until
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(key text, value text, path jsonb, retired boolean, label text, note text, colour text, valid_from text, valid_until text)
      on conflict (house_id, catalog_id, key) do update set retired = excluded.retired, label = excluded.label, note = excluded.note,
        colour = excluded.colour, valid_from = excluded.valid_from, valid_until = excluded.valid_until`.execute(trx);
    await trx
      .deleteFrom('other_names')
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where('value', '=', amongTexts(keys))
      .execute();
    const names = items.flatMap((item) => item.otherNames.map((name) => ({ from: name, to: itemKey(item) })));
    await this.nameOthers(trx, houseId, catalogId, names);
  }

  /** Items that their sources give no more stay known as retired, shown as they were. */
  async retire(trx: Trx, houseId: string, catalogId: string, items: readonly Pick<Item, 'value' | 'path' | 'label'>[]): Promise<void> {
    if (items.length === 0) return;
    const rows = items.map((item) => ({
      house_id: houseId,
      catalog_id: catalogId,
      key: itemKey(item),
      value: item.value,
      path: JSON.stringify(item.path),
      retired: true,
      label: item.label === item.value ? null : item.label,
      note: null,
      colour: null,
      valid_from: null,
      valid_until: null,
    }));
    await trx
      .insertInto('kept_items')
      .values(rows)
      .onConflict((conflict) =>
        conflict
          .columns(['house_id', 'catalog_id', 'key'])
          .doUpdateSet({ retired: true, label: sql`coalesce(kept_items.label, excluded.label)` }),
      )
      .execute();
  }

  async restore(trx: Trx, houseId: string, catalogId: string, keys: readonly string[]): Promise<void> {
    if (keys.length === 0) return;
    await trx
      .updateTable('kept_items')
      .set({ retired: false })
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where('key', '=', amongTexts(keys))
      .execute();
  }

  /** Forgets what is kept of items, but for the names by which they are known. */
  async forget(trx: Trx, houseId: string, catalogId: string, keys: readonly string[]): Promise<void> {
    if (keys.length === 0) return;
    await trx
      .deleteFrom('kept_items')
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where('key', '=', amongTexts(keys))
      .execute();
  }

  /** What was kept of an item goes on with its new key, unless that one has something of its own; so do its other names. */
  async follow(trx: Trx, houseId: string, catalogId: string, items: readonly Rekeyed[]): Promise<void> {
    if (items.length === 0) return;
    const rows = JSON.stringify(items.map(({ from, to }) => ({ from, to: itemKey(to), value: to.value, path: to.path })));
    await sql`
      update other_names set value = moved."to" from jsonb_to_recordset(${rows}::jsonb) as moved("from" text, "to" text)
      where house_id = ${houseId} and catalog_id = ${catalogId} and other_names.value = moved."from"`.execute(trx);
    await sql`
      update kept_items set key = moved."to", value = moved.value, path = moved.path
      from jsonb_to_recordset(${rows}::jsonb) as moved("from" text, "to" text, value text, path jsonb)
      where house_id = ${houseId} and catalog_id = ${catalogId} and key = moved."from"
        and not exists (select 1 from kept_items as own where own.house_id = ${houseId} and own.catalog_id = ${catalogId} and own.key = moved."to")`.execute(
      trx,
    );
  }

  /** Remembers old spellings as other names of items, given by their keys; names that led to an old spelling lead to the new one. */
  async remember(trx: Trx, houseId: string, catalogId: string, names: readonly { from: string; to: string }[]): Promise<void> {
    if (names.length === 0) return;
    await sql`
      update other_names set value = moved."to" from jsonb_to_recordset(${JSON.stringify(names)}::jsonb) as moved("from" text, "to" text)
      where house_id = ${houseId} and catalog_id = ${catalogId} and value = moved."from"`.execute(trx);
    await this.nameOthers(trx, houseId, catalogId, names);
  }

  private async nameOthers(trx: Trx, houseId: string, catalogId: string, names: readonly { from: string; to: string }[]): Promise<void> {
    const byName = new Map(names.map(({ from, to }) => [from, to]));
    if (byName.size === 0) return;
    await trx
      .insertInto('other_names')
      .values([...byName].map(([name, value]) => ({ house_id: houseId, catalog_id: catalogId, name, value })))
      .onConflict((conflict) =>
        conflict.columns(['house_id', 'catalog_id', 'name']).doUpdateSet((eb) => ({ value: eb.ref('excluded.value') })),
      )
      .execute();
  }

  /** A name that is a value again leads nowhere else any more. */
  async forgetNames(trx: Trx, houseId: string, catalogId: string, names: readonly string[]): Promise<void> {
    if (names.length === 0) return;
    await trx
      .deleteFrom('other_names')
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where('name', '=', amongTexts(names))
      .execute();
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

  /** The houses in which a catalog is ordered by use. */
  async orderedByUse(db: Reader): Promise<{ houseId: string }[]> {
    return db
      .selectFrom('catalogs')
      .select('house_id as houseId')
      .distinct()
      .where(sql<boolean>`definition #>> '{order,by}' = 'used'`)
      .execute();
  }

  async define(trx: Trx, houseId: string, id: string, definition: CatalogDefinition): Promise<void> {
    await trx
      .updateTable('catalogs')
      .set({ definition: JSON.stringify(definition) })
      .where('house_id', '=', houseId)
      .where('id', '=', id)
      .execute();
  }

  async add(
    trx: Trx,
    houseId: string,
    catalog: { id: string; key: string; title: string; note: string; definition: CatalogDefinition },
  ): Promise<void> {
    const { definition, ...row } = catalog;
    await trx
      .insertInto('catalogs')
      .values({ house_id: houseId, ...row, definition: JSON.stringify(definition) })
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
