// Carrying out a plan: entries, anchors, catalogs, carries, ledger and changes, in the caller's transaction.
import { Injectable } from '@nestjs/common';
import { afterStep, itemKey, takenBack, type Act, type Entry, type Meaning, type Settlement, type SourceWorld, type Step } from '@dellum/core';
import { registersOf } from '@dellum/contract';
import { BuildService, boundFields } from '../build/build.service.js';
import type { HouseBuild, RegisterBuild } from '../build/build.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CatalogsStore } from '../catalogs/catalogs.store.js';
import { HistoryStore } from '../catalogs/history.store.js';
import { Counts, deltasOf } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { PlacesStore } from '../entries/places.store.js';
import { Jobs } from '../jobs/jobs.js';
import { Ledger, type LedgerRow } from '../ledger/ledger.js';
import { Changes, type Told } from '../live/changes.js';
import type { Caller } from '../people/guard.js';
import { SheetsStore } from '../sheets/sheets.store.js';
import { ActsStore } from './acts.store.js';
import type { CatalogPlan, Plan } from './planning.js';
import { SourcesStore } from './sources.store.js';

@Injectable()
export class Applying {
  constructor(
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly counts: Counts,
    private readonly sources: SourcesStore,
    private readonly sheets: SheetsStore,
    private readonly acts: ActsStore,
    private readonly catalogs: CatalogsStore,
    private readonly history: HistoryStore,
    private readonly carries: CarriesService,
    private readonly builds: BuildService,
    private readonly ledger: Ledger,
    private readonly changes: Changes,
    private readonly jobs: Jobs,
  ) {}

  /** Does what the plan says; `settled` holds the answered questions of each catalog. Returns the act, so that it can be taken back. */
  async apply(trx: Trx, caller: Caller, build: HouseBuild, plan: Plan, settled: ReadonlyMap<string, Settlement>): Promise<number> {
    const { proposal } = plan;
    const actId = await this.acts.note(trx, caller, { ...proposal, meanings: [...(proposal.meanings ?? []), ...decided(settled)] }, takenBack(plan.before, proposal));
    let world = plan.before;
    for (const step of proposal.steps) {
      await this.applyStep(trx, caller, build, world, step);
      world = afterStep(world, step);
    }
    await this.writeRanges(trx, caller, plan);
    const told: Told[] = registersOf(proposal).flatMap((id) => {
      const register = build.registers.get(id);
      return register ? [{ audience: register.source ? 'administrators' : 'everyone', body: { kind: 'register', registerId: id } } as const] : [];
    });
    for (const catalog of plan.catalogs) told.push(await this.settleCatalog(trx, caller, build, plan, catalog, settled.get(catalog.catalogId), actId));
    await this.recompute(trx, build, plan);
    await this.builds.changed(trx, caller.houseId);
    await this.changes.append(trx, caller.houseId, told);
    return actId;
  }

  /** Sources that are computed over a catalog of the plan are computed anew, as a job. */
  private async recompute(trx: Trx, build: HouseBuild, { catalogs }: Plan): Promise<void> {
    const keys = new Set(catalogs.map(({ catalogId }) => build.catalogs.get(catalogId)!.key));
    const computed = build.linked.filter((known) => known.catalogs.some((key) => keys.has(key)));
    await this.jobs.send(trx, 'refresh', computed.map(({ id }) => ({ houseId: build.houseId, sourceId: id })));
  }

