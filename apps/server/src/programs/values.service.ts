// What programs read: the catalogs and registers that their token opens, values in the format they ask for, and what has changed.
import { Injectable } from '@nestjs/common';
import { isOffered, markOf, schemaOf, type Item, type JsonSchema } from '@dellum/core';
import type {
  CatalogView,
  ChangesQueryDto,
  ProgramCatalog,
  ProgramChanges,
  ProgramRegister,
  ProgramValuesDto,
  ValueFormatName,
} from '@dellum/contract';
import { ChangesStore } from '../changes/changes.store.js';
import { ListenerService } from '../changes/listener.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database } from '../database/database.js';
import { catalogsOf } from '../entries/judging.js';
import { notFound } from '../problems/index.js';
import { todayOf } from '../structure/days.js';
import { StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import type { Program } from './program.js';
import { registerFor } from './rows.service.js';
import { changesSince, isNews, whatChanged } from './whatChanged.js';
import { aboutValues, levelsOf, valueFormats } from '../exchange/valueFormats.js';

/** Grows when the same values are written otherwise. */
const written = 1;

export interface WrittenValues {
  /** Strong (RFC 9110): another one wherever a byte differs. */
  readonly etag: string;
  body(): Promise<string>;
}

@Injectable()
export class ValuesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly changes: ChangesStore,
    private readonly listener: ListenerService,
  ) {}

  async catalogsFor(program: Program): Promise<ProgramCatalog[]> {
    const build = await this.builds.now(program.houseId);
    const own = [...build.catalogs.values()].filter(({ id }) => program.catalogs.has(id));
    return Promise.all(own.map((catalog) => this.shown(build, catalog)));
  }

  private async shown(build: HouseBuild, { id, key, title, version }: CatalogView): Promise<ProgramCatalog> {
    const { items } = await this.catalogs.get(this.database.kysely, build, id);
    return { key, title, version, levels: levelsOf(items) };
  }

  async registersFor(program: Program): Promise<ProgramRegister[]> {
    const build = await this.builds.now(program.houseId);
    return [...build.registers.values()]
      .filter(({ id, source }) => program.registers.has(id) && !source)
      .map(({ id, title }) => ({ key: id, title, writes: program.writes }));
  }

  /** The values of a catalog, written when they are wanted. */
  async valuesOf(program: Program, key: string, { on, under, all }: ProgramValuesDto, format: ValueFormatName): Promise<WrittenValues> {
    const build = await this.builds.now(program.houseId);
    const catalog = [...build.catalogs.values()].find((known) => known.key === key && program.catalogs.has(known.id));
    if (!catalog) throw notFound('This catalog');
    const day = on ?? todayOf(new Date(), build.locale);
    const { id, version, title } = catalog;
    return {
      etag: `"${markOf([written, id, version, title, build.locale.language, day, under ?? null, all ?? null, format])}"`,
      body: async () => {
        const { items } = await this.catalogs.get(this.database.kysely, build, id);
        const isAsked = (item: Item) =>
          (all === 'true' || isOffered(item, day)) &&
          (under === undefined || (item.path.length === under.length && item.path.every((value, at) => value === under[at])));
        const houseKey = await this.houseKey(program);
        return valueFormats[format].write(
          items.filter(isAsked),
          aboutValues(catalog, items, { houseKey, language: build.locale.language }),
        );
      },
    };
  }

  private async houseKey({ houseId }: Program): Promise<string> {
    return (await this.database.kysely.selectFrom('houses').select('key').where('id', '=', houseId).executeTakeFirstOrThrow()).key;
  }

  /** What the entries of a register must satisfy. */
  async schema(program: Program, registerId: string): Promise<JsonSchema> {
    const build = await this.builds.now(program.houseId);
    const register = registerFor(program, build, registerId);
    const catalogs = await this.catalogs.some(this.database.kysely, build, catalogsOf(register.fields));
    return schemaOf(register.title, register.fields, { catalogs, today: todayOf(new Date(), build.locale) });
  }

  /** What has changed since a number, of what the token opens; waits for it a while where it is asked to. */
  async changesFor(program: Program, { since, wait }: ChangesQueryDto, gone: AbortSignal): Promise<ProgramChanges> {
    const known = await this.changed(program, since);
    if (wait === 0 || isNews(known)) return known;
    await this.somethingOf(program.houseId, known.now, wait, gone);
    return this.changed(program, since);
  }

  private async changed(program: Program, since: number): Promise<ProgramChanges> {
    const build = await this.builds.now(program.houseId);
    const changes = await changesSince(this.database.kysely, this.changes, program.houseId, since);
    return whatChanged(changes, since, build, { catalogs: [...program.catalogs], registers: [...program.registers] });
  }

  /** Until anything of the house changes, so many seconds are over, or nobody waits any more. */
  private somethingOf(houseId: string, since: number, seconds: number, gone: AbortSignal): Promise<void> {
    return new Promise((done) => {
      const end = () => {
        clearTimeout(timer);
        stop();
        done();
      };
      const timer = setTimeout(end, seconds * 1000);
      const stop = this.listener.hear(houseId, since, (changes) => {
        if (changes.some(({ seq }) => seq > since)) end();
      });
      gone.addEventListener('abort', end, { once: true });
    });
  }
}
