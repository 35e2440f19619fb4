// Lays the parts of a house into the database, a set at a time.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { catalogIdOf, matchKey, valuePair, type Cells, type HouseParts, type PartsRegister } from '@dellum/core';
import { sql } from 'kysely';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import type { Trx } from '../database/database.js';
import { PlacesStore, posGap } from '../entries/places.store.js';

/** So many rows go with one statement: each brings a dozen values, of which a statement takes 65,535. */
const atOnce = 2000;

/** An entry as it is laid: its place follows from its order. */
export interface LaidEntry {
  readonly id: string;
  readonly cells: Cells;
}

export const inBatches = <T>(rows: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(rows.length / size) }, (_, at) => rows.slice(at * size, (at + 1) * size));

type Insertable = 'sheets' | 'registers' | 'fields' | 'ranges' | 'range_stretches' | 'catalogs' | 'people' | 'people_groups' | 'told_apart';

@Injectable()
export class LayingStore {
  constructor(
    private readonly places: PlacesStore,
    private readonly catalogs: CatalogsStore,
  ) {}

  /** Lays all but the entries. `by`: in whose name forms are published and sources read; `hash`: a password that nobody knows. */
  async lay(trx: Trx, houseId: string, parts: HouseParts, { by, hash }: { readonly by: string; readonly hash: string }): Promise<void> {
    const own = { house_id: houseId };
    const people = parts.people.map(({ id, name, signIn, role }) => ({
      ...own,
      id,
      name,
      sign_in: signIn,
      sign_in_key: matchKey(signIn),
      role,
      password_hash: hash,
    }));
    await this.insert(trx, 'people', people);
    await this.insert(
      trx,
      'people_groups',
      parts.groups.map(({ id, name }) => ({ ...own, id, name, name_key: matchKey(name) })),
    );
    for (const members of inBatches(
      parts.groups.flatMap(({ id, people: all }) => all.map((person) => ({ ...own, group_id: id, person_id: person }))),
      atOnce,
    ))
      await trx
        .insertInto('group_members')
        .values(members)
        .onConflict((conflict) => conflict.doNothing())
        .execute();
    await this.sheets(trx, houseId, parts);
    await this.ranges(trx, houseId, parts);
    await this.linked(trx, houseId, parts, by);
    await this.catalogParts(trx, houseId, parts);
    // Rules name catalogs, and catalogs may be read from the sheets of the rules.
    await this.rules(
      trx,
      houseId,
      parts.sheets.flatMap(({ registers }) => registers),
    );
    await this.forms(trx, houseId, parts, by);
    if (parts.figures.length > 0)
      await trx
        .insertInto('figures')
        .values(
          parts.figures.map(({ id, title, definition }) => ({
            ...own,
            id,
            title,
            register_id: definition.registerId,
            definition: JSON.stringify(definition),
            person_id: by,
          })),
        )
        .execute();
    await this.toldApart(trx, houseId, parts.toldApart);
  }

  private async insert<Table extends Insertable>(trx: Trx, table: Table, rows: readonly object[]): Promise<void> {
    for (const batch of inBatches(rows, atOnce))
      await trx
        .insertInto(table)
        .values(batch as never)
        .execute();
  }

  private async lastOrd(trx: Trx, table: 'sheets' | 'registers' | 'fields', houseId: string): Promise<number> {
    const { last } = await trx
      .selectFrom(table)
      .select((eb) => eb.fn.max<number | null>('ord').as('last'))
      .where('house_id', '=', houseId)
      .executeTakeFirstOrThrow();
    return last ?? 0;
  }

  private async sheets(trx: Trx, houseId: string, { sheets }: HouseParts): Promise<void> {
    const own = { house_id: houseId };
    const [lastSheet, lastRegister, lastField] = [
      await this.lastOrd(trx, 'sheets', houseId),
      await this.lastOrd(trx, 'registers', houseId),
      await this.lastOrd(trx, 'fields', houseId),
    ];
    const sheetRows = sheets.map(({ id, kind, title, note, shown, limited, downloads }, at) => ({
      ...own,
      id,
      kind,
      title,
      note,
      shown,
      limited,
      downloads,
      ord: lastSheet + 1 + at,
    }));
    await this.insert(trx, 'sheets', sheetRows);
    const groups = sheets.flatMap(({ id, groups: all }) =>
      all.map(({ groupId, enters }) => ({ ...own, sheet_id: id, group_id: groupId, enters })),
    );
    if (groups.length > 0)
      await trx
        .insertInto('sheet_groups')
        .values(groups)
        .onConflict((conflict) => conflict.doNothing())
        .execute();
    const registers = sheets.flatMap((sheet) => sheet.registers.map((register) => ({ sheetId: sheet.id, register })));
    const registerRows = registers.map(({ sheetId, register: { id, title, closing } }, at) => ({
      ...own,
      id,
      sheet_id: sheetId,
      title,
      closing: closing && JSON.stringify(closing),
      ord: lastRegister + 1 + at,
    }));
    await this.insert(trx, 'registers', registerRows);
    const fields = registers.flatMap(({ register }) => register.fields.map((field) => ({ registerId: register.id, field })));
    const fieldRows = fields.map(({ registerId, field: { key, heading, kind, width, group } }, at) => ({
      ...own,
      id: randomUUID(),
      register_id: registerId,
      key,
      heading,
      kind,
      width,
      grouped: group,
      ord: lastField + 1 + at,
      rule: null,
      catalog_id: null,
    }));
    await this.insert(trx, 'fields', fieldRows);
  }

