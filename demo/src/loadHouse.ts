// Lays a house out in the database, set by set, in one transaction.
import { randomUUID } from 'node:crypto';
import {
  catalogIdOf,
  matchKey,
  newRule,
  ofRanges,
  type CatalogDefinition,
  type CatalogPart,
  type FigureDefinition,
  type FigurePath,
  type Rule,
  type Stretch,
} from '@dellum/core';
import { hashPassword, makeHouse, PlacesStore, posGap, type Tables, type Trx } from '@dellum/server';
import { sql, type Kysely } from 'kysely';
import type {
  CatalogBlueprint,
  EntrySheetBlueprint,
  FigureBlueprint,
  FormBlueprint,
  HouseBlueprint,
  LinkedBlueprint,
  RangeBlueprint,
  SourceSheetBlueprint,
  TableBlueprint,
} from './blueprint.js';

const hashes = new Map<string, Promise<string>>();

/** The passwords of blueprints are no secrets; each is hashed once, since that is dear by intent. */
function hashOnce(password: string): Promise<string> {
  const known = hashes.get(password) ?? hashPassword(password);
  hashes.set(password, known);
  return known;
}

/** Loads the blueprint as a new house; returns its id. */
export async function loadHouse(db: Kysely<Tables>, blueprint: HouseBlueprint): Promise<string> {
  const people = await Promise.all(blueprint.people.map(async (person) => ({ ...person, passwordHash: await hashOnce(person.password) })));
  const loaded = await db.transaction().execute(async (trx) => {
    const houseId = await makeHouse(trx, blueprint);
    for (const { name, signIn, role, passwordHash } of people) {
      await trx
        .insertInto('people')
        .values({
          house_id: houseId,
          id: randomUUID(),
          name,
          sign_in: signIn,
          sign_in_key: matchKey(signIn),
          role,
          password_hash: passwordHash,
        })
        .execute();
    }
    const layer = new Layer(trx, houseId);
    for (const sheet of blueprint.sourceSheets) await layer.sourceSheet(sheet);
    for (const source of blueprint.linked ?? []) await layer.linked(source);
    // Queries of catalogs name entry sheets, and rules of entry sheets name catalogs: the sheets are there first.
    for (const sheet of blueprint.entrySheets) await layer.entrySheet(sheet);
    for (const catalog of blueprint.catalogs) await layer.catalog(catalog);
    for (const sheet of blueprint.entrySheets) await layer.rules(sheet);
    for (const form of blueprint.forms ?? []) await layer.form(form);
    for (const figure of blueprint.figures ?? []) await layer.figure(figure);
    for (const request of blueprint.requests ?? []) await layer.requests(request);
    return houseId;
  });
  // Many rows at once: the planner is told now rather than when autovacuum comes by.
  await sql`analyze entries, value_counts`.execute(db);
  return loaded;
}

