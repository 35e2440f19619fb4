// Carrying out a plan: entries, anchors, catalogs, carries, ledger and changes, in the caller's transaction.
import { Injectable } from '@nestjs/common';
import {
  afterStep,
  goesWith,
  itemKey,
  levelsOf,
  questionKey,
  readSourceState,
  rekeyed,
  retiredAlong,
  takenBack,
  type Act,
  type Answered,
  type Correction,
  type Entry,
  type Item,
  type Meaning,
  type Rekeyed,
  type SourceState,
  type Step,
} from '@dellum/core';
import { registersOf } from '@dellum/contract';
import { StructureService, boundFields } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CatalogsStore } from '../compiled/catalogs.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { HistoryStore } from '../compiled/history.store.js';
import { CountsStore, deltasOf } from '../counts/counts.store.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { PlacesStore } from '../entries/places.store.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore, type LedgerRow } from '../ledger/ledger.store.js';
import { ChangesStore, type Told } from '../changes/changes.store.js';
import type { Caller } from '../access/access.js';
import { SheetsStore } from '../structure/sheets.store.js';
import { ActsStore } from './acts.store.js';
import { levelIn, type CatalogPlan, type Plan } from './planning.service.js';
import { SourcesStore } from './sources.store.js';

@Injectable()
export class ApplyingService {
  constructor(
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly counts: CountsStore,
    private readonly sources: SourcesStore,
    private readonly sheets: SheetsStore,
    private readonly acts: ActsStore,
    private readonly catalogs: CatalogsStore,
    private readonly compiled: CompiledCatalogsService,
    private readonly history: HistoryStore,
    private readonly carries: CarriesService,
    private readonly builds: StructureService,
    private readonly ledger: LedgerStore,
    private readonly changes: ChangesStore,
    private readonly jobs: JobsService,
  ) {}

  /** Does what the plan says; `settled` holds the answered questions of each catalog. Returns the act, so that it can be taken back. */
  async apply(trx: Trx, caller: Caller, build: HouseBuild, plan: Plan, settled: ReadonlyMap<string, Answered>): Promise<number> {
    const { proposal } = plan;
    const actId = await this.acts.note(
      trx,
      caller,
      { ...proposal, meanings: [...(proposal.meanings ?? []), ...decided(plan, settled)] },
      takenBack(plan.before, proposal),
    );
    let sourceState = plan.before;
    for (const step of proposal.steps) {
      await this.applyStep(trx, caller, build, sourceState, step);
      sourceState = afterStep(sourceState, step);
    }
    await this.writeRanges(trx, caller, plan);
    const told: Told[] = registersOf(proposal).flatMap((id) => {
      const register = build.registers.get(id);
      return register ? [{ audience: 'everyone', body: { kind: 'register', registerId: id } } as const] : [];
    });
    const keptStays = keepsWhatIsKept(plan, settled);
    for (const catalog of plan.catalogs)
      told.push(await this.settleCatalog(trx, caller, build, plan, catalog, settled.get(catalog.catalogId), keptStays, actId));
    await this.recompute(trx, build, plan);
    await this.builds.changed(trx, caller.houseId);
    await this.changes.append(trx, caller.houseId, told);
    return actId;
  }

  /** Sources that are computed over a catalog of the plan are computed anew, as a job. */
  private async recompute(trx: Trx, build: HouseBuild, { catalogs }: Plan): Promise<void> {
    const keys = new Set(catalogs.map(({ catalogId }) => build.catalogs.get(catalogId)!.key));
    const computed = build.linked.filter((known) => known.catalogs.some((key) => keys.has(key)));
    await this.jobs.send(
      trx,
      'refresh',
      computed.map(({ id }) => ({ houseId: build.houseId, sourceId: id })),
    );
  }

