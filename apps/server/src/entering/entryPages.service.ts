// Reading entries: page by page, only those that are outside, only those that hold a value; and where a value is held.
import { Injectable } from '@nestjs/common';
import { carried, type Carry } from '@dellum/core';
import type { EntryPage, EntryView, HeldIn, PackedEntry, PageQueryDto } from '@dellum/contract';
import { ArrangementsService } from '../arrangements/arrangements.service.js';
import { StructureService, fieldWithKey } from '../structure/structure.service.js';
import { isOpen, registerOf } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { countKey, CountsStore } from '../counts/counts.store.js';
import { Database, type Reader } from '../database/database.js';
import { FormMarksStore } from '../entries/formMarks.store.js';
import type { Caller } from '../access/access.js';
import { EntriesStore, type Place } from '../entries/entries.store.js';
import type { HoldsOneOf } from '../entries/holds.js';
import { carriesOf } from '../entries/judging.js';
import { OutsideHoldingsService } from '../outside/outsideHoldings.service.js';
import { PlacesStore } from '../entries/places.store.js';
import { ProblemError } from '../problems/index.js';

/** So many entries of a list or table come at once. */
const mostPacked = 250_000;

@Injectable()
export class EntryPagesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly counts: CountsStore,
    private readonly outside: OutsideHoldingsService,
    private readonly arrangements: ArrangementsService,
    private readonly forms: FormMarksStore,
  ) {}

  async page(caller: Caller, registerId: string, query: PageQueryDto): Promise<EntryPage> {
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const { total, entries } = await this.found(caller, build, register, query);
    const carries = carriesOf(build, register);
    const shown = entries.map((entry) => ({ ...entry, cells: carried(entry.cells, carries) }));
    return { from: query.from, total, entries: await this.forms.marked(this.database.kysely, build, register, shown) };
  }

  /** The entries of a list or table from an ordinal on, as the JSON of `PackedEntries`. */
  async packed(caller: Caller, registerId: string, from: number): Promise<string> {
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    if (!register.source)
      throw new ProblemError('not-valid', `${register.title} is no list of a source sheet. Its entries are read page by page.`);
    const db = this.database.kysely;
    const place = { houseId: caller.houseId, registerId };
    const keys = register.fields.map(({ key }) => key);
    const carries = carriesOf(build, register);
    const [total, entries] = await Promise.all([
      this.places.total(db, place),
      carries.length === 0 ? this.store.packed(db, place, keys, from, mostPacked) : this.packedCarried(place, keys, carries, from),
    ]);
    return `{"total":${total},"fields":${JSON.stringify(keys)},"entries":[${entries}]}`;
  }

  /** While entries follow a correction they are looked through one by one. */
  private async packedCarried(place: Place, keys: readonly string[], carries: readonly Carry[], from: number): Promise<string> {
    const entries = await this.store.page(this.database.kysely, place, from, mostPacked);
    return entries
      .map(({ id, version, cells: held }): PackedEntry => {
        const cells = carried(held, carries);
        return [id, version, ...keys.map((key) => cells[key] ?? null)];
      })
      .map((entry) => JSON.stringify(entry))
      .join(',');
  }

  private async found(
    caller: Caller,
    build: HouseBuild,
    register: RegisterBuild,
    query: PageQueryDto,
  ): Promise<{ total: number; entries: EntryView[] }> {
    const db = this.database.kysely;
    const place = { houseId: caller.houseId, registerId: register.id };
    if (query.arranged !== undefined) return this.arrangements.page(caller, build, register, query.from, query.count);
    const wanted = await this.wantedBy(db, build, register, query);
    if (wanted) return this.store.pageOfHolding(db, place, wanted, query.from, query.count);
    return { total: await this.places.total(db, place), entries: await this.store.page(db, place, query.from, query.count) };
  }

  /** Which entries are asked for; undefined for all. */
  private async wantedBy(
    db: Reader,
    build: HouseBuild,
    register: RegisterBuild,
    { outside, field, value = '' }: PageQueryDto,
  ): Promise<HoldsOneOf | undefined> {
    if (outside) return this.outside.of(db, build, register, outside === '*' ? register.fields : [fieldWithKey(register, outside)]);
    if (field === undefined) return undefined;
    const { key } = fieldWithKey(register, field);
    const notReached = carriesOf(build, register)
      .filter((carry) => carry.field === key && carry.to === value)
      .map(({ from }) => from);
    return [{ keys: [key], holdings: [value === '' ? null : value, ...notReached].map((held) => [held]) }];
  }

  /** Every field of the entry sheets in which entries hold the value. */
  async heldIn(caller: Caller, value: string): Promise<HeldIn[]> {
    const build = await this.builds.now(caller.houseId);
    const fields = [...build.fields.values()]
      .filter(({ registerId }) => !build.registers.get(registerId)!.source && isOpen(build, registerId, caller))
      .map(({ id }) => id);
    const counts = await this.counts.ofValues(this.database.kysely, caller.houseId, fields, [countKey(value)]);
    return [...counts]
      .flatMap(([fieldId, held]) => [...held.values()].map((entries) => ({ fieldId, entries })))
      .filter(({ entries }) => entries > 0);
  }
}
