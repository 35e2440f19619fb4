// Making a column a list, in one act: its spellings are gathered into a growing list with a catalog, the entries follow, the
// field is bound. Every other spelling is remembered as another name.
import { Injectable } from '@nestjs/common';
import {
  catalogIdOf,
  clean,
  cleanedCounts,
  itemWithValue,
  matchKey,
  newRule,
  profileOf,
  sourceTextFault,
  standingMatch,
  type CatalogRule,
  withoutApart,
  type ColumnProfile,
  type StandingMatch,
} from '@dellum/core';
import type { ColumnView, Gathered, GatherDto, GatherTakenBack } from '@dellum/contract';
import { ThreadsService } from '../threads/threads.service.js';
import { StructureService, apartIn, entryFieldWithId, feedsCatalogs } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild } from '../structure/structure.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CarriesStore } from '../carries/carries.store.js';
import { catalogOf, CatalogsService } from '../catalogs/catalogs.service.js';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { CountsStore } from '../counts/counts.store.js';
import { Database, type Trx } from '../database/database.js';
import { EntryActsService } from '../entering/entryActs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { GrowingListsService } from '../ranges/growingLists.service.js';
import { RangesService } from '../ranges/ranges.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { GatherStore, type GatheredList, type LastGathered } from './gather.store.js';

const gatheredSheet = { title: 'Gathered lists', note: 'Lists that were made of columns.' };
/** So many standing catalogs are proposed. */
const mostStanding = 3;
/** So many spellings may follow at once; each is a carry of its own. */
const mostCarries = 500;

/** What is to be gathered, cleaned and checked. */
interface Wanted {
  readonly values: readonly string[];
  /** Spellings that entries hold, and what each becomes. */
  readonly mapping: readonly { readonly from: string; readonly to: string }[];
}

@Injectable()
export class GatherService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly counts: CountsStore,
    private readonly store: GatherStore,
    private readonly compiled: CompiledCatalogsService,
    private readonly threads: ThreadsService,
    private readonly acts: EntryActsService,
    private readonly carriesStore: CarriesStore,
    private readonly ranges: RangesService,
    private readonly lists: SheetsService,
    private readonly sheets: SheetsStore,
    private readonly growing: GrowingListsService,
    private readonly catalogs: CatalogsService,
    private readonly catalogsStore: CatalogsStore,
    private readonly carries: CarriesService,
    private readonly ledger: LedgerStore,
  ) {}

  /** What the column holds, and the list it could be. */
  async profile(caller: Caller, fieldId: string): Promise<ColumnView> {
    const build = await this.builds.now(caller.houseId);
    const field = gatherable(build, fieldId);
    const counts =
      (await this.counts.ofFields(this.database.kysely, caller.houseId, [field.id])).get(field.id) ?? new Map<string, number>();
    const profile = profileOf(counts, withoutApart(await this.threads.lookAlikes(cleanedCounts(counts)), apartIn(build)));
    return { ...profile, standing: await this.standing(build, profile) };
  }

  /** The catalogs of one level that have most of the values already, the best first. */
  async standing(build: HouseBuild, { values }: Pick<ColumnProfile, 'values'>): Promise<StandingMatch[]> {
    const catalogs = await this.compiled.some(this.database.kysely, build, [...build.catalogs.keys()]);
    const found = [...catalogs.values()].filter(({ levels }) => levels === 1).flatMap((catalog) => standingMatch(values, catalog) ?? []);
    const missed = ({ missing }: StandingMatch) => missing.reduce((sum, { entries }) => sum + entries, 0);
    return found.sort((a, b) => missed(a) - missed(b)).slice(0, mostStanding);
  }

  gather(caller: Caller, fieldId: string, dto: GatherDto): Promise<{ catalogId: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const field = gatherable(build, fieldId);
      const wanted = wantedBy(dto);
      const { catalogId, list } =
        dto.catalogId === undefined
          ? await this.newCatalog(trx, caller, build, field, dto.title, wanted.values)
          : await this.standingCatalog(trx, build, dto.catalogId, wanted.values);
      await this.catalogsStore.remember(
        trx,
        caller.houseId,
        catalogId,
        wanted.mapping.filter(({ from, to }) => matchKey(from) !== matchKey(to)),
      );
      const rule: CatalogRule = { ...newRule('catalog'), catalogId };
      await this.sheets.setRule(trx, caller.houseId, field.id, rule);
      const actId = await this.acts.addDone(trx, caller.houseId, caller.id, field.registerId, { does: 'gather' });
      await this.carries.begin(trx, caller, field, wanted.mapping, actId);
      const about = { personId: caller.id, registerId: field.registerId, field: field.key };
      await this.ledger.write(trx, caller.houseId, [
        { ...about, act: 'column.gathered', detail: { catalogId, list, before: field.rule, spellings: wanted.mapping.length }, actId },
        { ...about, act: 'rule.set', detail: { before: field.rule, after: rule } },
      ]);
      return { catalogId };
    });
  }

  /** The last time that the column was made a list, while it still is that list; null when there is nothing to take back. */
  async gathered(caller: Caller, fieldId: string): Promise<Gathered | null> {
    const db = this.database.kysely;
    const field = entryFieldWithId(await this.builds.now(caller.houseId), fieldId);
    const last = await this.store.last(db, caller.houseId, field);
    if (!last || !isBoundAs(field, last)) return null;
    return {
      at: last.at.toISOString(),
      by: last.by ?? 'Dellum',
      spellings: last.detail.spellings,
      following: await this.carriesStore.following(db, caller.houseId, last.actId),
    };
  }

  /**
   * Makes a column what it was before it was made a list: its rule, the spellings of its entries, and no list of it where nobody else uses
   * it.
   */
  async takeBack(caller: Caller, fieldId: string): Promise<GatherTakenBack> {
    const { list, catalogId } = await this.builds.change(caller.houseId, async (trx, build) => {
      const field = entryFieldWithId(build, fieldId);
      const last = await this.store.last(trx, caller.houseId, field);
      if (!last || !isBoundAs(field, last)) throw notFound('A list that this column was made into');
      if (feedsCatalogs(build, field.registerId))
        throw new ProblemError(
          'in-use',
          'These entries are values elsewhere by now. Mend the spellings by hand, so that what depends on them is asked about.',
          { users: [] },
        );
      if (await this.carriesStore.following(trx, caller.houseId, last.actId))
        throw new ProblemError('in-use', 'The entries still follow. Take it back when all of them have.', { users: [] });
      await this.sheets.setRule(trx, caller.houseId, field.id, last.detail.before);
      await this.acts.backWithin(trx, caller, field.registerId, last.actId);
      const about = { personId: caller.id, registerId: field.registerId, field: field.key };
      await this.ledger.write(trx, caller.houseId, [
        { ...about, act: 'column.ungathered', detail: { of: last.actId } },
        { ...about, act: last.detail.before ? 'rule.set' : 'rule.cleared', detail: { before: field.rule, after: last.detail.before } },
      ]);
      return last.detail;
    });
    return { kept: list ? await this.removeList(caller, catalogId, list) : [] };
  }

  /** Removes the list with its range and its catalog as far as nobody uses them; returns what stays, in words. */
  private async removeList(caller: Caller, catalogId: string, list: GatheredList): Promise<string[]> {
    const steps: readonly (readonly [string, () => Promise<unknown>])[] = [
      ['the catalog', () => this.catalogs.remove(caller, catalogId)],
      ['the range', () => this.ranges.remove(caller, list.rangeId)],
      ['the list', () => this.lists.removeList(caller, list.registerId)],
    ];
    for (const [at, [, remove]] of steps.entries()) {
      try {
        await remove();
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        return steps.slice(at).map(([words]) => words);
      }
    }
    return [];
  }

  /** A new list with its range and its catalog. */
  private async newCatalog(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    field: FieldBuild,
    wantedTitle: string,
    values: readonly string[],
  ): Promise<{ catalogId: string; list: GatheredList }> {
    const { catalogId, ...list } = await this.growing.make(trx, caller, build, {
      sheet: gatheredSheet,
      title: wantedTitle,
      kind: 'text',
      values,
      note: `Gathered from ${field.heading}.`,
    });
    return { catalogId, list };
  }

  /** A catalog that is there; it must have all the values. */
  private async standingCatalog(
    trx: Trx,
    build: HouseBuild,
    catalogId: string,
    values: readonly string[],
  ): Promise<{ catalogId: string; list: null }> {
    const { title } = catalogOf(build, catalogId);
    const catalog = (await this.compiled.some(trx, build, [catalogId])).get(catalogId)!;
    const missing = values.find((value) => itemWithValue(catalog, value)?.state !== 'offered');
    if (missing !== undefined)
      throw new ProblemError('not-valid', `“${missing}” is not offered by ${title}. Look at the proposal again.`, {
        faults: { values: `“${missing}” is not offered by ${title}.` },
      });
    return { catalogId, list: null };
  }
}

