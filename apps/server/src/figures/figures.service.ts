// Figures: counted part by part with progress, so that one can stop; kept under a name; and the entries behind a group.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { isNumeric, lastDayOf, merged, readsOf, type FigureDefinition, type FigureGroup, type FigurePath, type Only } from '@dellum/core';
import {
  mayDesign,
  type FigureDto,
  type FigureEntries,
  type FigureEntriesDto,
  type FigureView,
  type KeepFigureDto,
} from '@dellum/contract';
import { ArrangementsService, readWanted } from '../arrangements/arrangements.service.js';
import { StructureService } from '../structure/structure.service.js';
import { isOpen, registerOf } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CombinationsStore, manyEntries } from '../counts/combinations.store.js';
import { Database } from '../database/database.js';
import { Standby } from '../database/standby.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { ChangesStore } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { fieldsRead, figureSql, linkSql, reach } from './figureSql.js';
import { FiguresStore, type KeptFigure } from './figures.store.js';

/** More groups than this are no figure any more. */
const mostGroups = 20_000;
/** Parts that are counted at the same time. */
const atOnce = 3;
/** Values of a link that one search takes. */
const mostLinks = 1000;

export interface Counting {
  progress(done: number, total: number): void;
  /** True when nobody waits for the figure any more. */
  stopped(): boolean;
}
export interface Counted {
  readonly groups: readonly FigureGroup[];
  readonly entries: number;
}

@Injectable()
export class FiguresService {
  constructor(
    private readonly database: Database,
    private readonly standby: Standby,
    private readonly builds: StructureService,
    private readonly arrangements: ArrangementsService,
    private readonly store: FiguresStore,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly combinations: CombinationsStore,
    private readonly jobs: JobsService,
  ) {}

  /** Prepares a figure; what is wrong with it is thrown here. The counting that comes back can be run once. */
  async prepared(caller: Caller, dto: FigureDto): Promise<(counting: Counting) => Promise<Counted | undefined>> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const { definition, register } = readFigure(build, caller, dto);
    const { condition } = await this.arrangements.sqlOf(db, build, register, { sort: [], only: definition.only });
    const figure = figureSql(build, register, definition, condition);
    const parts = await this.store.parts(db, caller.houseId, register.id);
    const total = parts.reduce((sum, { entries }) => sum + entries, 0);
    const combinations = total > manyEntries ? await this.combinationsOf(build, register, definition) : undefined;
    if (combinations)
      return async ({ progress }) => {
        const held = await this.standby.read(caller.houseId, (near) => this.store.groupsOf(near, figure, combinations));
        const groups = merged(held, definition.time?.step ?? null);
        progress(total, total);
        return { groups: fewEnough(groups), entries: total };
      };
    return async ({ progress, stopped }) => {
      let groups: FigureGroup[] = [];
      let done = 0;
      const waiting = [...parts];
      const worker = async () => {
        for (let part = waiting.shift(); part && !stopped(); part = waiting.shift()) {
          const counted = await this.standby.read(caller.houseId, (near) =>
            near.transaction().execute((trx) => this.store.groups(trx, caller.houseId, register.id, figure, part!)),
          );
          groups = fewEnough(merged([...groups, ...counted], definition.time?.step ?? null));
          done += part.entries;
          progress(done, total);
        }
      };
      await Promise.all(Array.from({ length: atOnce }, worker));
      return stopped() ? undefined : { groups, entries: total };
    };
  }

  /**
   * How many entries hold what a figure reads, where that is kept; undefined where it is not. For a figure that is kept it is kept from now
   * on: an edit then costs what it changes, not a look at every entry.
   */
  private async combinationsOf(build: HouseBuild, register: RegisterBuild, definition: FigureDefinition) {
    const db = this.database.kysely;
    const readsIn = (key: string) => readsOf(register.fields.find((field) => field.key === key)?.rule ?? null);
    const keys = fieldsRead(definition, readsIn);
    if (keys.length === 0) return undefined;
    const wanted = { houseId: build.houseId, registerId: register.id, keys };
    const combinations = await this.combinations.asEntries(db, wanted);
    if (typeof combinations !== 'string') return combinations;
    if (combinations === 'unknown') {
      const kept = await this.store.kept(db, build.houseId);
      const isKept = kept.some(
        (one) => one.definition.registerId === register.id && fieldsRead(one.definition, readsIn).join() === keys.join(),
      );
      if (isKept) await this.jobs.send(undefined, 'combine', [wanted]);
    }
    return undefined;
  }

  /** The conditions under which the entries of a group are found among the records. */
  async entriesOf(caller: Caller, dto: FigureEntriesDto): Promise<FigureEntries> {
    const build = await this.builds.now(caller.houseId);
    const { definition, register } = readFigure(build, caller, dto.definition);
    const { by, time, only } = definition;
    const grouped = dto.values.flatMap((value, at) => (by[at] ? [{ path: by[at], value }] : []));
    const conditions = await Promise.all(
      grouped.map(({ path, value }) =>
        this.holding(caller, build, register, path, { only: 'values', field: path.field, values: [value] }, value),
      ),
    );
    if (time && dto.time !== undefined) conditions.push(at(build, register, time, dto.time));
    return { only: [...only, ...conditions] };
  }

  private async holding(
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    path: FigurePath,
    own: Only,
    value: string,
  ): Promise<Only> {
    if (!path.through) return own;
    const { parts, link } = linkSql(build, register, path);
    const links = await this.store.linksTo(this.database.kysely, caller.houseId, register.id, parts, link, value, mostLinks + 1);
    if (links.length > mostLinks)
      throw new ProblemError(
        'too-large',
        `More than ${mostLinks.toLocaleString('en-GB')} values of ${path.through.link} lead here. Look for the entries in the sheet that they name.`,
      );
    return { only: 'values', field: path.through.link, values: links };
  }

  async kept(caller: Caller): Promise<FigureView[]> {
    const build = await this.builds.now(caller.houseId);
    const figures = await this.store.kept(this.database.kysely, caller.houseId);
    return figures
      .filter(({ definition }) => mayLook(build, caller, definition))
      .map((figure) => ({
        id: figure.id,
        title: figure.title,
        definition: figure.definition,
        by: figure.by,
        mine: isMine(caller, figure),
      }));
  }

  /** Keeps a figure under a name, a new one or another state of one. */
  async keep(caller: Caller, id: string | undefined, dto: KeepFigureDto): Promise<{ id: string }> {
    return this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, caller.houseId);
      const { definition } = readFigure(build, caller, dto.definition);
      const figures = await this.store.kept(trx, caller.houseId);
      const before = id === undefined ? undefined : figures.find((figure) => figure.id === id);
      if (id !== undefined) mustBeMine(caller, before);
      const title = freeName(
        dto.title,
        'title',
        figures.filter((figure) => figure.id !== id).map((figure) => figure.title),
      );
      const figure = { id: id ?? randomUUID(), title, definition, personId: before?.personId ?? caller.id };
      await this.store.keep(trx, caller.houseId, figure);
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'figure.kept', registerId: definition.registerId, detail: { id: figure.id, title } },
      ]);
      await this.changes.append(trx, caller.houseId, [{ audience: 'everyone', body: { kind: 'figures' } }]);
      return { id: figure.id };
    });
  }

  async remove(caller: Caller, id: string): Promise<void> {
    await this.database.transaction(async (trx) => {
      const figure = (await this.store.kept(trx, caller.houseId)).find((known) => known.id === id);
      mustBeMine(caller, figure);
      await this.store.remove(trx, caller.houseId, id);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'figure.deleted', detail: { id, title: figure!.title } }]);
      await this.changes.append(trx, caller.houseId, [{ audience: 'everyone', body: { kind: 'figures' } }]);
    });
  }
}

