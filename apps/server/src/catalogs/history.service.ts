// The history of a catalog: who changed what when, and the catalog as it stood on any day.
import { Injectable } from '@nestjs/common';
import { isOfKind, itemKey, type Item } from '@dellum/core';
import type { CatalogChange, CatalogItems } from '@dellum/contract';
import { StructureService } from '../structure/structure.service.js';
import { Database } from '../database/database.js';
import type { ItemChange } from '../database/tables.js';
import type { Caller } from '../access/access.js';
import { zoneOf } from '../structure/days.js';
import { ProblemError } from '../problems/index.js';
import { keptCatalogOf } from './catalogs.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { HistoryStore } from '../compiled/history.store.js';

const mostShown = 200;
const mostWords = 6;

function wordsOf({ before, after, replacedBy }: ItemChange): string {
  if (!before) return `${after!.label} came in`;
  if (!after) return `${before.label} went out`;
  if (replacedBy !== undefined) return `${before.label} was replaced by ${replacedBy}`;
  if (before.value !== after.value) return `${before.label} was corrected to ${after.label}`;
  if (itemKey(before) !== itemKey(after)) return `${after.label} stands under ${after.path.join(' › ')} now`;
  if (before.state !== after.state) return after.state === 'retired' ? `${after.label} was retired` : `${after.label} is offered again`;
  if (before.label !== after.label) return `${before.label} is shown as ${after.label}`;
  if (before.otherNames.join() !== after.otherNames.join()) return `${after.label}: other names ${after.otherNames.join(', ') || 'none'}`;
  return `${after.label}: its note, colour, days or companions changed`;
}

/** The items before a change, from those after it. */
function earlier(items: readonly Item[], changes: readonly ItemChange[], orderBefore: readonly string[] | null): Item[] {
  const back = new Map(changes.flatMap((change) => (change.after ? [[itemKey(change.after), change.before] as const] : [])));
  const stayed = items.flatMap((item) => {
    const was = back.get(itemKey(item));
    return was === undefined ? [item] : was === null ? [] : [was];
  });
  const were = [...stayed, ...changes.flatMap(({ before, after }) => (before && !after ? [before] : []))];
  if (!orderBefore) return were;
  const places = new Map(orderBefore.map((key, place) => [key, place]));
  return were.sort((a, b) => (places.get(itemKey(a)) ?? 0) - (places.get(itemKey(b)) ?? 0));
}

@Injectable()
export class HistoryService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly compiled: CompiledCatalogsService,
    private readonly store: HistoryStore,
  ) {}

  async changes(caller: Caller, id: string): Promise<CatalogChange[]> {
    keptCatalogOf(await this.builds.now(caller.houseId), id, caller);
    const rows = await this.store.changes(this.database.kysely, caller.houseId, id, mostShown);
    return rows.map(({ id: change, at, items, orderBefore, definitionBefore, act, state, by }) => {
      const words = items.slice(0, mostWords).map(wordsOf);
      if (items.length > mostWords) words.push(`and ${items.length - mostWords} more`);
      if (definitionBefore) words.unshift('it is composed otherwise');
      if (words.length === 0 && orderBefore) words.push('its values were put in another order');
      return { id: change, at: at.toISOString(), by: by ?? 'Dellum', words, act: state === 'done' ? act : null };
    });
  }

  /** The catalog as it stood at the end of a day (ISO 8601) of the house. */
  async asOf(caller: Caller, id: string, day: string): Promise<CatalogItems> {
    if (!isOfKind('date', day)) throw new ProblemError('not-valid', `“${day}” is not a day of the calendar.`);
    const build = await this.builds.now(caller.houseId);
    const view = keptCatalogOf(build, id, caller);
    const { items, companions } = await this.compiled.get(this.database.kysely, build, id);
    const since = await this.store.since(this.database.kysely, caller.houseId, id, day, zoneOf(build.locale));
    const then = since.reduce<readonly Item[]>((now, { items: changed, orderBefore }) => earlier(now, changed, orderBefore), items);
    return { id, title: view.title, version: view.version, items: then, companions };
  }
}