/** Whether the field still takes its values from the catalog that it was bound to then. */
const isBoundAs = (field: FieldBuild, { detail, takenBack }: LastGathered): boolean =>
  !takenBack && catalogIdOf(field.rule) === detail.catalogId;

function gatherable(build: HouseBuild, fieldId: string): FieldBuild {
  const field = entryFieldWithId(build, fieldId);
  if (field.kind !== 'text') throw new ProblemError('kind-unfit', `${field.heading} does not hold text. Choose a text field.`);
  if (catalogIdOf(field.rule) !== undefined)
    throw new ProblemError('in-use', `${field.heading} takes its values from a catalog already. Clear its rule first.`, { users: [] });
  return field;
}

/** The values each once, and a mapping in which nothing leads two ways. */
function wantedBy(dto: GatherDto): Wanted {
  const values = dto.values.map(({ value }) => clean(value));
  const faults = (message: string) => new ProblemError('not-valid', message, { faults: { values: message } });
  for (const value of values) {
    const fault = value === '' ? { message: 'A value of the list is blank. Take it out, or write it.' } : sourceTextFault(value);
    if (fault) throw faults(fault.message);
  }
  const twice = values.find((value, at) => values.indexOf(value) !== at);
  if (twice !== undefined) throw faults(`“${twice}” stands twice in the list. Put its spellings together.`);
  const known = new Set(values);
  const mapping = dto.values
    .flatMap(({ spellings }, at) => spellings.map((from) => ({ from, to: values[at]! })))
    .filter(({ from, to }) => from !== to);
  const seen = new Set<string>();
  for (const { from, to } of mapping) {
    if (known.has(from)) throw faults(`“${from}” is to become “${to}”, and is a value itself. Decide for one of them.`);
    if (seen.has(from)) throw faults(`“${from}” is a spelling of two values. Decide for one of them.`);
    seen.add(from);
  }
  if (mapping.length > mostCarries) throw faults(`${mapping.length} spellings are to follow; at most ${mostCarries} can at once.`);
  return { values, mapping };
}
