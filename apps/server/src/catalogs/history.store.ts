// The history of catalogs: what each version changed, so that a catalog can be shown as it stood on any day.
import { Injectable } from '@nestjs/common';
import { itemKey, type CatalogDefinition, type Item } from '@dellum/core';
import type { ItemChange } from '../database/tables.js';
import type { Reader, Trx } from '../database/database.js';
import type { Caller } from '../people/guard.js';

interface Noted {
  readonly catalogId: string;
  readonly version: number;
  readonly actId: number;
  readonly before: readonly Item[];
  readonly after: readonly Item[];
  readonly definitionBefore: CatalogDefinition | undefined;
}

/** Where an item stands is found again through its source; what is kept here is what it was. */
const bare = ({ from: _from, ...item }: Item): Item => ({ ...item, from: [] });
const alike = (a: Item, b: Item) => JSON.stringify(bare(a)) === JSON.stringify(bare(b));

/** The items that differ between two states of a catalog, by their keys. */
export function itemChanges(before: readonly Item[], after: readonly Item[]): ItemChange[] {
  const was = new Map(before.map((item) => [itemKey(item), item]));
  const is = new Map(after.map((item) => [itemKey(item), item]));
  const changed = after.filter((item) => !was.has(itemKey(item)) || !alike(was.get(itemKey(item))!, item)).map((item) => ({ before: was.get(itemKey(item)) ?? null, after: item }));
  const gone = before.filter((item) => !is.has(itemKey(item))).map((item) => ({ before: item, after: null }));
  return [...changed, ...gone].map(({ before: old, after: now }) => ({ before: old && bare(old), after: now && bare(now) }));
}

/** True when the items that stay come in another order, or others came or went between them. */
function reordered(before: readonly Item[], after: readonly Item[]): boolean {
  const is = new Set(after.map(itemKey));
  const was = new Set(before.map(itemKey));
  const left = before.map(itemKey).filter((key) => is.has(key));
  const right = after.map(itemKey).filter((key) => was.has(key));
  // What is added at the end, or goes anywhere, can be told from the other rows alone.
  const added = after.map(itemKey).findIndex((key) => !was.has(key));
  return left.some((key, at) => key !== right[at]) || left.length < before.length || (added >= 0 && added < right.length);
}

@Injectable()
export class HistoryStore {
  async note(trx: Trx, caller: Caller, { catalogId, version, actId, before, after, definitionBefore }: Noted): Promise<void> {
    const items = itemChanges(before, after);
    const moved = reordered(before, after);
    if (items.length === 0 && !moved && !definitionBefore) return;
    await trx
      .insertInto('catalog_changes')
      .values({
        house_id: caller.houseId,
        catalog_id: catalogId,
        person_id: caller.id,
        act_id: actId,
        version,
        items: JSON.stringify(items),
        order_before: moved ? JSON.stringify(before.map(itemKey)) : null,
        definition_before: definitionBefore ? JSON.stringify(definitionBefore) : null,
      })
      .execute();
  }

  /** Changes of a catalog, the newest first. */
  async changes(db: Reader, houseId: string, catalogId: string, limit: number) {
    return db
      .selectFrom('catalog_changes')
      .leftJoin('people', (join) => join.onRef('people.house_id', '=', 'catalog_changes.house_id').onRef('people.id', '=', 'catalog_changes.person_id'))
      .leftJoin('acts', (join) => join.onRef('acts.house_id', '=', 'catalog_changes.house_id').onRef('acts.id', '=', 'catalog_changes.act_id'))
      .select(['catalog_changes.id', 'catalog_changes.at', 'catalog_changes.items', 'catalog_changes.order_before as orderBefore', 'catalog_changes.definition_before as definitionBefore', 'acts.id as act', 'acts.state', 'people.name as by'])
      .where('catalog_changes.house_id', '=', houseId)
      .where('catalog_changes.catalog_id', '=', catalogId)
      .orderBy('catalog_changes.id', 'desc')
      .limit(limit)
      .execute();
  }

  /** The changes after a moment, the newest first. */
  async since(db: Reader, houseId: string, catalogId: string, moment: Date) {
    return db
      .selectFrom('catalog_changes')
      .select(['items', 'order_before as orderBefore'])
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where('at', '>', moment)
      .orderBy('id', 'desc')
      .execute();
  }
}
