// The lineage strip: source → catalog → fields → entries, with live counts.
import { Injectable } from '@nestjs/common';
import { endingInShort, endingOf, rangesOf, readSourceState, readsDirectly, type CatalogDefinition, type SourceRange } from '@dellum/core';
import type { FieldCount, Lineage } from '@dellum/contract';
import { StructureService, boundFields } from '../structure/structure.service.js';
import { isOpen, registerOf } from '../structure/sheetAccess.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CarriesStore } from '../carries/carries.store.js';
import { countOf, OutsideService } from '../outside/outside.service.js';
import { Database } from '../database/database.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { keptCatalogOf } from './catalogs.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';

@Injectable()
export class LineageService {
  private readonly taken = new Map<string, { version: number; counts: Map<string, number> }>();

  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly compiled: CompiledCatalogsService,
    private readonly sourceStates: SourceStatesService,
    private readonly outside: OutsideService,
    private readonly carries: CarriesStore,
  ) {}

  async ofCatalog(caller: Caller, id: string): Promise<Lineage> {
    const build = await this.builds.now(caller.houseId);
    const catalog = keptCatalogOf(build, id, caller);
    const ranges = rangesOf(catalog.definition).flatMap((rangeId) => build.ranges.find((range) => range.id === rangeId) ?? []);
    return { ...(await this.trace(caller, build, ranges, [id])), others: othersOf(build, catalog.definition) };
  }

  async ofRange(caller: Caller, id: string): Promise<Lineage> {
    const build = await this.builds.now(caller.houseId);
    const range = build.ranges.find((known) => known.id === id);
    if (!range) throw notFound('This range');
    const fed = [...build.catalogs.values()]
      .filter(({ definition }) => readsDirectly(definition, 'ranges', id))
      .map((catalog) => catalog.id);
    return this.trace(caller, build, [range], fed);
  }

  /** A steward sees of the fields those on sheets that are there for them. */
  private async trace(caller: Caller, build: HouseBuild, ranges: readonly SourceRange[], catalogIds: readonly string[]): Promise<Lineage> {
    const db = this.database.kysely;
    const fields = catalogIds.flatMap((id) => boundFields(build, id)).filter(({ registerId }) => isOpen(build, registerId, caller));
    const counts = await this.fieldCounts(build, fields);
    const catalogs = await this.compiled.some(db, build, catalogIds);
    const carries = await this.carries.underWay(db, build.houseId);
    const taken = await this.takenBy(build, ranges);
    return {
      ranges: ranges.map((range) => rangeView(build, range, taken.get(range.id) ?? 0)),
      others: [],
      catalogs: [...catalogs.values()].map(({ id, title, items }) => {
        const offered = items.filter(({ state }) => state === 'offered').length;
        return { id, title, offered, retired: items.length - offered };
      }),
      fields: fields.map((field, at) => {
        const register = build.registers.get(field.registerId)!;
        const sheet = build.sheets.find(({ id }) => id === register.sheetId)!;
        const { held, outside } = counts[at]!;
        return {
          id: field.id,
          heading: field.heading,
          key: field.key,
          registerId: register.id,
          sheetId: sheet.id,
          sheetTitle: sheet.title,
          held,
          outside,
        };
      }),
      carries: carries.filter(({ fieldId }) => fields.some(({ id }) => id === fieldId)),
    };
  }

  /** How many values ranges take; read once a version of the build. */
  private async takenBy(build: HouseBuild, ranges: readonly SourceRange[]): Promise<ReadonlyMap<string, number>> {
    const known = this.taken.get(build.houseId);
    const counts = known?.version === build.version ? known.counts : new Map<string, number>();
    const missing = ranges.filter(({ id }) => !counts.has(id)).map(({ id }) => id);
    if (missing.length > 0) {
      const reader = readSourceState(await this.sourceStates.read(this.database.kysely, build, { ranges: missing }));
      for (const id of missing) counts.set(id, reader.taking(id).values.length);
    }
    this.taken.set(build.houseId, { version: build.version, counts });
    return counts;
  }

  /** For each field of a register, how many entries hold something and how many of them are outside. */
  async ofRegister(caller: Caller, registerId: string): Promise<FieldCount[]> {
    const build = await this.builds.now(caller.houseId);
    return this.fieldCounts(build, registerOf(build, registerId, caller).fields);
  }

  private async fieldCounts(build: HouseBuild, fields: readonly FieldBuild[]): Promise<FieldCount[]> {
    const found = await this.outside.of(this.database.kysely, build, fields);
    return fields.map((field) => countOf(field, found));
  }
}

function rangeView(build: HouseBuild, range: SourceRange, taken: number): Lineage['ranges'][number] {
  const register = build.registers.get(range.stretches[0]?.registerId ?? '');
  const sheet = build.sheets.find(({ id }) => id === register?.sheetId);
  return {
    id: range.id,
    name: range.name,
    sheetId: sheet?.id ?? '',
    sheetTitle: sheet?.title ?? '',
    ends: endingInShort(endingOf(range)),
    taken,
  };
}

const catalogLink = (build: HouseBuild, id: string) => ({ words: build.catalogs.get(id)?.title ?? 'a catalog', to: `/catalogs/${id}` });

function registerLink(build: HouseBuild, id: string) {
  const register = build.registers.get(id);
  return { words: register?.title ?? 'a sheet', to: `/${register?.source ? 'sources' : 'sheets'}/${register?.sheetId ?? ''}` };
}

/** The sources of a catalog that are no ranges, each with the way to it. */
function othersOf(build: HouseBuild, { parts }: CatalogDefinition): Lineage['others'] {
  return parts.flatMap((part) => {
    switch (part.kind) {
      case 'range':
        return [];
      case 'typed':
        return [{ words: `${part.values.length} typed`, to: '' }];
      case 'query':
        return [registerLink(build, part.registerId)];
      case 'linked':
        return [{ words: build.linked.find(({ id }) => id === part.sourceId)?.name ?? 'a linked source', to: `/linked/${part.sourceId}` }];
      case 'catalog':
      case 'named':
        return [catalogLink(build, part.catalogId)];
      case 'keyed':
        return [catalogLink(build, part.catalogId), registerLink(build, part.registerId)];
    }
  });
}
