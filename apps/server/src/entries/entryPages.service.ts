// Reading entries: page by page, only those that are outside, only those that hold a value; and where a value is held.
import { Injectable } from '@nestjs/common';
import { canBeOutside, carried, readsOf } from '@dellum/core';
import type { EntryPage, HeldIn, PageQueryDto } from '@dellum/contract';
import { BuildService, fieldWithKey, registerOf } from '../build/build.service.js';
import type { HouseBuild, RegisterBuild } from '../build/build.store.js';
import { countKey, Counts } from '../counts/counts.js';
import { Outside } from '../counts/outside.js';
import { Database, type Reader } from '../database/database.js';
import type { Caller } from '../people/guard.js';
import { EntriesStore, type HoldsOneOf } from './entries.store.js';
import { carriesOf } from './judging.js';
import { PlacesStore } from './places.store.js';

@Injectable()
export class EntryPages {
  constructor(
    private readonly database: Database,
    private readonly builds: BuildService,
    private readonly store: EntriesStore,
    private readonly places: PlacesStore,
    private readonly counts: Counts,
    private readonly outside: Outside,
  ) {}

  async page(caller: Caller, registerId: string, query: PageQueryDto): Promise<EntryPage> {
    const db = this.database.kysely;
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, registerId, caller);
    const place = { houseId: caller.houseId, registerId };
    const wanted = await this.wantedBy(db, build, register, query);
    const { total, entries } = wanted
      ? await this.store.pageOfHolding(db, place, wanted, query.from, query.count)
      : { total: await this.places.total(db, place), entries: await this.store.page(db, place, query.from, query.count) };
    const carries = carriesOf(build, register);
    return { from: query.from, total, entries: entries.map((entry) => ({ ...entry, cells: carried(entry.cells, carries) })) };
  }

  /** Which entries are asked for; undefined for all. */
  private async wantedBy(db: Reader, build: HouseBuild, register: RegisterBuild, { outside, field, value = '' }: PageQueryDto): Promise<HoldsOneOf | undefined> {
    if (outside) return this.outsideValues(db, build, register, outside);
    if (field === undefined) return undefined;
    const { key } = fieldWithKey(register, field);
    const notReached = carriesOf(build, register).filter((carry) => carry.field === key && carry.to === value).map(({ from }) => from);
    return [{ keys: [key], holdings: [value === '' ? null : value, ...notReached].map((held) => [held]) }];
  }

  /** Every field of the entry sheets in which entries hold the value. */
  async heldIn(caller: Caller, value: string): Promise<HeldIn[]> {
    const build = await this.builds.now(caller.houseId);
    const fields = [...build.fields.values()].filter(({ registerId }) => !build.registers.get(registerId)!.source).map(({ id }) => id);
    const counts = await this.counts.ofValues(this.database.kysely, caller.houseId, fields, [countKey(value)]);
    return [...counts].flatMap(([fieldId, held]) => [...held.values()].map((entries) => ({ fieldId, entries }))).filter(({ entries }) => entries > 0);
  }

  /** What is outside, by field, as rows hold it; computed from the distinct values, never stored. */
  private async outsideValues(db: Reader, build: HouseBuild, register: RegisterBuild, which: string): Promise<HoldsOneOf> {
    const fields = (which === '*' ? register.fields : [fieldWithKey(register, which)]).filter(canBeOutside);
    const found = await this.outside.of(db, build, fields);
    const carries = carriesOf(build, register);
    return fields.flatMap((field) => {
      const { outside } = found.get(field.id)!;
      const keys = [field.key, ...readsOf(field.rule)];
      const alone = keys.length === 1;
      // Counts know a value by its new spelling at once; rows that a correction has not reached yet still hold the old one.
      const notReached = alone ? carries.filter((carry) => carry.field === field.key && outside.some(({ cells }) => cells[field.key] === carry.to)).map(({ from }) => ({ [field.key]: from })) : [];
      return [{ keys, holdings: [...outside.map(({ cells }) => cells), ...notReached].map((cells) => keys.map((key) => cells[key] ?? null)) }];
    });
  }
}
