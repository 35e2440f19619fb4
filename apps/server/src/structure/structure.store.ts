// Reads the build of a house: a handful of set-based queries, whatever its size.
import { Injectable } from '@nestjs/common';
import {
  askedIn,
  canBeRead,
  grouped,
  nothingComposed,
  type Carry,
  type Closing,
  type FieldKind,
  type Locale,
  type Rule,
  type SourceRange,
} from '@dellum/core';
import type { CatalogView, FormName, LinkedName, PeopleGroup, SheetGroup, ToldApart } from '@dellum/contract';
import type { Reader } from '../database/database.js';

/** A linked source and the catalogs, by key, that it is computed over. */
export interface LinkedBuild extends LinkedName {
  readonly catalogs: readonly string[];
}

export interface FieldBuild {
  readonly id: string;
  readonly registerId: string;
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  readonly group: string;
  readonly rule: Rule | null;
}
export interface RegisterBuild {
  readonly id: string;
  readonly sheetId: string;
  readonly title: string;
  readonly source: boolean;
  readonly closing: Closing | null;
  readonly fields: readonly FieldBuild[];
}
export interface SheetBuild {
  readonly id: string;
  readonly kind: 'entry' | 'source';
  readonly title: string;
  readonly note: string;
  readonly shown: boolean;
  readonly limited: boolean;
  /** Where it is limited: whose people look at it, and whose enter data, too. */
  readonly groups: readonly SheetGroup[];
  /** Whoever looks at it downloads it, too; otherwise administrators alone. */
  readonly downloads: boolean;
}
/** A carry under way, with the field's key for the overlay. */
export interface CarryBuild extends Carry {
  readonly id: string;
  readonly fieldId: string;
  readonly registerId: string;
}
export interface HouseBuild {
  readonly version: number;
  readonly houseId: string;
  readonly locale: Locale;
  readonly sheets: readonly SheetBuild[];
  readonly registers: ReadonlyMap<string, RegisterBuild>;
  readonly fields: ReadonlyMap<string, FieldBuild>;
  readonly ranges: readonly SourceRange[];
  readonly catalogs: ReadonlyMap<string, CatalogView>;
  readonly linked: readonly LinkedBuild[];
  readonly forms: readonly FormName[];
  readonly carries: readonly CarryBuild[];
  readonly toldApart: readonly ToldApart[];
  readonly groups: readonly PeopleGroup[];
}

@Injectable()
export class StructureStore {
  async version(db: Reader, houseId: string): Promise<number> {
    const { build } = await db.selectFrom('houses').select('build').where('id', '=', houseId).executeTakeFirstOrThrow();
    return build;
  }

  async raiseVersion(db: Reader, houseId: string): Promise<number> {
    const { build } = await db
      .updateTable('houses')
      .set((eb) => ({ build: eb('build', '+', 1) }))
      .where('id', '=', houseId)
      .returning('build')
      .executeTakeFirstOrThrow();
    return build;
  }

  async load(db: Reader, houseId: string): Promise<HouseBuild> {
    const house = await db.selectFrom('houses').select(['build', 'locale']).where('id', '=', houseId).executeTakeFirstOrThrow();
    const sheets = await this.sheets(db, houseId);
    const fields = await this.fields(db, houseId);
    const registers = await this.registers(db, houseId, sheets, fields);
    const ranges = await this.ranges(db, houseId);
    const catalogs = await this.catalogs(db, houseId);
    const linkedRows = await db
      .selectFrom('linked_sources')
      .select(['id', 'name', 'settings'])
      .where('house_id', '=', houseId)
      .orderBy('name_key')
      .execute();
    const linked = linkedRows.map(({ id, name, settings }): LinkedBuild => ({
      id,
      name,
      catalogs: settings.kind === 'computed' ? (settings.catalogs ?? []) : [],
    }));
    const forms = await this.forms(db, houseId);
    const carries = await this.carries(db, houseId, fields);
    const apart = await db.selectFrom('told_apart').select(['id', 'one', 'other']).where('house_id', '=', houseId).orderBy('id').execute();
    return {
      version: house.build,
      houseId,
      locale: house.locale,
      sheets,
      registers,
      fields: new Map(fields.map((field) => [field.id, field])),
      ranges,
      catalogs,
      linked,
      forms,
      carries,
      toldApart: apart.map(({ id, one, other }) => ({ id, values: [one, other] })),
      groups: await this.groups(db, houseId),
    };
  }

  private async sheets(db: Reader, houseId: string): Promise<SheetBuild[]> {
    const rows = await db
      .selectFrom('sheets')
      .select(['id', 'kind', 'title', 'note', 'shown', 'limited', 'downloads'])
      .where('house_id', '=', houseId)
      .orderBy('ord')
      .orderBy('id')
      .execute();
    const groups = await db.selectFrom('sheet_groups').select(['sheet_id', 'group_id', 'enters']).where('house_id', '=', houseId).execute();
    const bySheet = grouped(groups, ({ sheet_id }) => sheet_id);
    return rows.map((row) => ({
      ...row,
      groups: (bySheet.get(row.id) ?? []).map(({ group_id, enters }) => ({ groupId: group_id, enters })),
    }));
  }

