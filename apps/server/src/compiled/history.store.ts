// The history of catalogs: what each version changed, so that a catalog can be shown as it stood on any day.
import { Injectable } from '@nestjs/common';
import { itemKey, sameBegin, sameItem, type CatalogDefinition, type Item, type Rekeyed } from '@dellum/core';
import { sql } from 'kysely';
import type { ItemChange } from '../database/tables.js';
import type { Reader, Trx } from '../database/database.js';
import type { Caller } from '../access/access.js';

interface Noted {
  readonly catalogId: string;
  readonly version: number;
  readonly actId: number;
  readonly before: readonly Item[];
  readonly after: readonly Item[];
  readonly definitionBefore: CatalogDefinition | undefined;
  readonly meant: Meant;
}

/** Where an item stands is found again through its source; what is kept here is what it was. */
const bare = ({ from: _from, ...item }: Item): Item => ({ ...item, from: [] });

/** What was meant by a change: the keys of items that were corrected, each with its key after it, and values that were replaced, by their levels. */
export interface Meant {
  readonly corrected: readonly Rekeyed[];
  readonly replaced: ReadonlyMap<string, string>;
}

/** The items that differ between two states of a catalog, by their keys; those that were corrected as one item before and after. */
export function itemChanges(before: readonly Item[], after: readonly Item[], { corrected, replaced }: Meant): ItemChange[] {
  const was = new Map(before.map((item) => [itemKey(item), item]));
  const is = new Map(after.map((item) => [itemKey(item), item]));
  const oldKeys = new Map(
    corrected
      .filter(({ from, to }) => was.has(from) && !is.has(from) && is.has(itemKey(to)) && !was.has(itemKey(to)))
      .map(({ from, to }) => [itemKey(to), from]),
  );
  const paired = new Set(oldKeys.values());
  const changed = after.flatMap((item) => {
    const old = was.get(oldKeys.get(itemKey(item)) ?? itemKey(item));
    if (old && itemKey(old) === itemKey(item) && sameItem(old, item)) return [];
    const replacedBy = old?.state === 'offered' && item.state === 'retired' ? replaced.get(`${item.path.length} ${item.value}`) : undefined;
    return [{ before: old ?? null, after: item, ...(replacedBy !== undefined && { replacedBy }) }];
  });
  const gone = before.filter((item) => !is.has(itemKey(item)) && !paired.has(itemKey(item))).map((item) => ({ before: item, after: null }));
  // A value that changed is told before those that stand below it.
  return [...changed, ...gone]
    .sort((a, b) => (a.before ?? a.after)!.path.length - (b.before ?? b.after)!.path.length)
    .map(({ before: old, after: now, ...more }) => ({ before: old && bare(old), after: now && bare(now), ...more }));
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
  async note(trx: Trx, caller: Caller, { catalogId, version, actId, before, after, definitionBefore, meant }: Noted): Promise<void> {
    // What stands at the beginning as it stood is told by nothing.
    const begin = sameBegin(before, after);
    const [was, is] = [before.slice(begin), after.slice(begin)];
    const items = itemChanges(was, is, meant);
    const moved = reordered(was, is);
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
      .leftJoin('people', (join) =>
        join.onRef('people.house_id', '=', 'catalog_changes.house_id').onRef('people.id', '=', 'catalog_changes.person_id'),
      )
      .leftJoin('acts', (join) =>
        join.onRef('acts.house_id', '=', 'catalog_changes.house_id').onRef('acts.id', '=', 'catalog_changes.act_id'),
      )
      .select([
        'catalog_changes.id',
        'catalog_changes.at',
        'catalog_changes.items',
        'catalog_changes.order_before as orderBefore',
        'catalog_changes.definition_before as definitionBefore',
        'acts.id as act',
        'acts.state',
        'people.name as by',
      ])
      .where('catalog_changes.house_id', '=', houseId)
      .where('catalog_changes.catalog_id', '=', catalogId)
      .orderBy('catalog_changes.id', 'desc')
      .limit(limit)
      .execute();
  }

  /** The changes after the end of a day in a time zone, the newest first. */
  async since(db: Reader, houseId: string, catalogId: string, day: string, timeZone: string) {
    return db
      .selectFrom('catalog_changes')
      .select(['items', 'order_before as orderBefore'])
      .where('house_id', '=', houseId)
      .where('catalog_id', '=', catalogId)
      .where(sql<boolean>`at >= ((${day}::date + 1)::timestamp at time zone ${timeZone})`)
      .orderBy('id', 'desc')
      .execute();
  }
}
