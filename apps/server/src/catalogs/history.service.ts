// The history of a catalog: who changed what when, and the catalog as it stood on any day.
import { Injectable } from '@nestjs/common';
import { itemKey, type Item } from '@dellum/core';
import type { CatalogChange, CatalogItems } from '@dellum/contract';
import { BuildService } from '../build/build.service.js';
import { Database } from '../database/database.js';
import type { ItemChange } from '../database/tables.js';
import type { Caller } from '../people/guard.js';
import { ProblemError } from '../problems/index.js';
import { keptCatalogOf } from './catalogs.service.js';
import { CompiledCatalogs } from './compiled.service.js';
import { HistoryStore } from './history.store.js';

const mostShown = 200;
const mostWords = 6;

function wordsOf({ before, after }: ItemChange): string {
  if (!before) return `${after!.label} came in`;
  if (!after) return `${before.label} went out`;
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
    private readonly builds: BuildService,
    private readonly compiled: CompiledCatalogs,
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

  /** The catalog as it stood at the end of a day (ISO 8601). */
  async asOf(caller: Caller, id: string, day: string): Promise<CatalogItems> {
    const end = new Date(`${day}T23:59:59.999Z`);
    if (!/^\d{4}-\d{2}-\d{2}$/u.test(day) || Number.isNaN(end.getTime())) throw new ProblemError('not-valid', `“${day}” is not a day of the calendar.`);
    const build = await this.builds.now(caller.houseId);
    const view = keptCatalogOf(build, id, caller);
    const { items, companions } = await this.compiled.get(this.database.kysely, build, id);
    const since = await this.store.since(this.database.kysely, caller.houseId, id, end);
    const then = since.reduce<readonly Item[]>((now, { items: changed, orderBefore }) => earlier(now, changed, orderBefore), items);
    return { id, title: view.title, version: view.version, items: then, companions };
  }
}