  private async applyStep(trx: Trx, caller: Caller, build: HouseBuild, sourceState: SourceState, step: Step): Promise<void> {
    const { houseId } = caller;
    switch (step.what) {
      case 'act': {
        const before = sourceState.registers.get(step.registerId)?.entries ?? [];
        const after = afterStep(sourceState, step).registers.get(step.registerId)?.entries ?? [];
        return this.writeAct(trx, caller, build.registers.get(step.registerId)!, before, after, step.act);
      }
      case 'heading changed': {
        const register = build.registers.get(step.registerId)!;
        await this.sheets.retitle(trx, 'registers', houseId, register.id, step.heading);
        if (register.fields.length === 1) await this.sheets.changeField(trx, houseId, register.fields[0]!.id, { heading: step.heading });
        return this.ledger.write(trx, houseId, [
          { personId: caller.id, act: 'list.retitled', registerId: register.id, from: register.title, to: step.heading },
        ]);
      }
      case 'catalog changed':
        await this.catalogs.define(trx, houseId, step.catalogId, step.definition);
        return this.ledger.write(trx, houseId, [
          {
            personId: caller.id,
            act: 'catalog.defined',
            detail: { catalogId: step.catalogId, before: sourceState.definitions.get(step.catalogId), after: step.definition },
          },
        ]);
      case 'items kept':
        await this.catalogs.keep(trx, houseId, step.catalogId, step.items);
        return this.ledger.write(
          trx,
          houseId,
          step.items.map((item) => ({
            personId: caller.id,
            act: 'item.kept',
            to: item.value,
            detail: { catalogId: step.catalogId, item },
          })),
        );
      case 'linked read':
        await this.sources.storeLinked(trx, houseId, step.sourceId, step.rows);
        return this.ledger.write(trx, houseId, [
          { personId: caller.id, act: 'linked.read', detail: { sourceId: step.sourceId, values: step.rows.length } },
        ]);
      default:
        // Ranges are written as a whole at the end, with the anchors that followed.
        return undefined;
    }
  }

  private async writeAct(
    trx: Trx,
    caller: Caller,
    register: RegisterBuild,
    entriesBefore: readonly Entry[],
    entriesAfter: readonly Entry[],
    act: Act,
  ): Promise<void> {
    const place = { houseId: caller.houseId, registerId: register.id };
    const before = new Map(entriesBefore.map((entry) => [entry.id, entry]));
    const after = new Map(entriesAfter.map((entry) => [entry.id, entry]));
    const changed = entriesAfter.filter((entry) => before.has(entry.id) && before.get(entry.id)!.cells !== entry.cells);
    const written = await this.entries.write(
      trx,
      place,
      changed.map(({ id, cells }) => ({ id, cells })),
    );
    // What was deleted comes back by an act like any other.
    if (act.act === 'insert') await this.entries.insert(trx, place, act.before ?? undefined, act.entries, true);
    const gone = act.act === 'delete' ? await this.entries.remove(trx, place, act.entries) : [];
    const versions = new Map([...written, ...gone.map(({ id, version }) => [id, version] as const)]);
    if (act.act === 'move' || act.act === 'sort' || act.act === 'arrange')
      await this.places.layOut(
        trx,
        place,
        entriesAfter.map(({ id }) => id),
      );
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const ids = new Set([
      ...changed.map(({ id }) => id),
      ...(act.act === 'insert' ? act.entries.map(({ id }) => id) : act.act === 'delete' ? act.entries : []),
    ]);
    const pairs = [...ids].map((id) => ({ id, was: before.get(id), is: after.get(id) }));
    await this.counts.write(
      trx,
      caller.houseId,
      pairs.flatMap(({ was, is }) => deltasOf(was?.cells ?? {}, is?.cells ?? {}, fieldIds)),
    );
    const rows = pairs.flatMap(({ id, was, is }) => cellRows(caller, register, id, was, is, versions.get(id)));
    const moves: { readonly [A in Act['act']]?: string } = { move: 'entries.moved', sort: 'entries.sorted', arrange: 'entries.arranged' };
    const order: LedgerRow[] = moves[act.act]
      ? [
          {
            personId: caller.id,
            act: moves[act.act]!,
            registerId: register.id,
            detail:
              act.act === 'sort' ? { field: act.field, direction: act.direction } : { entries: 'entries' in act ? act.entries.length : 0 },
          },
        ]
      : [];
    await this.ledger.write(trx, caller.houseId, [...rows, ...order]);
  }

  /** Stores the ranges that came, went or have other anchors now. */
  private async writeRanges(trx: Trx, caller: Caller, { proposal, before, after }: Plan): Promise<void> {
    const was = new Map(before.ranges.map((range) => [range.id, range]));
    const is = new Map(after.ranges.map((range) => [range.id, range]));
    await this.sources.addRanges(
      trx,
      caller.houseId,
      after.ranges.filter(({ id }) => !was.has(id)),
    );
    await this.sources.removeRanges(
      trx,
      caller.houseId,
      before.ranges.filter(({ id }) => !is.has(id)).map(({ id }) => id),
    );
    await this.sources.changeRanges(
      trx,
      caller.houseId,
      after.ranges.filter((range) => was.has(range.id) && JSON.stringify(was.get(range.id)) !== JSON.stringify(range)),
    );
    const rows = proposal.steps.flatMap((step): LedgerRow[] =>
      'range' in step
        ? [
            {
              personId: caller.id,
              act: `range.${step.what.split(' ')[1]!}`,
              detail: { before: was.get(step.range.id) ?? null, range: step.range },
            },
          ]
        : [],
    );
    await this.ledger.write(trx, caller.houseId, rows);
  }

