// The build of a house, kept in memory and checked against its version in the transaction that uses it.
import { Injectable } from '@nestjs/common';
import { mayDesign, type BuildView, type FieldLink, type RegisterView, type SheetView } from '@dellum/contract';
import { catalogIdOf, nothingComposed, partReads, readsDirectly, toldApart, type TellsApart } from '@dellum/core';
import { Database, lockBuild, type Reader, type Trx } from '../database/database.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { closedTo, entersIn, looksAt } from './sheetAccess.js';
import { StructureStore, type FieldBuild, type HouseBuild, type RegisterBuild } from './structure.store.js';

@Injectable()
export class StructureService {
  private readonly known = new Map<string, HouseBuild>();

  constructor(
    private readonly database: Database,
    private readonly store: StructureStore,
    private readonly changes: ChangesStore,
  ) {}

  /** The build as this transaction (or this moment) sees it. `version` saves a query where it was read already. */
  async at(db: Reader, houseId: string, version?: number): Promise<HouseBuild> {
    version ??= await this.store.version(db, houseId);
    const known = this.known.get(houseId);
    if (known?.version === version) return known;
    const build = await this.store.load(db, houseId);
    this.known.set(houseId, build);
    return build;
  }

  now(houseId: string): Promise<HouseBuild> {
    return this.at(this.database.kysely, houseId);
  }

  /** Says that the build has changed, to the caches and to every browser. Call it at the end of the transaction. */
  async changed(trx: Trx, houseId: string): Promise<void> {
    const version = await this.store.raiseVersion(trx, houseId);
    await this.changes.append(trx, houseId, [{ audience: 'everyone', body: { kind: 'build', version } }]);
  }

  /** Changes the build in one transaction of its own; nobody else changes it meanwhile. */
  change<T>(houseId: string, act: (trx: Trx, build: HouseBuild) => Promise<T>): Promise<T> {
    return this.database.transaction(async (trx) => {
      await lockBuild(trx, houseId);
      const result = await act(trx, await this.at(trx, houseId));
      await this.changed(trx, houseId);
      return result;
    });
  }

  /** Raises the version without telling browsers of a build change: what changed has a message of its own. */
  async raise(trx: Trx, houseId: string): Promise<void> {
    await this.store.raiseVersion(trx, houseId);
  }

  /** What this person may see of the build: ranges, and source sheets that are not shown, are the administrator's. */
  async view(caller: Caller): Promise<BuildView> {
    const build = await this.now(caller.houseId);
    const designs = mayDesign(caller.role);
    const closed = closedTo(build, caller);
    const sheets = build.sheets
      .filter((sheet) => looksAt(build, sheet, caller))
      .map(({ groups, ...sheet }): SheetView => ({
        ...sheet,
        groups: designs ? groups : [],
        registers: registersOf(build, sheet.id, entersIn(build, { ...sheet, groups }, caller)),
      }));
    // How a catalog is composed names ranges and registers that only administrators know.
    const catalogs = [...build.catalogs.values()].map((catalog) => (designs ? catalog : { ...catalog, definition: nothingComposed }));
    return {
      version: build.version,
      sheets,
      ranges: designs ? build.ranges : [],
      catalogs,
      linked: designs ? build.linked.map(({ id, name }) => ({ id, name })) : [],
      forms: build.forms.filter(({ registerId }) => !closed.has(registerId)),
      groups: designs ? build.groups : [],
      toldApart: designs ? build.toldApart : [],
      links: linksIn(build, closed),
    };
  }
}

/** The links of fields to registers that can be looked at: by a catalog whose values are entries of them. */
function linksIn(build: HouseBuild, closed: ReadonlySet<string>): FieldLink[] {
  const seen = [...build.fields.values()].filter(({ registerId }) => !closed.has(registerId));
  return seen.flatMap(({ id: fieldId, rule, kind }) => {
    const catalog = build.catalogs.get(catalogIdOf(rule) ?? '');
    if (!catalog || kind === 'several values') return [];
    const registers = new Set(catalog.definition.parts.flatMap((part) => partReads(part).fields?.registerId ?? []));
    return [...registers].filter((id) => !closed.has(id)).map((registerId) => ({ fieldId, registerId }));
  });
}

function registersOf(build: HouseBuild, sheetId: string, enters: boolean): RegisterView[] {
  return [...build.registers.values()]
    .filter((register) => register.sheetId === sheetId)
    .map(({ id, title, fields, closing }) => ({ id, sheetId, title, fields, enters, closing }));
}

/** Which values the house knows to be two things. */
export const apartIn = ({ toldApart: pairs }: HouseBuild): TellsApart => toldApart(pairs.map(({ values }) => values));

/** True when catalogs are fed by a query over this register, so that its entries are values elsewhere. */
export const feedsCatalogs = (build: HouseBuild, registerId: string): boolean =>
  [...build.catalogs.values()].some(({ definition }) => readsDirectly(definition, 'registers', registerId));

export function fieldWithKey(register: RegisterBuild, key: string): FieldBuild {
  const field = register.fields.find((known) => known.key === key);
  if (!field) throw notFound(`The field “${key}”`);
  return field;
}

export function fieldWithId(build: HouseBuild, id: string): FieldBuild {
  const field = build.fields.get(id);
  if (!field) throw notFound('This field');
  return field;
}

/** A field in which clerks enter data: rules are for these. */
export function entryFieldWithId(build: HouseBuild, id: string): FieldBuild {
  const field = fieldWithId(build, id);
  if (build.registers.get(field.registerId)!.source) throw notFound('This field of an entry sheet');
  return field;
}

export const boundFields = (build: HouseBuild, catalogId: string): FieldBuild[] =>
  [...build.fields.values()].filter((field) => catalogIdOf(field.rule) === catalogId);