/** The groups, where they are few enough to be a figure. */
function fewEnough(groups: FigureGroup[]): FigureGroup[] {
  if (groups.length > mostGroups)
    throw new ProblemError(
      'too-large',
      `The figure has more than ${mostGroups.toLocaleString('en-GB')} groups. Choose a field with fewer values, or a longer step of time.`,
    );
  return groups;
}

/** The condition that the time of entries lies in a step. */
function at(build: HouseBuild, register: RegisterBuild, { path, step }: NonNullable<FigureDefinition['time']>, first: string): Only {
  if (path.through)
    throw new ProblemError(
      'not-valid',
      'The time lies in another sheet, so its entries cannot be listed. Choose a line of the figure instead.',
      { faults: { time: 'It lies in another sheet.' } },
    );
  const own = reach(build, register, path).field.key;
  return first === ''
    ? { only: 'values', field: own, values: [''] }
    : { only: 'within', field: own, from: first, until: lastDayOf(first, step) };
}

const isMine = (caller: Caller, { personId }: KeptFigure): boolean => personId === caller.id || mayDesign(caller.role);

function mustBeMine(caller: Caller, figure: KeptFigure | undefined): void {
  if (!figure) throw notFound('This figure');
  if (!isMine(caller, figure)) throw new ProblemError('not-allowed', `${figure.by} keeps this figure. Keep yours under another name.`);
}

/** Whether all registers that a figure looks at are open to somebody. One whose fields have gone stays, so that it can be mended. */
const mayLook = (build: HouseBuild, caller: Caller, { registerId, by, time, of }: FigureDefinition): boolean =>
  [registerId, ...[...by, ...(time ? [time.path] : []), ...(of ? [of] : [])].flatMap(({ through }) => through?.registerId ?? [])].every(
    (id) => isOpen(build, id, caller),
  );

/** Checks a figure against the build: everything that it names is there, and open to whoever asks. */
function readFigure(build: HouseBuild, caller: Caller, dto: FigureDto): { definition: FigureDefinition; register: RegisterBuild } {
  const register = registerOf(build, dto.registerId, caller);
  const pathOf = (path: FigurePath): FigurePath => {
    if (path.through) registerOf(build, path.through.registerId, caller);
    return { field: path.field, through: path.through ? { link: path.through.link, registerId: path.through.registerId } : null };
  };
  const paths = {
    by: dto.by.map((path) => pathOf({ field: path.field, through: path.through ?? null })),
    time: dto.time ? { path: pathOf({ field: dto.time.path.field, through: dto.time.path.through ?? null }), step: dto.time.step } : null,
    of: dto.of && dto.measure !== 'count' ? pathOf({ field: dto.of.field, through: dto.of.through ?? null }) : null,
  };
  paths.by.forEach((path) => reach(build, register, path));
  if (paths.time && reach(build, register, paths.time.path).field.kind !== 'date')
    throw new ProblemError('not-valid', 'Choose a field of dates for the time.', { faults: { time: 'Choose a field of dates.' } });
  if (dto.measure !== 'count' && (!paths.of || !isNumeric(reach(build, register, paths.of).field.kind)))
    throw new ProblemError('not-valid', 'Choose a field of numbers to measure.', { faults: { of: 'Choose a field of numbers.' } });
  const only = readWanted({ sort: [], only: dto.only }, register).only;
  return { definition: { registerId: register.id, ...paths, measure: dto.measure, only, chart: dto.chart }, register };
}
