// What a house is made of, read at one moment: what goes into a house archive, and what names are taken.
import { Injectable } from '@nestjs/common';
import { itemKey, type FormLayout, type HouseParts, type PartsPerson } from '@dellum/core';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import type { Reader } from '../database/database.js';
import { StructureStore, type HouseBuild } from '../structure/structure.store.js';

@Injectable()
export class PartsStore {
  constructor(
    private readonly structure: StructureStore,
    private readonly catalogs: CatalogsStore,
  ) {}

  /** All of it, in the order in which it is shown. */
  async read(db: Reader, houseId: string): Promise<HouseParts> {
    const build = await this.structure.load(db, houseId);
    return {
      sheets: sheetsOf(build),
      ranges: build.ranges,
      catalogs: await this.catalogParts(db, build),
      linked: await db
        .selectFrom('linked_sources')
        .select(['id', 'name', 'settings', 'every'])
        .where('house_id', '=', houseId)
        .orderBy('name_key')
        .execute(),
      forms: await this.forms(db, houseId),
      figures: await db
        .selectFrom('figures')
        .select(['id', 'title', 'definition'])
        .where('house_id', '=', houseId)
        .orderBy('title')
        .execute(),
      groups: build.groups,
      people: await this.people(db, houseId),
      toldApart: build.toldApart.map(({ values }) => values),
    };
  }

  private async catalogParts(db: Reader, build: HouseBuild): Promise<HouseParts['catalogs']> {
    const kept = await this.catalogs.kept(db, build.houseId, [...build.catalogs.keys()]);
    return [...build.catalogs.values()].map(({ id, key, title, note, definition, stewards }) => ({
      id,
      key,
      title,
      note,
      // What is used most is counted anew where it comes in.
      definition: definition.order.by === 'used' ? { ...definition, order: { by: 'used', first: [] } } : definition,
      // In an order that does not tell how they came to be kept.
      kept: [...(kept.get(id) ?? [])].sort((one, other) => (itemKey(one) < itemKey(other) ? -1 : 1)),
      stewards: stewards.map((steward) => steward.id),
    }));
  }

  /** Forms as they are filled now; those that are not published, as they are laid out. */
  private async forms(db: Reader, houseId: string): Promise<HouseParts['forms']> {
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
        'forms.layout',
        'forms.published',
        'form_versions.layout as filled',
      ])
      .where('forms.house_id', '=', houseId)
      .orderBy('forms.title')
      .execute();
    return rows.map(({ layout, filled, published, ...form }) => ({
      ...form,
      layout: (filled ?? layout) as FormLayout,
      published: published !== null,
    }));
  }

  private async people(db: Reader, houseId: string): Promise<readonly PartsPerson[]> {
    return db
      .selectFrom('people')
      .select(['id', 'name', 'sign_in as signIn', 'role'])
      .where('house_id', '=', houseId)
      .orderBy('sign_in_key')
      .execute();
  }
}

function sheetsOf(build: HouseBuild): HouseParts['sheets'] {
  const registers = [...build.registers.values()];
  return build.sheets.map((sheet) => ({
    ...sheet,
    registers: registers
      .filter(({ sheetId }) => sheetId === sheet.id)
      .map(({ id, title, closing, fields }) => ({
        id,
        title,
        closing,
        fields: fields.map(({ key, heading, kind, width, group, rule }) => ({ key, heading, kind, width, group, rule })),
      })),
  }));
}