/** Deletes a house and everything in it. */
export async function deleteHouse(db: Kysely<Tables>, houseId: string): Promise<void> {
  await db.transaction().execute(async (trx) => {
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
  private readonly registerIds = new Map<string, string>();
  private readonly linkedIds = new Map<string, string>();
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

  private async field(
    registerId: string,
    { group = '', ...field }: Pick<EntrySheetBlueprint['fields'][number], 'key' | 'heading' | 'kind' | 'width' | 'group'>,
    rule: Rule | null,
  ): Promise<void> {
    await this.trx
      .insertInto('fields')
      .values({
        house_id: this.houseId,
        id: randomUUID(),
        register_id: registerId,
        ...field,
        grouped: group,
        ord: ++this.ord,
        rule: rule && JSON.stringify(rule),
        catalog_id: catalogIdOf(rule) ?? null,
      })
      .execute();
  }

  /** Entries with their places, chunk counts and value counts. */
  private async entries(registerId: string, cells: readonly Readonly<Record<string, string>>[]): Promise<string[]> {
    const rows = cells.map((held, at) => ({ id: randomUUID(), pos: (posGap * BigInt(at + 1)).toString(), cells: held }));
    await sql`
      insert into entries (house_id, register_id, id, pos, cells)
      select ${this.houseId}, ${registerId}, id, pos::bigint, cells
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(id uuid, pos text, cells jsonb)`.execute(this.trx);
    await this.places.countIn(
      this.trx,
      { houseId: this.houseId, registerId },
      rows.map(({ pos }) => pos),
      1,
    );
    await sql`
      insert into value_counts (house_id, field_id, value, entries)
      select ${this.houseId}, fields.id, one.value, count(*) from entries
      cross join lateral jsonb_each_text(cells) as cell(key, value)
      cross join lateral unnest(string_to_array(cell.value, ${'\u001F'})) as one(value)
      join fields on fields.house_id = entries.house_id and fields.register_id = entries.register_id and fields.key = cell.key
      where entries.house_id = ${this.houseId} and entries.register_id = ${registerId} group by fields.id, one.value`.execute(this.trx);
    return rows.map(({ id }) => id);
  }

  async sourceSheet({ title, note, lists, tables = [], headings }: SourceSheetBlueprint): Promise<void> {
    const sheetId = await this.sheet('source', title, note);
    const listed = lists.map(({ heading, texts, ranges }): TableBlueprint => ({
      heading,
      ranges,
      fields: [{ key: 'value', heading, kind: 'text', width: 160 }],
      rows: texts.map((text): Record<string, string> => (text === '' ? {} : { value: text })),
    }));
    const stretches: Stretch[] = [];
    for (const table of [...listed, ...tables]) {
      const registerId = await this.register(sheetId, table.heading);
      this.registerIds.set(table.heading, registerId);
      for (const field of table.fields) await this.field(registerId, field, null);
      const ids = await this.entries(registerId, table.rows);
      for (const range of table.ranges) await this.range(range, [stretchOf(registerId, range, table, ids)]);
      stretches.push({ registerId, fields: ['value'], start: { at: 'top' }, end: { ends: headings?.ends ?? 'last' } });
    }
    if (headings) await this.range({ ...headings, from: 0, shape: 'headings' }, stretches.slice(0, lists.length));
  }

  private async range({ name, shape = 'list' }: RangeBlueprint, stretches: readonly Stretch[]): Promise<void> {
    const id = randomUUID();
    this.rangeIds.set(name, id);
    await this.trx
      .insertInto('ranges')
      .values({ house_id: this.houseId, id, name, name_key: matchKey(name), shape, inherits: false })
      .execute();
    await this.trx
      .insertInto('range_stretches')
      .values(
        stretches.map(({ registerId, fields, start, end }, ord) => ({
          house_id: this.houseId,
          range_id: id,
          ord,
          register_id: registerId,
          fields: JSON.stringify(fields),
          range_start: JSON.stringify(start),
          range_end: JSON.stringify(end),
        })),
      )
      .execute();
  }

  async linked({ name, settings, every }: LinkedBlueprint): Promise<void> {
    const id = randomUUID();
    this.linkedIds.set(name, id);
    await this.trx
      .insertInto('linked_sources')
      .values({
        house_id: this.houseId,
        id,
        name,
        name_key: matchKey(name),
        settings: JSON.stringify(settings),
        every,
        made_by: null,
        mark: null,
        last_good_at: null,
        last_tried_at: null,
        failure: null,
      })
      .execute();
  }

  /** The part with ids in the place of names. */
  private part(part: CatalogPart): CatalogPart {
    switch (part.kind) {
      case 'typed':
        return part;
      case 'range':
        return { ...part, rangeId: this.rangeIds.get(part.rangeId)! };
      case 'query':
        return { ...part, registerId: this.registerIds.get(part.registerId)! };
      case 'linked':
        return { ...part, sourceId: this.linkedIds.get(part.sourceId)! };
      case 'catalog':
      case 'named':
        return { ...part, catalogId: this.catalogIds.get(part.catalogId)! };
      case 'keyed':
        return { ...part, catalogId: this.catalogIds.get(part.catalogId)!, registerId: this.registerIds.get(part.registerId)! };
    }
  }

  async catalog({
    title,
    note,
    ranges = [],
    parts,
    filter = null,
    order = { by: 'kept' },
    stewards = [],
    retired = [],
    otherNames = {},
    kept = {},
  }: CatalogBlueprint): Promise<void> {
    const id = randomUUID();
    const key = matchKey(title).replace(/[^a-z0-9]+/gu, '-');
    this.catalogIds.set(title, id);
    const definition: CatalogDefinition = {
      ...ofRanges([]),
      parts: (parts ?? ofRanges(ranges).parts).map((part) => this.part(part)),
      filter,
      order,
    };
    await this.trx
      .insertInto('catalogs')
      .values({ house_id: this.houseId, id, key, title, note, definition: JSON.stringify(definition) })
      .execute();
    if (stewards.length > 0) {
      const people = this.trx
        .selectFrom('people')
        .select(['house_id', sql<string>`${id}::uuid`.as('catalog_id'), 'id'])
        .where('house_id', '=', this.houseId)
        .where('sign_in', 'in', stewards);
      await this.trx.insertInto('stewards').columns(['house_id', 'catalog_id', 'person_id']).expression(people).execute();
    }
    const rows = [...new Set([...retired, ...Object.keys(kept)])].map((value) => {
      const { colour = null, note: own = null, validFrom = null, validUntil = null } = kept[value] ?? {};
      return {
        house_id: this.houseId,
        catalog_id: id,
        key: value,
        value,
        path: '[]',
        retired: retired.includes(value),
        label: null,
        note: own,
        colour,
        valid_from: validFrom,
        valid_until: validUntil,
      };
    });
    if (rows.length > 0) await this.trx.insertInto('kept_items').values(rows).execute();
    const names = Object.entries(otherNames).map(([name, value]) => ({ house_id: this.houseId, catalog_id: id, name, value }));
    if (names.length > 0) await this.trx.insertInto('other_names').values(names).execute();
  }

  async entrySheet({ title, note, fields, entries }: EntrySheetBlueprint): Promise<void> {
    const sheetId = await this.sheet('entry', title, note);
    const registerId = await this.register(sheetId, title);
    this.registerIds.set(title, registerId);
    for (const { key, heading, kind, width, group } of fields)
      await this.field(registerId, { key, heading, kind, width, ...(group !== undefined && { group }) }, null);
    await this.entries(registerId, entries);
  }

  /** The rules of a sheet's fields, once their catalogs are there. */
  async rules({ title, fields }: EntrySheetBlueprint): Promise<void> {
    const rules = fields.flatMap(({ key, rule }) => {
      if (!rule) return [];
      if (!('catalog' in rule)) return [{ key, rule: { ...newRule(rule.kind), ...rule } as Rule }];
      const { catalog, ...members } = rule;
      return [{ key, rule: { ...newRule('catalog'), ...members, catalogId: this.catalogIds.get(catalog)! } as Rule }];
    });
    if (rules.length === 0) return;
    await sql`
      update fields set rule = ruled.rule, catalog_id = (ruled.rule ->> 'catalogId')::uuid
      from jsonb_to_recordset(${JSON.stringify(rules)}::jsonb) as ruled(key text, rule jsonb)
      where fields.house_id = ${this.houseId} and fields.register_id = ${this.registerIds.get(title)!} and fields.key = ruled.key`.execute(
      this.trx,
    );
  }

  async form({ title, sheet, layout, filled }: FormBlueprint): Promise<void> {
    const id = randomUUID();
    const registerId = this.registerIds.get(sheet)!;
    await this.trx
      .insertInto('forms')
      .values({ house_id: this.houseId, id, register_id: registerId, title, layout: JSON.stringify(layout), published: 1 })
      .execute();
    await sql`
      insert into form_versions (house_id, form_id, version, title, layout, person_id)
      select house_id, ${id}, 1, ${title}, ${JSON.stringify(layout)}::jsonb, id from people where house_id = ${this.houseId} and role = 'administrator' limit 1`.execute(
      this.trx,
    );
    await sql`
      insert into form_fillings (house_id, form_id, submission, version, entry_id)
      select house_id, ${id}, gen_random_uuid(), 1, id from entries where house_id = ${this.houseId} and register_id = ${registerId} order by pos desc limit ${filled}`.execute(
      this.trx,
    );
  }

  async figure({ title, sheet, definition }: FigureBlueprint): Promise<void> {
    const pathOf = (path: FigurePath): FigurePath =>
      path.through ? { ...path, through: { ...path.through, registerId: this.registerIds.get(path.through.registerId)! } } : path;
    const registerId = this.registerIds.get(sheet)!;
    const whole: FigureDefinition = {
      ...definition,
      registerId,
      by: definition.by.map(pathOf),
      time: definition.time && { ...definition.time, path: pathOf(definition.time.path) },
      of: definition.of && pathOf(definition.of),
    };
    await sql`
      insert into figures (house_id, id, register_id, title, definition, person_id)
      select house_id, gen_random_uuid(), ${registerId}, ${title}, ${JSON.stringify(whole)}::jsonb, id from people where house_id = ${this.houseId} and role = 'administrator' limit 1`.execute(
      this.trx,
    );
  }

  /** Requests for values that entries hold already. */
  async requests({ sheet, field, values, by }: NonNullable<HouseBlueprint['requests']>[number]): Promise<void> {
    await sql`
      insert into requests (house_id, id, catalog_id, field_id, entry_id, path, value, person_id)
      select fields.house_id, gen_random_uuid(), fields.catalog_id, fields.id, entries.id, '[]', entries.cells ->> fields.key, people.id
      from fields
      join entries on entries.house_id = fields.house_id and entries.register_id = fields.register_id and entries.cells ->> fields.key = any(${[...new Set(values)]}::text[])
      join people on people.house_id = fields.house_id and people.sign_in = ${by}
      where fields.house_id = ${this.houseId} and fields.register_id = ${this.registerIds.get(sheet)!} and fields.key = ${field}`.execute(
      this.trx,
    );
  }
}

/** Where a range of a list or table lies: over one field, or over those of its levels. */
function stretchOf(
  registerId: string,
  { from, ends, last, fields }: RangeBlueprint,
  table: TableBlueprint,
  ids: readonly string[],
): Stretch {
  return {
    registerId,
    fields: fields ?? [table.fields[0]!.key],
    start: from === 0 ? { at: 'top' } : { at: 'entry', entry: ids[from]! },
    end: ends === 'fixed' ? { ends, entry: ids[last ?? ids.length - 1]! } : { ends },
  };
}
