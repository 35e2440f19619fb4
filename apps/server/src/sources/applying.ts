// Carrying out a plan: entries, anchors, catalogs, carries, ledger and changes, in the caller's transaction.
import { Injectable } from '@nestjs/common';
import type { Act, Entry, Settlement } from '@dellum/core';
import { BuildService, boundFields } from '../build/build.service.js';
import type { HouseBuild, RegisterBuild } from '../build/build.store.js';
import { CarriesService } from '../carries/carries.service.js';
import { CatalogsStore } from '../catalogs/catalogs.store.js';
import { Counts, deltasOf } from '../counts/counts.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { PlacesStore } from '../entries/places.store.js';
import { Ledger, type LedgerRow } from '../ledger/ledger.js';
import { Changes, type Told } from '../live/changes.js';
import type { Caller } from '../people/guard.js';
import type { CatalogPlan, Plan } from './planning.js';
import { SourcesStore } from './sources.store.js';

@Injectable()
export class Applying {
  constructor(
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly counts: Counts,
    private readonly sources: SourcesStore,
    private readonly catalogs: CatalogsStore,
    private readonly carries: CarriesService,
    private readonly builds: BuildService,
    private readonly ledger: Ledger,
    private readonly changes: Changes,
  ) {}

  /** Does what the plan says; `settled` holds the answered questions of each catalog. */
  async apply(trx: Trx, caller: Caller, build: HouseBuild, plan: Plan, settled: ReadonlyMap<string, Settlement>): Promise<void> {
    const register = build.registers.get(plan.proposal.registerId)!;
    if (plan.proposal.what === 'act') await this.writeAct(trx, caller, register, plan, plan.proposal.act);
    await this.writeRanges(trx, caller, register, plan);
    const told: Told[] = [{ audience: 'administrators', body: { kind: 'register', registerId: register.id } }];
    for (const catalog of plan.catalogs) told.push(await this.settleCatalog(trx, caller, build, catalog, settled.get(catalog.catalogId)));
    await this.builds.changed(trx, caller.houseId);
    await this.changes.append(trx, caller.houseId, told);
  }

  private async writeAct(trx: Trx, caller: Caller, register: RegisterBuild, plan: Plan, act: Act): Promise<void> {
    const place = { houseId: caller.houseId, registerId: register.id };
    const before = new Map(plan.before.entries.map((entry) => [entry.id, entry]));
    const after = new Map(plan.after.entries.map((entry) => [entry.id, entry]));
    const changed = plan.after.entries.filter((entry) => before.has(entry.id) && before.get(entry.id)!.cells !== entry.cells);
    await this.entries.write(trx, place, changed.map(({ id, cells }) => ({ id, cells })));
    if (act.act === 'insert') await this.entries.insert(trx, place, act.before ?? undefined, act.entries);
    if (act.act === 'delete') await this.entries.remove(trx, place, act.entries);
    if (act.act === 'move' || act.act === 'sort') await this.places.layOut(trx, place, plan.after.entries.map(({ id }) => id));
    const fieldIds = new Map(register.fields.map(({ key, id }) => [key, id]));
    const ids = new Set([...changed.map(({ id }) => id), ...(act.act === 'insert' ? act.entries.map(({ id }) => id) : act.act === 'delete' ? act.entries : [])]);
    const pairs = [...ids].map((id) => ({ id, was: before.get(id), is: after.get(id) }));
    await this.counts.write(trx, caller.houseId, pairs.flatMap(({ was, is }) => deltasOf(was?.cells ?? {}, is?.cells ?? {}, fieldIds)));
    const rows = pairs.flatMap(({ id, was, is }) => cellRows(caller, register, id, was, is));
    const order: LedgerRow[] = act.act === 'move' || act.act === 'sort' ? [{ personId: caller.id, act: `entries.${act.act === 'move' ? 'moved' : 'sorted'}`, registerId: register.id, detail: act }] : [];
    await this.ledger.write(trx, caller.houseId, [...rows, ...order]);
  }

  private async writeRanges(trx: Trx, caller: Caller, register: RegisterBuild, plan: Plan): Promise<void> {
    const { proposal, before, after } = plan;
    if (proposal.what === 'range made') await this.sources.addRange(trx, caller.houseId, register.id, proposal.range);
    if (proposal.what === 'range deleted') await this.sources.removeRange(trx, caller.houseId, proposal.range.id);
    const was = new Map(before.ranges.map((range) => [range.id, JSON.stringify(range)]));
    const moved = after.ranges.filter((range) => was.has(range.id) && was.get(range.id) !== JSON.stringify(range));
    await this.sources.changeRanges(trx, caller.houseId, moved);
    if (proposal.what === 'act') return;
    const act = `range.${proposal.what.split(' ')[1]!}`;
    await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act, registerId: register.id, detail: { ...proposal.range } }]);
  }

  private async settleCatalog(trx: Trx, caller: Caller, build: HouseBuild, plan: CatalogPlan, settlement: Settlement | undefined): Promise<Told> {
    const { catalogId, diff } = plan;
    const { houseId } = caller;
    const { retire = [], carry = [] } = settlement ?? {};
    const appeared = [...diff.added, ...diff.restored, ...diff.edited.filter(({ merges }) => !merges).map(({ to }) => to)];
    await this.catalogs.restore(trx, houseId, catalogId, appeared);
    await this.catalogs.forgetNames(trx, houseId, catalogId, appeared);
    await this.catalogs.retire(trx, houseId, catalogId, retire);
    await this.catalogs.remember(trx, houseId, catalogId, carry);
    for (const field of boundFields(build, catalogId)) {
      for (const { from, to } of carry) await this.carries.begin(trx, houseId, field, from, to);
    }
    const version = await this.catalogs.raiseVersion(trx, houseId, catalogId);
    const settled = plan.questions.map(({ value }) => value);
    await this.ledger.write(trx, houseId, [
      ...diff.added.map((value) => ({ personId: caller.id, act: 'item.added', to: value, detail: { catalogId } })),
      ...[...diff.removed, ...diff.edited.map(({ from }) => from)].map((value) => ({
        personId: caller.id,
        act: retire.includes(value) ? 'item.retired' : carry.some(({ from }) => from === value) ? 'item.corrected' : 'item.gone',
        from: value,
        to: carry.find(({ from }) => from === value)?.to,
        detail: { catalogId, asked: settled.includes(value) },
      })),
    ]);
    return { audience: 'everyone', body: { kind: 'catalog', catalogId, version } };
  }
}

function cellRows(caller: Caller, register: RegisterBuild, entryId: string, was: Entry | undefined, is: Entry | undefined): LedgerRow[] {
  const who = { personId: caller.id, registerId: register.id, entryId };
  if (!is) return [{ ...who, act: 'entry.deleted', detail: was!.cells }];
  const written = register.fields
    .filter(({ key }) => was?.cells[key] !== is.cells[key])
    .map(({ key }) => ({ ...who, act: 'cell.written', field: key, from: was?.cells[key], to: is.cells[key] }));
  return was ? written : [{ ...who, act: 'entry.inserted' }, ...written];
}