  private async applyStep(trx: Trx, caller: Caller, build: HouseBuild, world: SourceWorld, step: Step): Promise<void> {
    const { houseId } = caller;
    switch (step.what) {
      case 'act': {
        const before = world.registers.get(step.registerId)?.entries ?? [];
        const after = afterStep(world, step).registers.get(step.registerId)?.entries ?? [];
        return this.writeAct(trx, caller, build.registers.get(step.registerId)!, before, after, step.act);
      }
      case 'heading changed': {
        const register = build.registers.get(step.registerId)!;
        await this.sheets.retitle(trx, 'registers', houseId, register.id, step.heading);
        if (register.fields.length === 1) await this.sheets.changeField(trx, houseId, register.fields[0]!.id, { heading: step.heading });
        return this.ledger.write(trx, houseId, [{ personId: caller.id, act: 'list.retitled', registerId: register.id, from: register.title, to: step.heading }]);
      }
      case 'catalog changed':
        await this.catalogs.define(trx, houseId, step.catalogId, step.definition);
        return this.ledger.write(trx, houseId, [{ personId: caller.id, act: 'catalog.defined', detail: { catalogId: step.catalogId, before: world.definitions.get(step.catalogId), after: step.definition } }]);
      case 'items kept':
        await this.catalogs.keep(trx, houseId, step.catalogId, step.items);
        return this.ledger.write(trx, houseId, step.items.map((item) => ({ personId: caller.id, act: 'item.kept', to: item.value, detail: { catalogId: step.catalogId, item } })));
      case 'linked read':
        await this.sources.storeLinked(trx, houseId, step.sourceId, step.rows);
        return this.ledger.write(trx, houseId, [{ personId: caller.id, act: 'linked.read', detail: { sourceId: step.sourceId, values: step.rows.length } }]);
      default:
        // Ranges are written as a whole at the end, with the anchors that followed.
        return undefined;
    }
  }

  private async writeAct(trx: Trx, caller: Caller, register: RegisterBuild, entriesBefore: readonly Entry[], entriesAfter: readonly Entry[], act: Act): Promise<void> {
    const place = { houseId: caller.houseId, registerId: register.id };
    const before = new Map(entriesBefore.map((entry) => [entry.id, entry]));
    const after = new Map(entriesAfter.map((entry) => [entry.id, entry]));
    const changed = entriesAfter.filter((entry) => before.has(entry.id) && before.get(entry.id)!.cells !== entry.cells);
    const versions = await this.entries.write(trx, place, changed.map(({ id, cells }) => ({ id, cells })));
    if (act.act === 'insert') await this.entries.insert(trx, place, act.before ?? undefined, act.entries);
    if (act.act === 'delete') await this.entries.remove(trx, place, act.entries);
    if (act.act === 'move' || act.act === 'sort' || act.act === 'arrange') await this.places.layOut(trx, place, entriesAfter.map(({ id }) => id));
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const ids = new Set([...changed.map(({ id }) => id), ...(act.act === 'insert' ? act.entries.map(({ id }) => id) : act.act === 'delete' ? act.entries : [])]);
    const pairs = [...ids].map((id) => ({ id, was: before.get(id), is: after.get(id) }));
    await this.counts.write(trx, caller.houseId, pairs.flatMap(({ was, is }) => deltasOf(was?.cells ?? {}, is?.cells ?? {}, fieldIds)));
    const rows = pairs.flatMap(({ id, was, is }) => cellRows(caller, register, id, was, is, versions.get(id)));
    const moves: { readonly [A in Act['act']]?: string } = { move: 'entries.moved', sort: 'entries.sorted', arrange: 'entries.arranged' };
    const order: LedgerRow[] = moves[act.act] ? [{ personId: caller.id, act: moves[act.act]!, registerId: register.id, detail: act.act === 'sort' ? { field: act.field, direction: act.direction } : { entries: 'entries' in act ? act.entries.length : 0 } }] : [];
    await this.ledger.write(trx, caller.houseId, [...rows, ...order]);
  }

  /** Stores the ranges that came, went or have other anchors now. */
  private async writeRanges(trx: Trx, caller: Caller, { proposal, before, after }: Plan): Promise<void> {
    const was = new Map(before.ranges.map((range) => [range.id, range]));
    const is = new Map(after.ranges.map((range) => [range.id, range]));
    await this.sources.addRanges(trx, caller.houseId, after.ranges.filter(({ id }) => !was.has(id)));
    await this.sources.removeRanges(trx, caller.houseId, before.ranges.filter(({ id }) => !is.has(id)).map(({ id }) => id));
    await this.sources.changeRanges(trx, caller.houseId, after.ranges.filter((range) => was.has(range.id) && JSON.stringify(was.get(range.id)) !== JSON.stringify(range)));
    const rows = proposal.steps.flatMap((step): LedgerRow[] => ('range' in step ? [{ personId: caller.id, act: `range.${step.what.split(' ')[1]!}`, detail: { before: was.get(step.range.id) ?? null, range: step.range } }] : []));
    await this.ledger.write(trx, caller.houseId, rows);
  }