  private async rules(trx: Trx, houseId: string, registers: readonly PartsRegister[]): Promise<void> {
    const ruled = registers.flatMap(({ id, fields }) =>
      fields.flatMap(({ key, rule }) => (rule ? [{ register: id, key, rule, catalog: catalogIdOf(rule) ?? null }] : [])),
    );
    if (ruled.length === 0) return;
    await sql`
      update fields set rule = ruled.rule, catalog_id = ruled.catalog
      from jsonb_to_recordset(${JSON.stringify(ruled)}::jsonb) as ruled(register uuid, key text, rule jsonb, catalog uuid)
      where fields.house_id = ${houseId} and fields.register_id = ruled.register and fields.key = ruled.key`.execute(trx);
  }

  private async ranges(trx: Trx, houseId: string, { ranges }: HouseParts): Promise<void> {
    const own = { house_id: houseId };
    const rows = ranges.map(({ id, name, shape, inherits }) => ({ ...own, id, name, name_key: matchKey(name), shape, inherits }));
    await this.insert(trx, 'ranges', rows);
    const stretches = ranges.flatMap((range) =>
      range.stretches.map(({ registerId, fields, start, end }, ord) => ({
        ...own,
        range_id: range.id,
        ord,
        register_id: registerId,
        fields: JSON.stringify(fields),
        range_start: JSON.stringify(start),
        range_end: JSON.stringify(end),
      })),
    );
    await this.insert(trx, 'range_stretches', stretches);
  }

  private async linked(trx: Trx, houseId: string, { linked }: HouseParts, by: string): Promise<void> {
    const rows = linked.map(({ id, name, settings, every }) => ({
      house_id: houseId,
      id,
      name,
      name_key: matchKey(name),
      settings: JSON.stringify(settings),
      every,
      made_by: by,
      mark: null,
      last_good_at: null,
      last_tried_at: null,
      failure: null,
    }));
    if (rows.length > 0) await trx.insertInto('linked_sources').values(rows).execute();
  }

  private async catalogParts(trx: Trx, houseId: string, { catalogs }: HouseParts): Promise<void> {
    const rows = catalogs.map(({ id, key, title, note, definition }) => ({
      house_id: houseId,
      id,
      key,
      title,
      note,
      definition: JSON.stringify(definition),
    }));
    await this.insert(trx, 'catalogs', rows);
    for (const { id, kept } of catalogs) for (const items of inBatches(kept, atOnce)) await this.catalogs.keep(trx, houseId, id, items);
    const stewards = catalogs.flatMap(({ id, stewards: all }) =>
      all.map((person) => ({ house_id: houseId, catalog_id: id, person_id: person })),
    );
    if (stewards.length > 0)
      await trx
        .insertInto('stewards')
        .values(stewards)
        .onConflict((conflict) => conflict.doNothing())
        .execute();
  }

  private async forms(trx: Trx, houseId: string, { forms }: HouseParts, by: string): Promise<void> {
    if (forms.length === 0) return;
    const own = { house_id: houseId };
    await trx
      .insertInto('forms')
      .values(
        forms.map(({ id, registerId, title, layout, published }) => ({
          ...own,
          id,
          register_id: registerId,
          title,
          layout: JSON.stringify(layout),
          published: published ? 1 : null,
        })),
      )
      .execute();
    const versions = forms
      .filter(({ published }) => published)
      .map(({ id, title, layout }) => ({ ...own, form_id: id, version: 1, title, layout: JSON.stringify(layout), person_id: by }));
    if (versions.length > 0) await trx.insertInto('form_versions').values(versions).execute();
  }

  private async toldApart(trx: Trx, houseId: string, pairs: HouseParts['toldApart']): Promise<void> {
    const rows = pairs.map(([first, second]) => {
      const [one, other] = valuePair(first, second);
      return { house_id: houseId, id: randomUUID(), one, other };
    });
    for (const batch of inBatches(rows, atOnce))
      await trx
        .insertInto('told_apart')
        .values(batch)
        .onConflict((conflict) => conflict.doNothing())
        .execute();
  }

  /** Lays entries of a new register below those that were laid before: `from` counts them. They are there once they are counted. */
  async entries(trx: Trx, houseId: string, registerId: string, entries: readonly LaidEntry[], from: number): Promise<void> {
    const rows = entries.map(({ id, cells }, at) => ({ id, pos: (posGap * BigInt(from + at + 1)).toString(), cells }));
    await sql`
      insert into entries (house_id, register_id, id, pos, cells)
      select ${houseId}, ${registerId}, id, pos::bigint, cells
      from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as row(id uuid, pos text, cells jsonb)`.execute(trx);
  }

  /** Counts the entries of new registers, and what they hold. */
  async countLaid(trx: Trx, houseId: string, registerIds: readonly string[]): Promise<void> {
    if (registerIds.length === 0) return;
    await this.places.countLaid(trx, houseId, registerIds);
    // What is counted is put together in memory; on disk it takes twice as long.
    await sql`select set_config('work_mem', '64MB', true)`.execute(trx);
    // Each text is taken apart once, however many entries hold it.
    await sql`
      with held as materialized (
        select entries.register_id, cell.key, cell.value, count(*) as entries from entries
        cross join lateral jsonb_each_text(cells) as cell(key, value)
        where entries.house_id = ${houseId} and entries.register_id = any(${[...registerIds]}::uuid[])
        group by entries.register_id, cell.key, cell.value
      )
      insert into value_counts (house_id, field_id, value, entries)
      select ${houseId}, fields.id, one.value, sum(held.entries) from held
      join fields on fields.house_id = ${houseId} and fields.register_id = held.register_id and fields.key = held.key
      cross join lateral unnest(string_to_array(held.value, ${'\u001F'})) as one(value)
      group by fields.id, one.value`.execute(trx);
  }
}
