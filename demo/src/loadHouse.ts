// Lays a house out in the database, set by set, in one transaction.
import { randomUUID } from 'node:crypto';
import { matchKey, type Rule, type SourceRange } from '@dellum/core';
import { hashPassword, makeHouse, PlacesStore, posGap, type Tables, type Trx } from '@dellum/server';
import { sql, type Kysely } from 'kysely';
import type { CatalogBlueprint, EntrySheetBlueprint, HouseBlueprint, ListBlueprint } from './blueprint.js';

/** Loads the blueprint as a new house; returns its id. */
export async function loadHouse(db: Kysely<Tables>, blueprint: HouseBlueprint): Promise<string> {
  const people = await Promise.all(blueprint.people.map(async (person) => ({ ...person, passwordHash: await hashPassword(person.password) })));
  const loaded = await db.transaction().execute(async (trx) => {
    const houseId = await makeHouse(trx, blueprint);
    for (const { name, signIn, role, passwordHash } of people) {
      await trx.insertInto('people').values({ house_id: houseId, id: randomUUID(), name, sign_in: signIn, sign_in_key: matchKey(signIn), role, password_hash: passwordHash }).execute();
    }
    const layer = new Layer(trx, houseId);
    for (const sheet of blueprint.sourceSheets) await layer.sourceSheet(sheet.title, sheet.note, sheet.lists);
    for (const catalog of blueprint.catalogs) await layer.catalog(catalog);
    for (const sheet of blueprint.entrySheets) await layer.entrySheet(sheet);
    return houseId;
  });
  // Many rows at once: the planner is told now rather than when autovacuum comes by.
  await sql`analyze entries, value_counts`.execute(db);
  return loaded;
}

/** Deletes a house and everything in it. */
export async function deleteHouse(db: Kysely<Tables>, houseId: string): Promise<void> {
  await db.transaction().execute(async (trx) => {
    await trx.deleteFrom('catalog_parts').where('house_id', '=', houseId).execute();
    await trx.deleteFrom('slips').where('house_id', '=', houseId).execute();
    await trx.deleteFrom('ranges').where('house_id', '=', houseId).execute();
    await trx.deleteFrom('value_deltas').where('house_id', '=', houseId).execute();
    await trx.updateTable('fields').set({ catalog_id: null }).where('house_id', '=', houseId).execute();
    await trx.deleteFrom('houses').where('id', '=', houseId).execute();
  });
}

class Layer {
  private ord = 0;
  private readonly rangeIds = new Map<string, string>();
  private readonly catalogIds = new Map<string, string>();
  private readonly places = new PlacesStore();

  constructor(
    private readonly trx: Trx,
    private readonly houseId: string,
  ) {}

  private async sheet(kind: 'entry' | 'source', title: string, note: string): Promise<string> {
    const id = randomUUID();
    await this.trx.insertInto('sheets').values({ house_id: this.houseId, id, kind, title, note, ord: ++this.ord }).execute();
    return id;
  }

  private async register(sheetId: string, title: string): Promise<string> {
    const id = randomUUID();
    await this.trx.insertInto('registers').values({ house_id: this.houseId, id, sheet_id: sheetId, title, ord: ++this.ord }).execute();
    return id;
  }

  private async field(registerId: string, field: { key: string; heading: string; kind: EntrySheetBlueprint['fields'][number]['kind']; width: number }, rule: Rule | null): Promise<void> {
    await this.trx
      .insertInto('fields')
      .values({ house_id: this.houseId, id: randomUUID(), register_id: registerId, ...field, ord: ++this.ord, rule: rule && JSON.stringify(rule), catalog_id: rule?.catalogId ?? null })
      .execute();
  }

  /** Entries with their places, chunk counts and value counts. */
  private async entries(registerId: string, cells: readonly Readonly<Record<string, string>>[]): Promise<string[]> {
    const rows = cells.map((held, at) => ({ id: randomUUID(), pos: (posGap * BigInt(at + 1)).toString(), cells: held }));
    await sql`
      insert into entries (house_id, register_id, id, pos, cells)
      select ${this.houseId}, ${registerId}, id, pos::bigint, cells
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(id uuid, pos text, cells jsonb)`.execute(this.trx);
    await this.places.countIn(this.trx, { houseId: this.houseId, registerId }, rows.map(({ pos }) => pos), 1);
    await sql`
      insert into value_counts (house_id, field_id, value, entries)
      select ${this.houseId}, fields.id, cell.value, count(*) from entries
      cross join lateral jsonb_each_text(cells) as cell(key, value)
      join fields on fields.house_id = entries.house_id and fields.register_id = entries.register_id and fields.key = cell.key
      where entries.house_id = ${this.houseId} and entries.register_id = ${registerId} group by fields.id, cell.value`.execute(this.trx);
    return rows.map(({ id }) => id);
  }

  async sourceSheet(title: string, note: string, lists: readonly ListBlueprint[]): Promise<void> {
    const sheetId = await this.sheet('source', title, note);
    for (const list of lists) {
      const registerId = await this.register(sheetId, list.heading);
      await this.field(registerId, { key: 'value', heading: list.heading, kind: 'text', width: 160 }, null);
      const ids = await this.entries(registerId, list.texts.map((text): Record<string, string> => (text === '' ? {} : { value: text })));
      for (const range of list.ranges) await this.range(registerId, range, ids);
    }
  }

  private async range(registerId: string, { name, from, ends, last }: ListBlueprint['ranges'][number], ids: readonly string[]): Promise<void> {
    const id = randomUUID();
    const start: SourceRange['start'] = from === 0 ? { at: 'top' } : { at: 'entry', entry: ids[from]! };
    const end: SourceRange['end'] = ends === 'fixed' ? { ends, entry: ids[last ?? ids.length - 1]! } : { ends };
    this.rangeIds.set(name, id);
    await this.trx
      .insertInto('ranges')
      .values({ house_id: this.houseId, id, register_id: registerId, field_key: 'value', name, name_key: matchKey(name), range_start: JSON.stringify(start), range_end: JSON.stringify(end) })
      .execute();
  }

  async catalog({ title, note, ranges, retired = [], otherNames = {} }: CatalogBlueprint): Promise<void> {
    const id = randomUUID();
    const key = matchKey(title).replace(/[^a-z0-9]+/gu, '-');
    this.catalogIds.set(title, id);
    await this.trx.insertInto('catalogs').values({ house_id: this.houseId, id, key, title, note }).execute();
    await this.trx.insertInto('catalog_parts').values(ranges.map((name, ord) => ({ house_id: this.houseId, catalog_id: id, ord, range_id: this.rangeIds.get(name)! }))).execute();
    if (retired.length > 0) await this.trx.insertInto('kept_items').values(retired.map((value) => ({ house_id: this.houseId, catalog_id: id, value }))).execute();
    const names = Object.entries(otherNames).map(([name, value]) => ({ house_id: this.houseId, catalog_id: id, name, value }));
    if (names.length > 0) await this.trx.insertInto('other_names').values(names).execute();
  }

  async entrySheet({ title, note, fields, entries }: EntrySheetBlueprint): Promise<void> {
    const sheetId = await this.sheet('entry', title, note);
    const registerId = await this.register(sheetId, title);
    for (const { rule, ...field } of fields) await this.field(registerId, field, rule ? this.rule(rule) : null);
    await this.entries(registerId, entries);
  }

  private rule({ catalog, ...rule }: NonNullable<EntrySheetBlueprint['fields'][number]['rule']>): Rule {
    return { kind: 'catalog', catalogId: this.catalogIds.get(catalog)!, ...rule };
  }
}