  /** The items as they are once all that is kept of them, and of what they are composed of, has followed the change. */
  private async itemsAfter(trx: Trx, houseId: string, { catalogId, after }: CatalogPlan, keptStays: boolean, sourceState: SourceState) {
    if (keptStays) return after;
    return readSourceState({ ...sourceState, kept: await this.catalogs.kept(trx, houseId, [...sourceState.kept.keys()]) }).items(catalogId);
  }

  private async settleCatalog(
    trx: Trx,
    caller: Caller,
    build: HouseBuild,
    { proposal, before, after }: Plan,
    plan: CatalogPlan,
    settlement: Answered | undefined,
    keptStays: boolean,
    actId: number,
  ): Promise<Told> {
    const { catalogId, diff } = plan;
    const { houseId } = caller;
    const { retire = [], carry = [] } = settlement ?? {};
    const unasked = corrections(proposal.meanings ?? [], catalogId, plan);
    const appeared = [...diff.added, ...diff.restored, ...diff.edited.filter(({ merges }) => !merges).map(({ to }) => to)];
    const offered = plan.after.filter(({ state }) => state === 'offered');
    const stays = new Set(offered.map(itemKey));
    const come = new Set(appeared);
    await this.catalogs.restore(trx, houseId, catalogId, offered.filter(({ value }) => come.has(value)).map(itemKey));
    await this.catalogs.forgetNames(trx, houseId, catalogId, appeared);
    const deepest = levelsOf(plan.before) - 1;
    const retires = new Set(retire.filter(({ path }) => !path).map(questionKey));
    const isRetired = ({ from, level }: Pick<Correction, 'from' | 'level'>) => retires.has(questionKey({ value: from, level }));
    const edits = diff.edited.filter((edit) => !isRetired(edit));
    const along = retiredAlong(plan.before, plan.after, [...carry, ...unasked]);
    const moved = [...rekeyed(plan.before, plan.after, edits), ...along];
    // What entries hold goes before what is noted of items that are not there.
    await this.catalogs.forget(
      trx,
      houseId,
      catalogId,
      along.map(({ to }) => itemKey(to)),
    );
    await this.catalogs.follow(trx, houseId, catalogId, moved);
    // What stands below a value that stays known stays known with it, so that its entries stay right as a whole.
    const gone = plan.questions.filter(
      (question) =>
        !carry.some(({ from, level }) => from === question.value && level === question.level) &&
        !retire.some((one) => questionKey(one) === questionKey(question)),
    );
    const goes = (item: Item) => retire.some((one) => goesWith(one, item, deepest)) && !gone.some((one) => goesWith(one, item, deepest));
    await this.catalogs.retire(
      trx,
      houseId,
      catalogId,
      plan.before.filter((item) => !stays.has(itemKey(item)) && goes(item)),
    );
    await this.catalogs.remember(trx, houseId, catalogId, namesOf([...carry, ...unasked], plan.before, moved, deepest));
    for (const field of boundFields(build, catalogId)) {
      const own = levelIn(field, deepest);
      await this.carries.begin(
        trx,
        caller,
        field,
        carry.filter(({ level }) => level === own),
      );
    }
    const version = await this.catalogs.raiseVersion(trx, houseId, catalogId);
    const definitionBefore = proposal.steps.some((step) => step.what === 'catalog changed' && step.catalogId === catalogId)
      ? before.definitions.get(catalogId)
      : undefined;
    const replaced = new Map(diff.edited.filter(isRetired).map(({ from, to, level = deepest }) => [`${level} ${from}`, to]));
    const items = await this.itemsAfter(trx, houseId, plan, keptStays, after);
    this.compiled.takeOver(trx, houseId, catalogId, version, { items, companions: plan.companions });
    await this.history.note(trx, caller, {
      catalogId,
      version,
      actId,
      before: plan.before,
      after: items,
      definitionBefore,
      meant: { corrected: meantBy(moved, [...carry, ...unasked], deepest), replaced },
    });
    const asked = plan.questions.map(({ value }) => value);
    const decidedRetired = new Set(retire.filter(({ path }) => !path).map(({ value }) => value));
    const follows = ({ from, level }: Correction) => [...carry, ...unasked].some((one) => one.from === from && one.level === level);
    await this.ledger.write(trx, houseId, [
      ...diff.added.map((value) => ({ personId: caller.id, act: 'item.added', to: value, detail: { catalogId } })),
      ...diff.removed.map((value) => ({
        personId: caller.id,
        act: decidedRetired.has(value) ? 'item.retired' : 'item.gone',
        from: value,
        detail: { catalogId, asked: asked.includes(value) },
      })),
      ...diff.edited.map((edit) => ({
        personId: caller.id,
        act: isRetired(edit) ? 'item.retired' : follows(edit) ? 'item.corrected' : 'item.gone',
        from: edit.from,
        ...(follows(edit) && { to: edit.to }),
        detail: { catalogId, asked: asked.includes(edit.from) },
      })),
    ]);
    return { audience: 'everyone', body: { kind: 'catalog', catalogId, version } };
  }
}