  private async groups(db: Reader, houseId: string): Promise<PeopleGroup[]> {
    const rows = await db.selectFrom('people_groups').select(['id', 'name']).where('house_id', '=', houseId).orderBy('name_key').execute();
    const members = await db.selectFrom('group_members').select(['group_id', 'person_id']).where('house_id', '=', houseId).execute();
    const byGroup = grouped(members, ({ group_id }) => group_id);
    return rows.map((row) => ({ ...row, people: (byGroup.get(row.id) ?? []).map(({ person_id }) => person_id) }));
  }

  private async fields(db: Reader, houseId: string): Promise<FieldBuild[]> {
    return db
      .selectFrom('fields')
      .select(['id', 'register_id as registerId', 'key', 'heading', 'kind', 'width', 'grouped as group', 'rule'])
      .where('house_id', '=', houseId)
      .orderBy('ord')
      .orderBy('id')
      .execute();
  }

  private async registers(
    db: Reader,
    houseId: string,
    sheets: readonly SheetBuild[],
    fields: readonly FieldBuild[],
  ): Promise<Map<string, RegisterBuild>> {
    const sources = new Set(sheets.filter(({ kind }) => kind === 'source').map(({ id }) => id));
    const byRegister = grouped(fields, ({ registerId }) => registerId);
    const rows = await db
      .selectFrom('registers')
      .select(['id', 'sheet_id as sheetId', 'title', 'closing'])
      .where('house_id', '=', houseId)
      .orderBy('ord')
      .orderBy('id')
      .execute();
    return new Map(rows.map((row) => [row.id, { ...row, source: sources.has(row.sheetId), fields: byRegister.get(row.id) ?? [] }]));
  }

  private async ranges(db: Reader, houseId: string): Promise<SourceRange[]> {
    const rows = await db
      .selectFrom('ranges')
      .select(['id', 'name', 'shape', 'inherits'])
      .where('house_id', '=', houseId)
      .orderBy('name_key')
      .execute();
    const stretches = await db.selectFrom('range_stretches').selectAll().where('house_id', '=', houseId).orderBy('ord').execute();
    const byRange = grouped(stretches, ({ range_id }) => range_id);
    return rows.map((row) => ({
      ...row,
      stretches: (byRange.get(row.id) ?? []).map(({ register_id, fields, range_start, range_end }) => ({
        registerId: register_id,
        fields,
        start: range_start,
        end: range_end,
      })),
    }));
  }

  private async catalogs(db: Reader, houseId: string): Promise<Map<string, CatalogView>> {
    const rows = await db
      .selectFrom('catalogs')
      .select(['id', 'key', 'title', 'note', 'version', 'definition'])
      .where('house_id', '=', houseId)
      .orderBy('title')
      .execute();
    const stewards = await db
      .selectFrom('stewards')
      .innerJoin('people', (join) => join.onRef('people.house_id', '=', 'stewards.house_id').onRef('people.id', '=', 'stewards.person_id'))
      .select(['stewards.catalog_id', 'people.id', 'people.name'])
      .where('stewards.house_id', '=', houseId)
      .orderBy('people.name')
      .execute();
    const byCatalog = grouped(stewards, ({ catalog_id }) => catalog_id);
    return new Map(
      rows.map((row) => [
        row.id,
        {
          ...row,
          // One that cannot be read offers nothing and says so; the others are not touched by it.
          ...(!canBeRead(row.definition) && { definition: nothingComposed, faulty: true as const }),
          stewards: (byCatalog.get(row.id) ?? []).map(({ id, name }) => ({ id, name })),
        },
      ]),
    );
  }

  private async forms(db: Reader, houseId: string): Promise<FormName[]> {
    const rows = await db
      .selectFrom('forms')
      .leftJoin('form_versions', (join) =>
        join
          .onRef('form_versions.house_id', '=', 'forms.house_id')
          .onRef('form_versions.form_id', '=', 'forms.id')
          .onRef('form_versions.version', '=', 'forms.published'),
      )
      .select([
        'forms.id',
        'forms.register_id as registerId',
        'forms.title',
        'forms.published',
        'forms.layout',
        'form_versions.layout as shown',
      ])
      .where('forms.house_id', '=', houseId)
      .orderBy('forms.title')
      .execute();
    return rows.map(({ layout, shown, ...form }) => ({
      ...form,
      fields: [...new Set([layout, ...(shown ? [shown] : [])].flatMap((one) => askedIn(one).map(({ field }) => field)))],
    }));
  }

  private async carries(db: Reader, houseId: string, fields: readonly FieldBuild[]): Promise<CarryBuild[]> {
    const byId = new Map(fields.map((field) => [field.id, field]));
    const rows = await db
      .selectFrom('carries')
      .select(['id', 'field_id', 'from_value', 'to_value'])
      .where('house_id', '=', houseId)
      .where('finished_at', 'is', null)
      .execute();
    return rows.map((row) => {
      const field = byId.get(row.field_id)!;
      return { id: row.id, fieldId: field.id, registerId: field.registerId, field: field.key, from: row.from_value, to: row.to_value };
    });
  }
}