  private async settleCatalog(trx: Trx, caller: Caller, build: HouseBuild, { proposal, before }: Plan, plan: CatalogPlan, settlement: Settlement | undefined, actId: number): Promise<Told> {
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
    await this.catalogs.follow(trx, houseId, catalogId, diff.edited.filter(({ from }) => !retire.includes(from)));
    const goes = new Set(retire);
    await this.catalogs.retire(trx, houseId, catalogId, plan.before.filter((item) => goes.has(item.value) && !stays.has(itemKey(item))));
    await this.catalogs.remember(trx, houseId, catalogId, [...carry, ...unasked]);
    for (const field of boundFields(build, catalogId)) {
      await this.carries.begin(trx, houseId, field, carry);
    }
    const version = await this.catalogs.raiseVersion(trx, houseId, catalogId);
    const definitionBefore = proposal.steps.some((step) => step.what === 'catalog changed' && step.catalogId === catalogId) ? before.definitions.get(catalogId) : undefined;
    await this.history.note(trx, caller, { catalogId, version, actId, before: plan.before, after: plan.after, definitionBefore });
    const asked = plan.questions.map(({ value }) => value);
    await this.ledger.write(trx, houseId, [
      ...diff.added.map((value) => ({ personId: caller.id, act: 'item.added', to: value, detail: { catalogId } })),
      ...[...diff.removed, ...diff.edited.map(({ from }) => from)].map((value) => ({
        personId: caller.id,
        act: retire.includes(value) ? 'item.retired' : [...carry, ...unasked].some(({ from }) => from === value) ? 'item.corrected' : 'item.gone',
        from: value,
        to: [...carry, ...unasked].find(({ from }) => from === value)?.to,
        detail: { catalogId, asked: asked.includes(value) },
      })),
    ]);
    return { audience: 'everyone', body: { kind: 'catalog', catalogId, version } };
  }
}

/** What was decided by the answers, so that taking the act back can propose the same the other way round. */
const decided = (settled: ReadonlyMap<string, Settlement>): Meaning[] => [...settled].flatMap(([catalogId, { carry }]) => carry.map(({ from, to }): Meaning => ({ catalogId, from, to, answer: 'corrected' })));

/** Corrections that touch no entry and so were not asked about; their old spellings are remembered all the same. */
function corrections(meanings: readonly Meaning[], catalogId: string, { diff, questions }: CatalogPlan): { from: string; to: string }[] {
  const asked = new Set(questions.map(({ value }) => value));
  const corrected = new Set(meanings.filter((meaning) => meaning.catalogId === catalogId && meaning.answer === 'corrected').map(({ from }) => from));
  return diff.edited.filter(({ from }) => corrected.has(from) && !asked.has(from)).map(({ from, to }) => ({ from, to }));
}

function cellRows(caller: Caller, register: RegisterBuild, entryId: string, was: Entry | undefined, is: Entry | undefined, version: number | undefined): LedgerRow[] {
  const who = { personId: caller.id, registerId: register.id, entryId };
  if (!is) return was ? [{ ...who, act: 'entry.deleted', detail: was.cells }] : [];
  const written = register.fields
    .filter(({ key }) => was?.cells[key] !== is.cells[key])
    .map(({ key }) => ({ ...who, act: 'cell.written', field: key, from: was?.cells[key], to: is.cells[key], ...(version !== undefined && { entryVersion: version }) }));
  // A new entry is one row with all it holds: its cells have no history yet.
  return was ? written : [{ ...who, act: 'entry.inserted', detail: is.cells }];
}