/** Whether nothing that is kept of items changes by a plan: values only come, and none of them was a name of another. */
function keepsWhatIsKept({ catalogs, before, after }: Plan, settled: ReadonlyMap<string, Answered>): boolean {
  return (
    before.kept === after.kept &&
    [...settled.values()].every(({ retire, carry }) => retire.length + carry.length === 0) &&
    catalogs.every(({ diff, before: items }) => {
      const come = new Set(diff.added);
      return (
        diff.edited.length + diff.removed.length + diff.restored.length === 0 &&
        !items.some(({ otherNames }) => otherNames.some((name) => come.has(name)))
      );
    })
  );
}

/** The items that were corrected, or whose parent was. */
function meantBy(moved: readonly Rekeyed[], corrected: readonly Correction[], deepest: number): Rekeyed[] {
  const old = new Set(corrected.map(({ from, level = deepest }) => `${level} ${from}`));
  return moved.filter(({ from }) => from.split('\u001F').some((value, level) => old.has(`${level} ${value}`)));
}

/** The old spellings of what was corrected, each with the key of the item that it means from now on. */
function namesOf(
  corrected: readonly Correction[],
  before: readonly Item[],
  moved: readonly Rekeyed[],
  deepest: number,
): { from: string; to: string }[] {
  const now = new Map(moved.map(({ from, to }) => [from, itemKey(to)]));
  return corrected.map(({ from, to, level = deepest }) => {
    const item = before.find(({ value, path }) => value === from && path.length === level);
    return { from, to: (item && now.get(itemKey(item))) ?? (item && item.path.length > 0 ? itemKey({ path: item.path, value: to }) : to) };
  });
}

/** What was decided by the answers, so that taking the act back can propose the same the other way round. */
const decided = ({ catalogs }: Plan, settled: ReadonlyMap<string, Answered>): Meaning[] =>
  catalogs.flatMap(({ catalogId, before }) => {
    const deepest = levelsOf(before) - 1;
    const { carry = [] } = settled.get(catalogId) ?? {};
    return carry.map(({ from, to, level = deepest }): Meaning => ({ catalogId, from, to, level, answer: 'corrected' }));
  });

/** Corrections that touch no entry and so were not asked about; their old spellings are remembered all the same. */
function corrections(meanings: readonly Meaning[], catalogId: string, { diff, questions, before }: CatalogPlan): Correction[] {
  const deepest = levelsOf(before) - 1;
  const asked = new Set(questions.map(questionKey));
  const corrected = meanings.filter((meaning) => meaning.catalogId === catalogId && meaning.answer === 'corrected');
  return diff.edited
    .filter(
      ({ from, level }) =>
        !asked.has(questionKey({ value: from, level })) &&
        corrected.some((one) => one.from === from && (one.level === undefined || one.level === (level ?? deepest))),
    )
    .map(({ from, to, level }) => ({ from, to, ...(level !== undefined && { level }) }));
}

function cellRows(
  caller: Caller,
  register: RegisterBuild,
  entryId: string,
  was: Entry | undefined,
  is: Entry | undefined,
  version: number | undefined,
): LedgerRow[] {
  const at = { ...(version !== undefined && { entryVersion: version }) };
  const who = { personId: caller.id, registerId: register.id, entryId };
  if (!is) return was ? [{ ...who, ...at, act: 'entry.deleted', detail: was.cells }] : [];
  const written = register.fields
    .filter(({ key }) => was?.cells[key] !== is.cells[key])
    .map(({ key }) => ({ ...who, ...at, act: 'cell.written', field: key, from: was?.cells[key], to: is.cells[key] }));
  // A new entry is one row with all it holds: its cells have no history yet.
  return was ? written : [{ ...who, act: 'entry.inserted', detail: is.cells }];
}
